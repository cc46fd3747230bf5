import type { Points } from '../../geometry/form';
import { insideOf } from '../../geometry/search/nearest';
import { at, distance, type Vec3 } from '../../geometry/vec';
import { newGrowth, newStep } from '../../scene/make';
import type { ParamValue, Scene } from '../../scene/schema';
import { formHash } from '../../digests/digest';
import { sceneOf, testEvaluator } from '../../testing';
import { form } from '../../../test/paths';

type Params = Record<string, ParamValue>;
const filled = async (params: Params, change?: (scene: Scene) => void): Promise<Points> =>
  (await form([newStep('volume', params)], 1, change)).points!;
const placesOf = ({ positions, ids }: Points): Vec3[] => Array.from(ids, (_, i) => at(positions, i));
const unitBall = { where: 'ball', atY: 0, width: 2, height: 2, depth: 2 };
const mean = (values: readonly number[]): number => values.reduce((sum, v) => sum + v, 0) / values.length;

/** Distance of each to its nearest neighbour, by looking at all. */
const gaps = (places: readonly Vec3[]): number[] =>
  places.map((a, i) => Math.min(...places.map((b, j) => (i === j ? Infinity : distance(a, b)))));

// A uniform ball of radius 1: the mean distance from the middle is 3/4; that of a box from its middle plane a quarter of its side.
test.each([
  // Places that keep apart come to lie at the skin a little more often.
  ['even', 0.03],
  ['random', 0.012],
] as const)('%s: as many as asked for, uniform in a ball and in a box', async (by, off) => {
  const ball = placesOf(await filled({ ...unitBall, by, count: 3000 }));
  expect(ball).toHaveLength(3000);
  const away = ball.map((place) => Math.hypot(...place));
  expect(Math.max(...away)).toBeLessThanOrEqual(1);
  expect(Math.abs(mean(away) - 0.75)).toBeLessThan(off);
  const box = placesOf(await filled({ where: 'box', atX: 5, atY: 0, width: 4, height: 1, depth: 2, by, count: 3000 }));
  for (const [axis, side, middle] of [
    [0, 4, 5],
    [1, 1, 0],
    [2, 2, 0],
  ] as const) {
    const from = box.map((place) => Math.abs(place[axis] - middle));
    expect(Math.max(...from)).toBeLessThanOrEqual(side / 2);
    expect(Math.abs(mean(from) / side - 0.25)).toBeLessThan(off);
  }
});

test('evenly spread ones keep apart, at every count; more of them move none that stand', async () => {
  const few = await filled({ ...unitBall, count: 200 });
  const many = await filled({ ...unitBall, count: 800 });
  expect([...many.positions.subarray(0, 600)]).toEqual([...few.positions]);
  for (const points of [few, many]) {
    const places = placesOf(points);
    // Places at random have their nearest neighbour at 0.554 n^(−1/3) on average (Hertz 1909), some at next to nothing.
    const random = 0.55396 * Math.cbrt(((4 / 3) * Math.PI) / places.length);
    expect(Math.min(...gaps(places))).toBeGreaterThan(random);
  }
});

test('a count between whole numbers: the newest is coming up', async () => {
  const points = await filled({ ...unitBall, count: 10.25 });
  expect([...points.size]).toEqual([...Array(10).fill(1), 0.25]);
});

test('by distance: none nearer than that, and hardly room for another', async () => {
  const spacing = 0.25;
  const places = placesOf(await filled({ ...unitBall, by: 'spacing', spacing }));
  expect(Math.min(...gaps(places))).toBeGreaterThanOrEqual(spacing);
  // Of places thrown at random, hardly any is that far from all of them.
  const thrown = placesOf(await filled({ ...unitBall, by: 'random', count: 4000 }));
  const free = thrown.filter((place) => places.every((other) => distance(place, other) >= spacing));
  expect(free.length / thrown.length).toBeLessThan(0.01);
});

