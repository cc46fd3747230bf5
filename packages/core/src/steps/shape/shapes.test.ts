import { visibleLength } from '../../curves/pathFrames';
import { boundsOf, type Form } from '../../geometry/form';
import { flaws } from '../../geometry/invariants';
import { pathCount } from '../../geometry/paths';
import { at, distance, type Vec3 } from '../../geometry/vec';
import { newStep } from '../../scene/make';
import type { ParamValue, Step } from '../../scene/schema';
import { formOf, sceneOf } from '../../testing';

type Params = Record<string, ParamValue>;

const upright = (points = 201): Step => newStep('line', { points, toY: 2 });
const shaped = (kind: string, params: Params = {}, start = upright(), frame = 1): Promise<Form> =>
  formOf(sceneOf([start, newStep(kind, params)]), frame);
const last = (form: Form): Vec3 => at(form.paths!.positions, form.paths!.s.length - 1);

describe('bend', () => {
  // The neutral line of a bent rod keeps its length: Barr, Global and local deformations of solid primitives, SIGGRAPH 1984.
  test.each([30, 90, 360, -720])('by %p° keeps the length of what stood on the axis', async (angle) => {
    const form = await shaped('bend', { angle, towards: 33 }, upright(2001));
    expect(visibleLength(form.paths!, 0)).toBeCloseTo(2, 4);
    expect(flaws(form)).toEqual([]);
  });

  test("a right angle to the right ends level, at the arc's radius", async () => {
    const radius = 2 / (Math.PI / 2);
    const [x, y, z] = last(await shaped('bend', { angle: 90 }));
    expect([x, y, z].map((v) => Number(v.toFixed(4)) + 0)).toEqual(
      [radius, radius, 0].map((v) => Number(v.toFixed(4))),
    );
  });

  test('below its beginning nothing moves, above its end the path goes on straight', async () => {
    const { paths } = await shaped('bend', { angle: 90, from: 0.5, over: 0.5 });
    for (let i = 0; i <= 50; i++) expect(at(paths!.positions, i)[0]).toBe(0);
    const [a, b] = [at(paths!.positions, 150), at(paths!.positions, 200)];
    expect(a[1]).toBeCloseTo(b[1], 4);
    expect(b[0] - a[0]).toBeCloseTo(0.5, 4);
  });
});

describe('twist', () => {
  test('leaves the axis alone and turns what stands beside it', async () => {
    expect(visibleLength((await shaped('twist', { turns: 3 })).paths!, 0)).toBe(2);
    const beside = newStep('line', { fromX: 1, toX: 1, toY: 2, points: 401 });
    const { paths } = await shaped('twist', { turns: 0.25 }, beside);
    expect(last({ paths } as Form).map((v) => Number(v.toFixed(5)) + 0)).toEqual([0, 2, -1]);
    // Now a helix of a quarter turn: its length in closed form.
    expect(visibleLength(paths!, 0)).toBeCloseTo(Math.hypot(2, Math.PI / 2), 4);
  });
});

describe('move and turn', () => {
  test('scales, turns about X, Y, Z in that order, then moves', async () => {
    const moved = await shaped('transform', { scale: 0.5, turnX: 90, turnY: 90, moveY: 3 });
    // (0, 2, 0) → halved (0, 1, 0) → about X (0, 0, 1) → about Y (1, 0, 0) → moved (1, 3, 0)
    expect(last(moved).map((v) => Number(v.toFixed(5)) + 0)).toEqual([1, 3, 0]);
    expect(moved.paths!.whole[0]).toBeCloseTo(1, 5);
  });
});

describe('wave', () => {
  test('is as high and as long as asked, and its crests travel', async () => {
    const form = await shaped('wave', { amount: 0.2, length: 0.5, hold: 0, speed: 0 }, upright(2001));
    const { min, max } = boundsOf(form)!;
    const reach = Math.max(max[0] - min[0], max[2] - min[2]);
    expect(reach).toBeCloseTo(0.4, 3);
    const still = [...form.paths!.positions];
    const later = [
      ...(await shaped('wave', { amount: 0.2, length: 0.5, hold: 0, speed: 1 }, upright(2001), 10)).paths!.positions,
    ];
    expect(later).not.toEqual(still);
  });

  test('closes exactly: one frame past the range is the first', async () => {
    const [first, past] = await Promise.all(
      [1, 145].map(async (frame) => [
        ...(await shaped('wave', { speed: 0.7, spin: true }, upright(), frame)).paths!.positions,
      ]),
    );
    expect(past).toEqual(first);
  });
});

