import { NO_PARENT, pathCount, type Paths } from '../../geometry/paths';
import { pathTreeOf } from '../../geometry/tree';
import { at, distance, dot, sub, unit, type Vec3 } from '../../geometry/vec';
import { newGrowth, newStep } from '../../scene/make';
import type { ParamValue } from '../../scene/schema';
import { form, grows, paths } from '../../../test/paths';
import { visibleLength } from '../../curves/pathFrames';

const plain = { varyCount: 0, varyLength: 0, droop: 0, curve: 0 };
const burst = (params: Record<string, ParamValue> = {}): Promise<Paths> => paths([newStep('burst', params)]);
const ends = (of: Paths, p: number): [Vec3, Vec3] => [
  at(of.positions, of.offsets[p]),
  at(of.positions, of.offsets[p + 1] - 1),
];

test('as many members as bursts make: a geometric series', async () => {
  for (const generations of [1, 2, 3, 4]) {
    const made = await burst({ ...plain, count: 5, children: 3, generations });
    // 5 (1 + 3 + 3² + …), the sum of a geometric series.
    expect(pathCount(made)).toBe((5 * (3 ** generations - 1)) / 2);
  }
});

test('each begins where its parent ends, is as long as it should be, and stays within its spread', async () => {
  const made = await burst({ ...plain, count: 20, spread: 60, childSpread: 30, children: 4, generations: 3 });
  const { parents, depths } = pathTreeOf(made);
  for (let p = 0; p < pathCount(made); p++) {
    const [from, to] = ends(made, p);
    expect(made.whole[p]).toBeCloseTo(0.8 * 0.55 ** depths[p], 5);
    const way = unit(sub(to, from));
    const parent = parents[p];
    const [a, b] = parent >= 0 ? ends(made, parent) : [[0, 0, 0] as Vec3, [0, 0, 0] as Vec3];
    expect(distance(from, b)).toBeLessThan(1e-5);
    const towards: Vec3 = parent >= 0 ? unit(sub(b, a)) : [0, 1, 0];
    const limit = ((parent >= 0 ? 30 : 60) * Math.PI) / 180;
    expect(dot(way, towards)).toBeGreaterThan(Math.cos(limit) - 1e-4);
    expect(made.parent![p] === NO_PARENT).toBe(parent < 0);
  }
});

test('lengths that vary stay within what is said, and go all the way to both sides', async () => {
  const { whole } = await burst({ ...plain, varyLength: 0.4, count: 300, generations: 1, length: 2 });
  const shares = Array.from(whole, (length) => length / 2 - 1);
  for (const share of shares) expect(Math.abs(share)).toBeLessThan(0.4 + 1e-5);
  // Even chance: the least and greatest of 300 lie in the outermost tenths but once in 10¹³.
  expect(Math.min(...shares)).toBeLessThan(-0.32);
  expect(Math.max(...shares)).toBeGreaterThan(0.32);
});

// Archimedes, On the sphere and cylinder: a zone's area goes by its height alone, so evenly spread ways have evenly spread heights.
test('ways are spread evenly over the sphere', async () => {
  const made = await burst({ ...plain, count: 400, spread: 180, generations: 1 });
  const heights = Array.from(
    { length: 400 },
    (_, p) => unit(sub(...([...ends(made, p)].reverse() as [Vec3, Vec3])))[1],
  );
  for (let zone = 0; zone < 8; zone++) {
    const [low, high] = [-1 + zone / 4, -0.75 + zone / 4];
    expect(Math.abs(heights.filter((h) => h >= low && h < high).length - 50)).toBeLessThan(8);
  }
});

test('the front runs through all of it at an even pace, and what bursts from an end waits for it', async () => {
  const steps = [
    newStep('burst', { ...plain, count: 1, children: 1, generations: 4 }),
    newStep('grow', { from: 0, to: grows(0, 1) }),
  ];
  const whole = (await burst({ ...plain, count: 1, children: 1, generations: 4 })).whole.reduce((sum, x) => sum + x, 0);
  for (const frame of [11, 51, 91]) {
    const made = await paths(steps, frame);
    const there = Array.from({ length: pathCount(made) }, (_, p) => visibleLength(made, p)).reduce(
      (sum, x) => sum + x,
      0,
    );
    expect(there / whole).toBeCloseTo((frame - 1) / 100, 4);
  }
});

test('it bursts from the tips of another growth the way they point, and too many members are told', async () => {
  const made = await form(
    [newStep('burst', { ...plain, begins: 'tips', growth: 'stem', count: 6, spread: 10, generations: 1 })],
    1,
    (scene) => scene.growths.push({ ...newGrowth('Stem', 1, [newStep('line', { toX: 2, toY: 0 })]), id: 'stem' }),
  );
  for (let p = 0; p < 6; p++) {
    const [from, to] = ends(made.paths!, p);
    expect(from).toEqual([2, 0, 0]);
    expect(unit(sub(to, from))[0]).toBeGreaterThan(Math.cos(Math.PI / 18) - 1e-4);
  }
  await expect(burst({ count: 1000, children: 100, generations: 4 })).rejects.toThrow();
});
