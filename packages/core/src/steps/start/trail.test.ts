import { pathCount } from '../../geometry/paths';
import { at } from '../../geometry/vec';
import { newGrowth, newStep } from '../../scene/make';
import type { ParamValue, Scene, Step } from '../../scene/schema';
import { formHash } from '../../digests/digest';
import { sceneOf, testEvaluator } from '../../testing';
import { grows, last, paths } from '../../../test/paths';

const trail = (params: Record<string, ParamValue> = {}): Step => newStep('trail', { growth: 'source', ...params });
const source =
  (...steps: Step[]) =>
  (scene: Scene): void => {
    scene.growths.push({ ...newGrowth('Source', 1, steps), id: 'source' });
    scene.growths.push({ ...newGrowth('Dot', 2, [newStep('solid', { radius: 0.1, sides: 6 })]), id: 'dot' });
  };
/** A metre of path along X that travels 0.1 m up each frame: formulas know frames. */
const rising = newStep('line', { toX: 1, toY: 0, points: 3 });
const lift = newStep('transform', { moveY: { formula: '0.1 * frame' } });
/** A point that runs round a circle of radius 1, 10° each frame. */
const orbit = [
  newStep('line', { fromX: 0, toX: 1, toY: 0, points: 2 }),
  newStep('transform', { turnZ: { formula: '10 * frame' } }),
];

test('the tip of a path leaves the way that it has come, from so many frames ago to now', async () => {
  const made = await paths([trail({ frames: 5, smooth: 1 })], 20, source(rising, lift));
  expect(pathCount(made)).toBe(1);
  const heights = Array.from({ length: 6 }, (_, i) => at(made.positions, i));
  expect(heights).toEqual([15, 16, 17, 18, 19, 20].map((f) => [1, expect.closeTo(0.1 * f, 5), 0]));
  // Seconds since it was there.
  const { fps } = sceneOf([]);
  expect([...made.age!]).toEqual([5, 4, 3, 2, 1, 0].map((f) => expect.closeTo(f / fps, 5)));
});

test('the curve runs through the very places: a circle, to a thousandth, from every second frame', async () => {
  const made = await paths([trail({ frames: 30, every: 2, smooth: 6 })], 40, source(...orbit));
  const off = Array.from({ length: made.s.length }, (_, i) => Math.abs(Math.hypot(...at(made.positions, i)) - 1));
  // A circle by Catmull-Rom curves every 20°, its ends aside.
  expect(Math.max(...off.slice(6, -6))).toBeLessThan(1e-3);
  expect(last(made)).toEqual(
    [Math.cos((400 * Math.PI) / 180), Math.sin((400 * Math.PI) / 180), 0].map((v) => expect.closeTo(v, 5)),
  );
});

test('places between stand where they stood at the frame before: nothing slides', async () => {
  const at20 = await paths([trail({ frames: 8, every: 2, smooth: 1 })], 20, source(...orbit));
  const at21 = await paths([trail({ frames: 8, every: 2, smooth: 1 })], 21, source(...orbit));
  const inner = (made: typeof at20): string[] =>
    Array.from({ length: made.s.length - 2 }, (_, i) => at(made.positions, i + 1).join());
  expect(inner(at20)).toEqual(expect.arrayContaining(inner(at21).slice(0, -1)));
});

test('since the first frame: one that is not there yet then begins later', async () => {
  const dots = (scene: Scene): void =>
    source(
      newStep('line', { toX: 0, toY: 1, points: 11 }),
      newStep('grow', { to: grows(0, 1) }),
      newStep('along', { growth: 'dot', by: 'count', count: 2, stands: 'origin' }),
      newStep('transform', { moveX: { formula: 'frame' } }),
    )(scene);
  const made = await paths([trail({ of: 'copies', over: 'range', smooth: 1 })], 101, dots);
  expect(pathCount(made)).toBe(2);
  const lengths = [...made.whole];
  expect(lengths[0]).toBeGreaterThan(lengths[1] + 10);
  expect(last(made, 0)[0]).toBeCloseTo(101, 4);
});

test('without a growth, what stands before draws: the motion of later steps is left out', async () => {
  const own = await paths([...orbit, trail({ growth: null, frames: 3, smooth: 1 }), lift], 20);
  expect(pathCount(own)).toBe(2);
  // Orbit of the line's end, lifted as a whole by where the last step is now.
  const lifted = own.positions.slice(3 * own.offsets[1]);
  for (let i = 0; i < 4; i++) {
    const angle = ((170 + 10 * i) * Math.PI) / 180;
    expect(at(lifted, i)).toEqual([Math.cos(angle), Math.sin(angle) + 2, 0].map((v) => expect.closeTo(v, 5)));
  }
});

test('of a growth that starts later, since the first frame of the scene', async () => {
  const later = (scene: Scene): void => void (scene.growths[0].shift = 10);
  const moved = newStep('transform', { moveX: { formula: 'frame' } });
  const own = [newStep('line', { points: 2 }), moved, trail({ growth: null, over: 'range', smooth: 1 })];
  // At frame 21 it is 20 frames since the first one, and the growth's own frame is 11.
  expect((await paths(own, 21, later)).whole[1]).toBeCloseTo(20, 4);
});

test.each([
  ['nodes', 3],
  ['vertices', 8],
])('of %s: one for each', async (of, count) => {
  const box = newStep('solid', { which: 'box' });
  const made = await paths([trail({ of, frames: 4, smooth: 1 })], 20, source(rising, box, lift));
  expect(pathCount(made)).toBeGreaterThanOrEqual(count);
  for (let p = 0; p < pathCount(made); p++) expect(made.whole[p]).toBeCloseTo(0.4, 4);
});

test('the same frame is the same, reached forwards, backwards or at once', async () => {
  const scene = sceneOf([trail({ frames: 6 }), newStep('wire')]);
  source(...orbit)(scene);
  const hash = async (evaluator: ReturnType<typeof testEvaluator>, frame: number): Promise<string> =>
    formHash((await evaluator.evaluate(scene, frame)).growths[0].form!);
  const [forwards, back] = [testEvaluator(), testEvaluator()];
  for (const frame of [10, 11, 12]) await hash(forwards, frame);
  for (const frame of [30, 29, 13]) await hash(back, frame);
  const fresh = await hash(testEvaluator(), 13);
  expect([await hash(forwards, 13), await hash(back, 13)]).toEqual([fresh, fresh]);
  expect(await hash(forwards, 14)).not.toBe(fresh);
});

test('says what it lacks', async () => {
  const scene = sceneOf([trail({ of: 'copies' })]);
  source(rising)(scene);
  const [{ notices }] = (await testEvaluator().evaluate(scene, 5)).growths;
  expect(notices.map(({ what }) => what)).toEqual(['There are no copies to draw trails.']);
});
