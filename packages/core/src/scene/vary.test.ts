import { pathCount } from '../geometry/paths';
import { formOf, sceneOf } from '../testing';
import { newStep } from './make';
import { paramFault } from './params';
import type { Variation } from './schema';
import { stepOf } from '../steps/index';
import { variedNumber } from './vary';

const vary = (more: Partial<Variation> = {}): Variation => ({
  by: 'random',
  amount: 0.5,
  waves: 3,
  shape: [
    { at: 0, value: 0 },
    { at: 1, value: 1 },
  ],
  ...more,
});
const at = (id: number, index = 0, count = 1, u = 0) => ({
  id,
  index,
  count,
  u,
  read: () => null,
});

describe('values that differ', () => {
  test('at random: within the amount, evenly spread, the same for a path whatever its place', () => {
    const value = variedNumber(2, vary(), [-10, 10], 5, 17);
    const all = Array.from({ length: 4000 }, (_, id) => value(at(id)));
    expect(Math.min(...all)).toBeGreaterThanOrEqual(1.5);
    expect(Math.max(...all)).toBeLessThanOrEqual(2.5);
    // The mean of 4000 even numbers on a width of 1 lies within five standard errors, 5 / √(12 · 4000).
    expect(Math.abs(all.reduce((sum, x) => sum + x, 0) / 4000 - 2)).toBeLessThan(0.023);
    expect(value(at(7, 3, 9, 0.4))).toBe(value(at(7)));
  });

  test('by index and along: the drawn shape from end to end', () => {
    const byIndex = variedNumber(1, vary({ by: 'index' }), [0, 9], 1, 1);
    expect([byIndex(at(5, 0, 5)), byIndex(at(5, 2, 5)), byIndex(at(5, 4, 5))]).toEqual([1, 1.25, 1.5]);
    const along = variedNumber(1, vary({ by: 'along', amount: -1 }), [0, 9], 1, 1);
    expect([along(at(0, 0, 1, 0)), along(at(0, 0, 1, 1))]).toEqual([1, 0]);
  });

  test('noise is continuous along a path and different on the next', () => {
    const value = variedNumber(0, vary({ by: 'noise', amount: 1 }), [-9, 9], 1, 1);
    for (let u = 0; u < 1; u += 0.01)
      expect(Math.abs(value(at(1, 0, 1, u + 0.001)) - value(at(1, 0, 1, u)))).toBeLessThan(0.02);
    expect(value(at(1, 0, 1, 0.35))).not.toBeCloseTo(value(at(2, 0, 1, 0.35)), 3);
  });

  test('never leave what the parameter allows', () => {
    const value = variedNumber(0.1, vary({ amount: 5 }), [0, 1], 1, 1);
    for (let id = 0; id < 200; id++) {
      expect(value(at(id))).toBeGreaterThanOrEqual(0);
      expect(value(at(id))).toBeLessThanOrEqual(1);
    }
  });

  test('a varied radius makes thick and thin tubes, and more paths change none of them', async () => {
    const radii = async (count: number) => {
      const form = await formOf(
        sceneOf([
          newStep('line', { points: 2 }),
          newStep('strands', { as: 'row', count, apart: 2, vary: 0, turn: 0 }),
          newStep('tube', {
            radius: { base: 0.1, vary: vary({ amount: 0.08 }) },
            along: [{ at: 0, value: 1 }],
            swell: 0,
            sides: 4,
            start: 'open',
            end: 'open',
          }),
        ]),
      );
      const { positions, parts } = form.mesh!;
      const base = form.paths!;
      return Array.from({ length: pathCount(base) }, (_, path) => {
        const [v, p] = [3 * parts![2 * path], 3 * base.offsets[path]];
        return Math.hypot(...[0, 1, 2].map((c) => positions[v + c] - base.positions[p + c]));
      });
    };
    const four = await radii(4);
    expect(new Set(four.map((r) => r.toFixed(4))).size).toBe(4);
    for (const r of four) expect(Math.abs(r - 0.1)).toBeLessThanOrEqual(0.0801);
    (await radii(7)).slice(0, 4).forEach((r, i) => expect(r).toBeCloseTo(four[i], 5));
  });

  test('by an attribute: its values between two limits take the shape from end to end, and beyond them its ends', () => {
    const go = vary({ by: 'attribute', attribute: 'age', span: [1, 3], amount: 10 });
    const value = variedNumber(5, go, [0, 100], 1, 1);
    const read = (age: number | null) => value({ ...at(1), read: (name) => (name === 'age' ? age : null) });
    expect([0, 1, 1.5, 3, 8, Infinity].map(read)).toEqual([5, 5, 7.5, 15, 15, 15]);
    expect([null, NaN].map(read)).toEqual([5, 5]);
    const turned = variedNumber(5, { ...go, span: [3, 1] }, [0, 100], 1, 1);
    expect([1, 1.5, 3].map((age) => turned({ ...at(1), read: () => age }))).toEqual([15, 12.5, 5]);
  });

  test('a tube as thick as its path is old: the tip thin, the base full, though nothing else asks for ages', async () => {
    const to = {
      keys: [
        { frame: 1, value: 0, ease: 'linear' as const },
        { frame: 25, value: 1, ease: 'linear' as const },
      ],
      before: 'hold' as const,
      after: 'hold' as const,
    };
    const by = vary({ by: 'attribute', attribute: 'age', span: [0, 1], amount: 0.2 });
    const scene = sceneOf([
      newStep('line', { points: 11 }),
      newStep('grow', { to }),
      newStep('tube', {
        radius: { base: 0.1, vary: by },
        along: [{ at: 0, value: 1 }],
        swell: 0,
        sides: 4,
        start: 'open',
        end: 'open',
      }),
    ]);
    scene.fps = 24;
    const { mesh, paths } = await formOf(scene, 25);
    // After a second in which the front went evenly: a radius from 0.3 at the base to 0.1 at the tip.
    for (let i = 0; i < 11; i++) {
      const radius = Math.hypot(...[0, 1, 2].map((c) => mesh!.positions[15 * i + c] - paths!.positions[3 * i + c]));
      expect(radius).toBeCloseTo(0.3 - 0.02 * i, 4);
    }
  });

  test('only numbers that a step asks for can differ', () => {
    expect(paramFault(stepOf('tube')!.params.radius, { base: 0.1, vary: vary() })).toBeNull();
    expect(paramFault(stepOf('tube')!.params.sides, { base: 8, vary: vary() })).toMatch(/cannot differ/);
    expect(paramFault(stepOf('twist')!.params.turns, { base: 1, vary: vary({ by: 'along' }) })).toMatch(/along a path/);
    expect(paramFault(stepOf('tube')!.params.radius, { base: -1, vary: vary() })).toMatch(/0 or more/);
    const by = (attribute?: string) => ({ base: 1, vary: vary({ by: 'attribute', attribute }) });
    expect(paramFault(stepOf('tube')!.params.radius, by())).toMatch(/name the attribute/);
    expect(paramFault(stepOf('tube')!.params.radius, by('age'))).toBeNull();
    expect(paramFault(stepOf('twist')!.params.turns, by('age'))).toMatch(/differs along a path/);
    expect(paramFault(stepOf('twist')!.params.turns, by('whole'))).toBeNull();
  });
});
