import { readdirSync, readFileSync } from 'node:fs';
import { join, relative, sep } from 'node:path';

// Rooms stand on those before them: docs/architecture.md says what each is for. Rooms in one list may use each other.

const root = join(__dirname, '../../..');
const CORE = [
  ['fields', 'geometry', 'time', 'digests'],
  ['sound', 'tables', 'pictures'],
  ['outline'],
  ['curves'],
  ['growing'],
  ['surfaces'],
  ['forms'],
  ['scene', 'steps'],
  ['evaluate'],
  ['checks'],
  ['cuttings'],
];
const STUDIO = [
  ['store'],
  ['worker'],
  ['state'],
  ['ui'],
  ['table'],
  ['checks'],
  ['timeline'],
  ['library'],
  ['viewport'],
  ['export'],
  ['stem'],
  ['versions'],
  ['lessons'],
  ['shell'],
];

const filesIn = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return filesIn(path);
    return /\.tsx?$/.test(entry.name) && !/\.test\.|testing\./.test(entry.name) ? [path] : [];
  });

/** Static imports of a source: what is loaded when it is wanted may come from any room. */
const importsOf = (text: string): string[] =>
  [...text.matchAll(/^(?:import|export)\s[^;]*?from '([^']+)'/gm)].map(([, from]) => from);

test.each([
  ['packages/core/src', CORE],
  ['apps/studio/src', STUDIO],
] as const)('rooms of %s import only what they stand on', (folder, order) => {
  const source = join(root, folder);
  const roomOf = (path: string): string => relative(source, path).split(sep)[0];
  const floor = new Map(order.flatMap((rooms, i) => rooms.map((room) => [room, i] as const)));
  const wrong: string[] = [];
  const seen = new Set<string>();
  for (const file of filesIn(source)) {
    const own = roomOf(file);
    if (/\.tsx?$/.test(own)) continue;
    seen.add(own);
    for (const from of importsOf(readFileSync(file, 'utf8'))) {
      const target = from.startsWith('@/')
        ? join(source, from.slice(2))
        : from.startsWith('.')
          ? join(file, '..', from)
          : null;
      if (!target) continue;
      const other = roomOf(target);
      const there = floor.get(other);
      if (other === own || there === undefined) continue;
      if (there > floor.get(own)!) wrong.push(`${relative(root, file)} imports ${from}`);
    }
  }
  expect(wrong).toEqual([]);
  expect([...seen].sort()).toEqual([...floor.keys()].sort());
});