test('packed balls touch neither each other nor the skin, are of all sizes, and fill more than equal ones could', async () => {
  const points = await filled({ ...unitBall, by: 'packed', count: 100000, smallest: 0.03, largest: 0.35 });
  const places = placesOf(points);
  const radii = [...points.size].map((size) => size / 2);
  let worst = Infinity;
  for (let i = 0; i < places.length; i++) {
    worst = Math.min(worst, 1 - Math.hypot(...places[i]) - radii[i]);
    for (let j = 0; j < i; j++) worst = Math.min(worst, distance(places[i], places[j]) - radii[i] - radii[j]);
  }
  expect(worst).toBeGreaterThan(-1e-6);
  expect(Math.min(...radii)).toBeGreaterThanOrEqual(0.03 - 1e-6);
  expect(Math.max(...radii)).toBeGreaterThan(0.25);
  expect(radii.reduce((sum, r) => sum + r ** 3, 0)).toBeGreaterThan(0.42);
});

test('inside a form: what is closed holds them, hollows stay empty', async () => {
  const ring = newStep('solid', { which: 'ring', radius: 1, thick: 0.3, atY: 0 } as never);
  const source = (scene: Scene): void => void scene.growths.push({ ...newGrowth('Ring', 1, [ring]), id: 'ring' });
  const points = await filled({ where: 'form', growth: 'ring', count: 400 }, source);
  const { mesh } = await form([ring]);
  const places = placesOf(points);
  expect(places).toHaveLength(400);
  expect(places.filter((place) => !insideOf(mesh!, place))).toEqual([]);
});

test('density and size go by the height, or by the way inwards', async () => {
  const rising = [
    { at: 0, value: 0 },
    { at: 1, value: 1 },
  ] as never;
  const up = await filled({
    where: 'box',
    atY: 0.5,
    width: 1,
    height: 1,
    depth: 1,
    goesBy: 'height',
    density: rising,
    sizes: rising,
    by: 'random',
    count: 4000,
  });
  const heights = placesOf(up).map(([, y]) => y);
  // A density that rises with the height has its mean at two thirds of it.
  expect(mean(heights)).toBeCloseTo(2 / 3, 1.6);
  expect(up.size[7]).toBeCloseTo(heights[7], 2);
  const inwards = await filled({ ...unitBall, goesBy: 'inwards', sizes: rising, count: 300 });
  placesOf(inwards).forEach((place, i) => expect(inwards.size[i]).toBeCloseTo(1 - Math.hypot(...place), 2));
});

test.each(['even', 'random', 'packed'])(
  '%s: an evaluator that has counted up gives what a fresh one does',
  async (by) => {
    const scene = (count: number): Scene =>
      sceneOf([
        newStep('volume', {
          ...unitBall,
          by,
          count,
          largest: 0.3,
          goesBy: 'inwards',
          density: [
            { at: 0, value: 0.2 },
            { at: 1, value: 1 },
          ] as never,
        }),
      ]);
    const hash = async (evaluator: ReturnType<typeof testEvaluator>, count: number): Promise<string> =>
      formHash((await evaluator.evaluate(scene(count), 1)).growths[0].form!);
    const lived = testEvaluator();
    for (const count of [10, 40, 30]) await hash(lived, count);
    const grown = await hash(lived, 170);
    // Another seed in between, so that nothing is at hand.
    jest.resetModules();
    const { Evaluator } = await import('../../evaluate/evaluator');
    const fresh = new Evaluator({ now: () => 0, file: async () => undefined });
    expect(formHash((await fresh.evaluate(scene(170), 1)).growths[0].form!)).toBe(grown);
  },
);

test('a form that is not closed is told each time, also where its volume is known already', async () => {
  const scene = (count: number): Scene => {
    const made = sceneOf([newStep('volume', { where: 'form', growth: 'tube', count })]);
    const open = newStep('tube', { radius: 0.3, start: 'open', end: 'open' });
    made.growths.push({ ...newGrowth('Tube', 1, [newStep('line'), open]), id: 'tube' });
    return made;
  };
  const evaluator = testEvaluator();
  for (const count of [5, 9]) {
    const [{ notices }] = (await evaluator.evaluate(scene(count), 1)).growths;
    expect(notices.map(({ level, what }) => [level, what])).toEqual([['note', 'The form has 2 open borders.']]);
  }
});
