import { newGrowth, newScene, newStep, Evaluator } from '@uvrex/core';
import { partNames, partsOf } from './part';
import { frameName, GEOMETRY_FORMATS } from './register';
import { COLUMNS, measureRow } from './table';

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

test('growths of one name are told apart, by names that none has', () => {
  const growth = (id: string, name: string) => ({ ...newGrowth(name, 0, []), id });
  const growths = [growth('a', 'Kelp'), growth('b', 'Kelp (2)'), growth('c', 'Kelp'), growth('d', 'Kelp')];
  expect([...partNames({ growths })]).toEqual([
    ['a', 'Kelp'],
    ['b', 'Kelp (2)'],
    ['c', 'Kelp (3)'],
    ['d', 'Kelp (4)'],
  ]);
});

const noFiles = (): Promise<Uint8Array> => Promise.reject(new Error('no file is asked for'));

test.each([
  [7, 'reef_0007.obj'],
  [-12, 'reef_-0012.obj'],
  [123456, 'reef_123456.obj'],
])('frame %d is the file %s', (frame, name) => expect(frameName('reef', frame, 'obj')).toBe(name));

test('every format of geometry writes a file that begins as its own standard says', async () => {
  const scene = newScene('Reef');
  scene.growths = [newGrowth('Stem', 0, [newStep('line'), newStep('tube', { sides: 3 })])];
  const { growths } = await new Evaluator({ now: () => 0 }).evaluate(scene, 3);
  const parts = partsOf(scene, 3, growths);
  const begins: Record<string, RegExp> = { glb: /^glTF/, obj: /^# [^\n]*\no Stem\nv /, csv: /^3,Stem,/ };
  for (const format of GEOMETRY_FORMATS) {
    const text = Buffer.from(await format.write(3, parts, scene, noFiles)).toString('latin1');
    expect([format.id, begins[format.id].test(text)]).toEqual([format.id, true]);
  }
  expect(new Set(GEOMETRY_FORMATS.map(({ id }) => id)).size).toBe(GEOMETRY_FORMATS.length);
});

test('a growth without a form is told by its name and frame', async () => {
  const scene = newScene('Reef');
  scene.growths = [newGrowth('Lost', 0, [newStep('shared')])];
  const { growths } = await new Evaluator({ now: () => 0 }).evaluate(scene, 3);
  expect(() => partsOf(scene, 3, growths)).toThrow(/Frame 3, growth “Lost”: No growth is chosen/);
});
