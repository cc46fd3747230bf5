// Writes docs/guide: what each step is for, its fields and its picture.
import { existsSync, mkdirSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { guidePages } from './guidePages';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const folder = join(root, 'docs/guide');
mkdirSync(folder, { recursive: true });
const pages = guidePages((name) => existsSync(join(root, 'examples/small', name)));
for (const [name, text] of pages) writeFileSync(join(folder, name), text);
console.log(`${pages.size} pages in docs/guide.`);
