import { pathCount } from '../../geometry/paths';
import { newGrowth, newStep } from '../../scene/make';
import type { ParamValue, Scene, Step } from '../../scene/schema';
import { putFile, sceneOf, testEvaluator } from '../../testing';
import { form, last, line, paths } from '../../../test/paths';

type Params = Record<string, ParamValue>;
const TABLE = 'site,depth,count\nnorth,-2,10\neast,4,20\nreef,1,40\n';
const withTable = (scene: Scene): void => {
  putFile(scene, 'data', 'table', TABLE);
  scene.growths.push({ ...newGrowth('Dot', 1, [newStep('solid', { radius: 0.1, sides: 6 })]), id: 'dot' });
};
const lines = (params: Params = {}): Step => newStep('table-lines', { file: 'data', height: 2, ...params });
const values = (params: Params = {}): Step => newStep('table-values', { file: 'data', column: 'count', ...params });
const row = (count: number): Step => newStep('strands', { as: 'row', count, apart: 1, vary: 0, turn: 0 });

test('a line for each row, as high as its value against the largest; below 0 downwards', async () => {
  const made = await paths([lines({ apart: 0.5 })], 1, withTable);
  expect([0, 1, 2].map((p) => last(made, p))).toEqual([
    [-0.5, -1, 0],
    [0, 2, 0],
    [0.5, 0.5, 0],
  ]);
  expect([...made.named.value.values]).toEqual([-2, 4, 1]);
  const named = await paths([lines({ column: 'Count', least: 0.1, points: 2 })], 1, withTable);
  expect([0, 1, 2].map((p) => last(named, p)[1])).toEqual([0.6, 1.1, 2.1].map((y) => expect.closeTo(y, 5)));
});

test('as rays or in a ring they stand round the middle', async () => {
  const rays = await paths([lines({ stand: 'rays', column: '3', radius: 1 })], 1, withTable);
  const ring = await paths([lines({ stand: 'ring', column: '3', radius: 1 })], 1, withTable);
  for (let p = 0; p < 3; p++) {
    const long = 2 * ([10, 20, 40][p] / 40);
    expect(Math.hypot(...last(rays, p))).toBeCloseTo(1 + long, 5);
    expect(last(ring, p)[1]).toBeCloseTo(long, 5);
    const angle = (2 * Math.PI * p) / 3;
    expect(last(ring, p)[0]).toBeCloseTo(Math.cos(angle), 5);
  }
});

test('values by path, in their scales, again from the first row or 0 beyond the last; Grow takes them for levels', async () => {
  const of = async (params: Params): Promise<number[]> =>
    [...(await paths([line(1), row(5), values(params)], 1, withTable)).named.value.values].map((v) =>
      Number(v.toFixed(4)),
    );
  expect(await of({ scale: 'measured' })).toEqual([10, 20, 40, 10, 20]);
  expect(await of({ scale: 'measured', repeat: false })).toEqual([10, 20, 40, 0, 0]);
  expect(await of({})).toEqual([0, 0.3333, 1, 0, 0.3333]);
  expect(await of({ scale: 'between', low: 15, high: 35 })).toEqual([0, 0.25, 1, 0, 0.25]);
  const grown = newStep('grow', { levels: 1, levelsBy: 'attribute', levelAttribute: 'value' });
  const made = await paths([line(1, 31), row(3), values({ scale: 'between', low: 0, high: 40 }), grown], 1, withTable);
  expect([0, 1, 2].map((p) => last(made, p)[1])).toEqual([0.25, 0.5, 1].map((y) => expect.closeTo(y, 4)));
});

test('values of points and of copies', async () => {
  const head = await form(
    [newStep('phyllotaxis', { count: 3 }), values({ on: 'points', name: 'seen', scale: 'measured' })],
    1,
    withTable,
  );
  expect([...head.points!.named.seen.values]).toEqual([10, 20, 40]);
  const sized = newStep('falloff', {
    shape: 'attribute',
    attribute: 'value',
    drives: 'size',
    factor: 2,
    ease: 'linear',
  });
  const copies = [line(1), newStep('along', { growth: 'dot', by: 'count', count: 3 }), values({ on: 'copies' }), sized];
  const made = await form(copies, 1, withTable);
  expect([0, 1, 2].map((k) => made.copies!.sizes[3 * k])).toEqual([1, 4 / 3, 2].map((s) => expect.closeTo(s, 4)));
});

test.each([
  [[newStep('table-lines', { file: null })], 'No table is chosen.'],
  [[lines({ column: 'depths' })], 'The table has no column “depths”.'],
  [[line(1), values({ on: 'copies' })], 'There are no copies here.'],
] as [Step[], string][])('says what it lacks', async (steps, what) => {
  const scene = sceneOf(steps);
  withTable(scene);
  const [{ notices }] = (await testEvaluator().evaluate(scene, 1)).growths;
  expect(notices.map((notice) => notice.what)).toEqual([what]);
});

test('a row more is a line more, and moves no number of another', async () => {
  const more = (scene: Scene): void => putFile(scene, 'more', 'table', `${TABLE}wall,3,5\n`);
  const made = await paths([lines({ file: 'more', column: 'depth' })], 1, more);
  expect(pathCount(made)).toBe(4);
  expect([...made.ids]).toEqual([0, 1, 2, 3]);
});
