import { cutPaths } from '../curves/cut';
import { visibleLength } from '../curves/pathFrames';
import { NO_PARENT, type Paths, pathsFrom } from '../geometry/paths';
import { newStep } from '../scene/make';
import type { StepContext } from '../steps/declare';
import { grow } from '../steps/grow/grow';
import { agesBehind, agesOfReach, lengthBefore } from './arrival';

describe('ages behind a front', () => {
  test('an even front has passed a place as long ago as it is far behind, on each lane by itself', () => {
    const places = [0, 0.25, 0.5, 0.5, 0.9, 1];
    // One front at 0.5 and one at the end, both a tenth a frame.
    const front = {
      arrival: (i: number) => places[i],
      lanes: [0, 3, 6],
      reached: (lane: number, ago: number) => Math.max(0, (lane === 0 ? 0.5 : 1) - ago / 10),
    };
    const ages = [...agesBehind(front, 6, 100, 10)].map((age) => Number(age.toFixed(5)));
    expect(ages).toEqual([0.5, 0.25, 0, 0.5, 0.1, 0]);
  });

  test('what was there before the first frame looked at counts as that old', () => {
    const front = { arrival: () => 0.2, lanes: [0, 1], reached: () => 1 };
    expect([...agesBehind(front, 1, 12, 24)]).toEqual([0.5]);
  });
});

// s = v t, and t = s / v.
test('an even reach has passed a place, or will pass it, as long ago or ahead as it is far; beyond what is looked at at its mean pace', () => {
  const places = Array.from({ length: 41 }, (_, k) => k / 2);
  const ages = agesOfReach(places, (ago) => 10 - 0.3 * ago, [20, 20], 25);
  // At 10 now, 0.3 a frame: looked at from 4 to 16.
  places.forEach((place, k) => expect(ages[k]).toBeCloseTo(place < 4 ? 20 / 25 : (10 - place) / 0.3 / 25, 5));
});

test('a reach that goes back counts by the last time that it came', () => {
  // Out to 6 and back to 2, five frames ago; from there on to 5 now.
  const reached = (ago: number): number => (ago <= 5 ? 5 - 0.6 * ago : 2 + 0.4 * (ago - 5));
  const [near, far] = agesOfReach([1, 4.4], reached, [15, 0], 1);
  expect(near).toBeCloseTo(15, 6);
  expect(far).toBeCloseTo(1, 5);
});

test('what a front leaves of a run goes by its arrivals, however uneven they are', () => {
  const arrivals = [0.2, 0.4, 0.8];
  const lengths = [0, 3, 4];
  expect([0, 0.2, 0.3, 0.4, 0.6, 0.8, 1].map((at) => lengthBefore(arrivals, lengths, at))).toEqual([
    0,
    0,
    expect.closeTo(1.5 / 4),
    0.75,
    expect.closeTo(3.5 / 4),
    1,
    1,
  ]);
  expect(lengthBefore([], [], 0.5)).toBe(0);
  expect(lengthBefore([0.5, 0.5], [0, 1], 0.5)).toBe(0);
});

describe('growing through a tree', () => {
  /** A stem of 4 m whose front takes half of the growing, and a twig of 2 m from its middle, a quarter later. */
  const tree = (): Paths => ({
    ...pathsFrom([
      { positions: [0, 0, 0, 0, 2, 0, 0, 4, 0], id: 11 },
      { positions: [0, 2, 0, 1, 2, 0, 2, 2, 0], id: 12 },
    ]),
    parent: Uint32Array.of(NO_PARENT, 11),
    attach: Float32Array.of(0, 0.5),
    arrival: Float32Array.of(0, 0.25, 0.5, 0.5, 0.75, 1),
  });
  const grown = async (to: number, more: object = {}): Promise<Paths> => {
    const { params } = newStep('grow', { to, ...more });
    const context = {
      frame: 11,
      range: [1, 100],
      fps: 10,
      seed: 1,
      wanted: () => true,
      yieldNow: () => Promise.resolve(),
      numberAt: (_: string, frame: number) => Math.max(0, to - (11 - frame) / 10),
    } as unknown as StepContext;
    const form = await grow.run({ paths: tree() } as never, params as never, context);
    return form.paths!;
  };
  const lengths = (paths: Paths) => [0, 1].map((p) => Number(visibleLength(paths, p).toFixed(5)));

  test('the front comes to a branch when it has come to its joint and waited', async () => {
    expect(lengths(await grown(0.25))).toEqual([2, 0]);
    expect(lengths(await grown(0.5))).toEqual([4, 0]);
    expect(lengths(await grown(0.625))).toEqual([4, 0.5]);
    expect(lengths(await grown(1))).toEqual([4, 2]);
  });

  test('from the tip it leaves the branches first, and a window travels through the whole', async () => {
    expect(lengths(await grown(0.25, { begins: 'tip' }))).toEqual([0, 1]);
    expect(lengths(await grown(0.75, { from: 0.25 }))).toEqual([2, 1]);
  });

  test('ages run through the whole tree, and cutting keeps parents, joints and arrivals', async () => {
    const paths = await grown(0.7);
    expect([...paths.age!].map((age) => Number(age.toFixed(4)))).toEqual([0.7, 0.45, 0.2, 0.2, 0]);
    expect([...paths.parent!]).toEqual([NO_PARENT, 11]);
    expect([...paths.attach!]).toEqual([0, 0.5]);
    const half = cutPaths(tree(), () => [0, 0.25]);
    expect([...half.arrival!]).toEqual([0, 0.125, 0.5, 0.625]);
  });
});
