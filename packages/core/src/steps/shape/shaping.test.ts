import { sceneOf, testEvaluator } from '../../testing';
import { visibleLength } from '../../curves/pathFrames';
import { pointCount } from '../../geometry/paths';
import { at, distance } from '../../geometry/vec';
import { newGrowth, newStep } from '../../scene/make';
import type { ParamValue, Step } from '../../scene/schema';
import { paths, line, circle, last } from '../../../test/paths';

describe('respacing', () => {
  const spaced = (length: number, rest: string) =>
    paths([line(length), newStep('respace', { by: 'spacing', spacing: 0.3, rest })]);

  test('a remainder is spread, kept as a shorter piece, or dropped', async () => {
    const lengths = async (rest: string) => {
      const made = await spaced(1, rest);
      return Array.from({ length: pointCount(made) - 1 }, (_, i) =>
        distance(at(made.positions, i), at(made.positions, i + 1)),
      );
    };
    (await lengths('fit')).forEach((piece) => expect(piece).toBeCloseTo(1 / 3, 5));
    const kept = await lengths('keep');
    expect(kept).toHaveLength(4);
    expect(kept[3]).toBeCloseTo(0.1, 5);
    const dropped = await lengths('drop');
    expect(dropped).toHaveLength(3);
    expect(dropped[2]).toBeCloseTo(0.3, 5);
  });

  test('whole pieces leave no remainder behind, in spite of rounding', async () => {
    for (const rest of ['keep', 'drop']) expect(pointCount(await spaced(0.9, rest))).toBe(4);
  });

  test('points per metre keep their places while the length is animated: only the end changes', async () => {
    const at7 = await paths([line(0.7), newStep('respace', { by: 'density', density: 20, rest: 'keep' })]);
    const at9 = await paths([line(0.93), newStep('respace', { by: 'density', density: 20, rest: 'keep' })]);
    for (let i = 0; i < 14; i++) expect(distance(at(at7.positions, i), at(at9.positions, i))).toBeLessThan(1e-5);
    expect(pointCount(at9)).toBe(20);
  });
});

describe('simplify', () => {
  test('keeps within its distance, with points where they were', async () => {
    const before = await paths([newStep('helix', { points: 400 })]);
    const after = await paths([newStep('helix', { points: 400 }), newStep('thin', { within: 0.01 })]);
    expect(pointCount(after)).toBeLessThan(200);
    let k = 0;
    for (let i = 0; i < pointCount(before) && k < pointCount(after); i++)
      if (distance(at(before.positions, i), at(after.positions, k)) === 0) k++;
    expect(k).toBe(pointCount(after));
    expect(after.u[pointCount(after) - 1]).toBe(1);
  });

  test('a circle stays a loop, however coarse', async () => {
    for (const within of [0.001, 0.1, 10]) {
      const made = await paths([circle(), newStep('thin', { within })]);
      expect(made.closed[0]).toBe(1);
      expect(pointCount(made)).toBeGreaterThanOrEqual(3);
    }
  });
});

describe('blend', () => {
  const withOther = (amount: ParamValue, other: Step) =>
    paths([line(2, 41), newStep('blend', { growth: 'other', amount })], 1, (scene) =>
      scene.growths.push({ ...newGrowth('Other', 1, [other]), id: 'other' }),
    );

  test('none is the own course, all is the other, half lies between, point by point', async () => {
    const other = newStep('line', { fromX: 1, fromY: 0, toX: 5, toY: 0, points: 9 });
    const [none, half, all] = await Promise.all([0, 0.5, 1].map((amount) => withOther(amount, other)));
    expect(last(none)).toEqual([0, 2, 0]);
    expect(distance(last(all), [5, 0, 0])).toBeLessThan(1e-5);
    expect(distance(at(half.positions, 20), [1.5, 0.5, 0])).toBeLessThan(1e-5);
  });

  test('goes to the whole course of the other, however much of it is there; what is unknown is told', async () => {
    const scene = (...steps: Step[]) => {
      const made = sceneOf([line(2, 41), newStep('blend', { growth: 'other', amount: 1 })]);
      const other = [newStep('line', { fromX: 1, fromY: 0, toX: 5, toY: 0, points: 9 }), ...steps];
      made.growths.push({ ...newGrowth('Other', 1, other), id: 'other' });
      return testEvaluator().evaluate(made, 1);
    };
    for (const to of [1, 0.5, 0]) {
      const [{ form, notices }] = (await scene(newStep('grow', { to }))).growths;
      expect(notices).toEqual([]);
      expect(distance(last(form!.paths!), [5, 0, 0])).toBeLessThan(1e-5);
    }
    const [{ notices }] = (await scene(newStep('grow', { to: 0.5 }), newStep('noise'))).growths;
    expect(notices[0].what).toMatch(/only the part of it that is there is known/);
  });

  test('along the path by a drawn shape: the base stays, the tip goes over', async () => {
    const shape = [
      { at: 0, value: 0, shape: 'straight' as const },
      { at: 1, value: 1 },
    ];
    const made = await withOther(
      { base: 0, vary: { by: 'along', amount: 1, waves: 0, shape } },
      newStep('line', { fromX: 1, fromY: 0, toX: 1, toY: 2 }),
    );
    expect(at(made.positions, 0)).toEqual([0, 0, 0]);
    expect(last(made)[0]).toBeCloseTo(1, 5);
  });
});

describe('parallel strands', () => {
  // A curve at distance d from a circle of radius R is a circle of radius R ± d.
  test('of a circle are circles, each as far from it as is said', async () => {
    const made = await paths([circle(360), newStep('strands', { as: 'parallel', count: 3, apart: 0.2, vary: 0 })]);
    const lengths = [0, 1, 2].map((path) => visibleLength(made, path) / (2 * Math.PI)).sort();
    // The frame of a circle may start in any direction: in its plane it makes rings, out of it a cylinder.
    const middle = lengths[1];
    expect(middle).toBeCloseTo(1, 2);
    for (let path = 1; path < 3; path++) {
      for (let i = 0; i < 360; i += 30) {
        const [a, b] = [at(made.positions, made.offsets[0] + i), at(made.positions, made.offsets[path] + i)];
        expect(distance(a, b)).toBeCloseTo(0.2, 4);
      }
    }
  });
});

test('respacing asks for room before it makes anything', async () => {
  for (const [by, more] of [
    ['spacing', { spacing: 0.0001 }],
    ['count', { count: 200_000 }],
  ] as const) {
    const scene = sceneOf([newStep('line', { toY: 900 }), newStep('respace', { by, ...more })]);
    const before = process.memoryUsage().arrayBuffers;
    const [growth] = (await testEvaluator({ points: 100_000 }).evaluate(scene, 1)).growths;
    expect(growth.notices[0].what).toMatch(/the limit is 100,000/);
    expect(process.memoryUsage().arrayBuffers - before).toBeLessThan(8e6);
  }
});
