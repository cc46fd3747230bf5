import { newGrowth, newScene, newStep, Evaluator } from '@uvrex/core';
import { COLUMNS, measureRow } from './measure';

async function rowOf(name: string, to: number): Promise<Record<string, string>> {
  const scene = newScene('Reef');
  scene.growths = [
    newGrowth(name, 0, [
      newStep('line', { points: 11, toX: 0, toY: 4 }),
      newStep('grow', { to }),
      newStep('tube', { sides: 6, swell: 0, radius: 0.5, end: 'open', start: 'open', along: [{ at: 0, value: 1 }] }),
    ]),
  ];
  const [growth] = (await new Evaluator({ now: () => 0 }).evaluate(scene, 5)).growths;
  const row = measureRow(5, name, growth.form!, growth.share, 1.234);
  const fields = row.match(/("(?:[^"]|"")*"|[^,]*)(?:,|$)/g)!.map((field) => field.replace(/,$/, ''));
  return Object.fromEntries(COLUMNS.map((column, i) => [column, fields[i]]));
}

test('a row measures what is there: half of four metres, its box and its faces', async () => {
  expect(await rowOf('Stem', 0.5)).toMatchObject({
    frame: '5',
    growth: 'Stem',
    share_grown: '0.500000',
    path_length_m: '2.000000',
    points: '6',
    faces: '60',
    copies: '0',
    min_z: '-0.500000',
    min_y: '0.000000',
    max_y: '2.000000',
    milliseconds: '1.23',
  });
});

test('nothing grown yet has no box, and its hash is that of nothing', async () => {
  const [one, other] = [await rowOf('A', 0), await rowOf('B', 0)];
  expect(one).toMatchObject({ share_grown: '0.000000', path_length_m: '0.000000', faces: '0', min_x: '' });
  expect(one.hash).toBe(other.hash);
  expect(one.hash).not.toBe((await rowOf('A', 1)).hash);
});

// RFC 4180, section 2: fields with commas or quotes stand in quotes, quotes in them are doubled.
test('names are quoted where they must be', async () => {
  expect((await rowOf('Stem, "tall"', 1)).growth).toBe('"Stem, ""tall"""');
});
