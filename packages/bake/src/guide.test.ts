import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { STEPS } from '@uvrex/core';
import { guidePages, pictureOf } from '../../../scripts/guidePages';

const root = join(__dirname, '../../..');
const pictured = (name: string): boolean => existsSync(join(root, 'examples/small', name));

test('the guide says what the steps say of themselves now: npm run guide', () => {
  for (const [name, text] of guidePages(pictured))
    expect([name, readFileSync(join(root, 'docs/guide', name), 'utf8') === text]).toEqual([name, true]);
});

test('every step has its picture there, but for what is drawn from a file', () => {
  const without = STEPS.filter((step) => !pictured(pictureOf(step))).map(({ kind }) => kind);
  expect(without).toEqual(['vector']);
});
