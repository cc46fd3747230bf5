import { NO_PARENT, type Paths, pathCount } from '../../geometry/paths';
import { at, distance } from '../../geometry/vec';
import { newGrowth, newStep } from '../../scene/make';
import type { ParamValue, Scene, Step } from '../../scene/schema';
import { sceneOf, testEvaluator } from '../../testing';
import { last, paths } from '../../../test/paths';

const edges = (params: Record<string, ParamValue> = {}): Step => newStep('edge-paths', { growth: 'skin', ...params });
const onSkin =
  (...steps: Step[]) =>
  (scene: Scene): void =>
    void scene.growths.push({ ...newGrowth('Skin', 1, steps), id: 'skin' });
const cube = newStep('solid', { which: 'box', width: 2, height: 2, depth: 2, atY: 1 });
const ball = newStep('solid', { radius: 1, sides: 48, atY: 0 });
/** A corner of the cube as written in file order: corners are told apart by their place. */
const key = (paths_: Paths, i: number): string =>
  at(paths_.positions, i)
    .map((v) => v.toFixed(4))
    .join();

test('the shortest way over a cube from corner to far corner: as long as an edge and a diagonal of a face', async () => {
  // Faces are two triangles each: over edges and diagonals, 2 + 2√2 is the least, and 6 along edges alone.
  const made = await paths(
    [edges({ to: 'place', fromX: -1, fromY: 0, fromZ: -1, endX: 1, endY: 2, endZ: 1, wander: 0 })],
    1,
    onSkin(cube),
  );
  expect(pathCount(made)).toBe(1);
  expect(at(made.positions, 0)).toEqual([-1, 0, -1]);
  expect(last(made)).toEqual([1, 2, 1]);
  expect([expect.closeTo(2 + 2 * Math.SQRT2, 4), expect.closeTo(6, 4)]).toContainEqual(made.whole[0]);
});

test('on a fine ball the shortest way from pole to pole is half a great circle, and lies on the skin', async () => {
  const made = await paths([edges({ to: 'place', fromY: -1, endX: 0, endY: 1, endZ: 0, wander: 0 })], 1, onSkin(ball));
  expect(made.whole[0] / Math.PI).toBeCloseTo(1, 2);
  for (let i = 0; i < made.s.length; i++) expect(Math.hypot(...at(made.positions, i))).toBeCloseTo(1, 5);
});

test('ways to many places are one tree: each branch begins on its parent, arrivals rise, and each place is met once', async () => {
  const made = await paths([edges({ count: 80, fromY: -1 })], 1, onSkin(ball));
  expect([...made.parent!].filter((id) => id === NO_PARENT)).toHaveLength(1);
  const met = new Map<string, number>();
  for (let p = 0; p < pathCount(made); p++) {
    const [a, b] = [made.offsets[p], made.offsets[p + 1]];
    for (let i = a + 1; i < b; i++) {
      expect(made.arrival![i]).toBeGreaterThan(made.arrival![i - 1]);
      met.set(key(made, i), (met.get(key(made, i)) ?? 0) + 1);
    }
    if (made.parent![p] === NO_PARENT) continue;
    const on = [...made.ids].indexOf(made.parent![p]);
    const begins = Array.from({ length: made.offsets[on + 1] - made.offsets[on] }, (_, k) =>
      distance(at(made.positions, a), at(made.positions, made.offsets[on] + k)),
    );
    expect(Math.min(...begins)).toBeLessThan(1e-6);
  }
  expect(Math.max(...met.values())).toBe(1);
});

test('walks never come where one has been, have their length, and more of them change none before', async () => {
  const walk = { way: 'walk', length: 0.8 };
  const few = await paths([edges({ ...walk, count: 12 })], 1, onSkin(ball));
  const many = await paths([edges({ ...walk, count: 40 })], 1, onSkin(ball));
  expect([...many.positions.subarray(0, few.positions.length)]).toEqual([...few.positions]);
  const seen = new Set(Array.from({ length: many.s.length }, (_, i) => key(many, i)));
  expect(seen.size).toBe(many.s.length);
  // An edge longer at most: the walk ends with the edge on which its length is used up.
  expect(Math.max(...few.whole)).toBeLessThan(0.8 + 0.15);
  expect(few.whole[0]).toBeGreaterThan(0.8 - 1e-6);
});

test('pulled to a place, they end near it; straight on, they turn less', async () => {
  const walk = { way: 'walk', count: 10, length: 5 };
  const pulled = await paths([edges({ ...walk, pull: 1, straight: 0, endY: 1 })], 1, onSkin(ball));
  const tops = Array.from({ length: pathCount(pulled) }, (_, p) => last(pulled, p)[1]);
  expect(tops.reduce((sum, y) => sum + y, 0) / tops.length).toBeGreaterThan(0.7);
  const turning = async (straight: number): Promise<number> => {
    const { positions, offsets } = await paths([edges({ ...walk, length: 1, straight })], 1, onSkin(ball));
    let [sum, count] = [0, 0];
    for (let p = 0; p + 1 < offsets.length; p++)
      for (let i = offsets[p] + 1; i < offsets[p + 1] - 1; i++) {
        const [a, b, c] = [at(positions, i - 1), at(positions, i), at(positions, i + 1)];
        sum += distance(a, c) / (distance(a, b) + distance(b, c));
        count++;
      }
    return sum / count;
  };
  expect(await turning(1)).toBeGreaterThan(await turning(0));
});

test('they ride on the skin as it moves, along the same edges', async () => {
  const moved = onSkin(ball, newStep('transform', { moveX: { formula: 'frame' } }));
  const [at1, at5] = [await paths([edges({ count: 20 })], 1, moved), await paths([edges({ count: 20 })], 5, moved)];
  for (let i = 0; i < at1.s.length; i++) {
    const [x, y, z] = at(at1.positions, i);
    expect(at(at5.positions, i)).toEqual([expect.closeTo(x + 4, 4), y, z]);
  }
});

test.each([
  [{ growth: null }, 'No growth is chosen.'],
  [{ count: 0 }, 'No edge leads there.'],
] as [Record<string, ParamValue>, string][])('says what it lacks', async (params, what) => {
  const scene = sceneOf([edges(params)]);
  onSkin(ball)(scene);
  const [{ notices }] = (await testEvaluator().evaluate(scene, 1)).growths;
  expect(notices.map((notice) => notice.what)).toEqual([what]);
});