describe('smooth', () => {
  test('keeps ends, takes kinks off, and keeps a straight line straight', async () => {
    const kinked = newStep('drawn', {
      anchors: [
        [0, 0, 0],
        [1, 1, 0],
        [2, 0, 0],
        [3, 1, 0],
      ],
      points: 60,
    });
    const before = (await formOf(sceneOf([kinked]))).paths!;
    const after = (await shaped('smooth', { rounds: 40 }, kinked)).paths!;
    expect(at(after.positions, 0)).toEqual(at(before.positions, 0));
    expect(at(after.positions, 59)).toEqual(at(before.positions, 59));
    expect(visibleLength(after, 0)).toBeLessThan(visibleLength(before, 0));
    expect(boundsOf(await shaped('smooth', { rounds: 9 }))!.max[0]).toBe(0);
  });
});

describe('strands', () => {
  const bases = ({ paths }: Form): Vec3[] =>
    Array.from({ length: pathCount(paths!) }, (_, p) => at(paths!.positions, paths!.offsets[p]));

  test('more strands leave those that are there as they were, in a bed and in a row', async () => {
    for (const as of ['bed', 'row']) {
      const few = await shaped('strands', { as, count: 12 }, upright(20));
      const many = await shaped('strands', { as, count: 13 }, upright(20));
      expect([...many.paths!.positions.subarray(0, few.paths!.positions.length)]).toEqual([...few.paths!.positions]);
      expect([...many.paths!.ids.subarray(0, 12)]).toEqual([...few.paths!.ids]);
      expect(flaws(many)).toEqual([]);
    }
  });

  // Vogel 1979: florets at √k, so that every ring holds the same number to the area.
  test('a bed is evenly dense', async () => {
    const places = bases(await shaped('strands', { as: 'bed', count: 400, apart: 0.1 }, upright(2)));
    const within = (r: number): number => places.filter(([x, , z]) => Math.hypot(x, z) < r).length;
    expect(within(1) / 100).toBeCloseTo(1, 1);
    expect(within(2) / within(1)).toBeCloseTo(4, 1);
  });

  test('a ring keeps its distance from the course everywhere', async () => {
    const { paths } = await shaped(
      'strands',
      { as: 'ring', count: 5, apart: 0.3, vary: 0 },
      newStep('helix', { points: 80 }),
    );
    const course = (await formOf(sceneOf([newStep('helix', { points: 80 })]))).paths!;
    for (let i = 0; i < 400; i++)
      expect(distance(at(paths!.positions, i), at(course.positions, i % 80))).toBeCloseTo(0.3, 4);
  });

  test('a fan spreads between its outermost strands', async () => {
    const form = await shaped('strands', { as: 'fan', count: 3, spread: 180, vary: 0, turn: 0 }, upright(2));
    const tips = [0, 1, 2].map((k) => at(form.paths!.positions, 2 * k + 1).map((v) => Number(v.toFixed(5)) + 0));
    expect(tips).toEqual([
      [-2, 0, 0],
      [0, 2, 0],
      [2, 0, 0],
    ]);
  });
});

test('a chain link that is sized takes as much more of a path, whether its move differs from path to path or not', async () => {
  const link = async (...steps: Step[]): Promise<number> =>
    (await formOf(sceneOf([newStep('solid', { which: 'link' }), ...steps]))).pitch!;
  const plain = await link();
  expect(plain).toBeGreaterThan(0);
  expect(await link(newStep('transform', { scale: 2 }))).toBeCloseTo(2 * plain, 9);
  const vary = { base: 0, vary: { by: 'random', amount: 1, shape: [{ at: 0, value: 1 }], waves: 1 } } as never;
  expect(await link(newStep('transform', { scale: 2, moveX: vary }))).toBeCloseTo(2 * plain, 9);
});
