import { vertexCount } from '../../geometry/mesh';
import { newStep } from '../../scene/make';
import type { Step } from '../../scene/schema';
import { sceneOf, testEvaluator } from '../../testing';
import { form, grows } from '../../../test/paths';
import { clicked, mesh, sheet, front, away } from '../../../test/fronts';

describe('edges of fronts', () => {
  test('a rough edge runs ahead and lags by what is asked, differently from place to place, and never before its start', async () => {
    const rough = 0.25;
    const even = await mesh([sheet(), front({ ...clicked, reach: 0.6 })]);
    const made = await mesh([sheet(), front({ ...clicked, reach: 0.6, rough, grain: 0.2 })]);
    const by = even.tip!.map((tip, i) => tip - made.tip![i]);
    expect(Math.max(...by.map(Math.abs))).toBeLessThanOrEqual(rough + 1e-6);
    expect(Math.max(...by)).toBeGreaterThan(0.3 * rough);
    expect(Math.min(...by)).toBeLessThan(-0.3 * rough);
    expect(Math.min(...made.named.distance.values)).toBeGreaterThanOrEqual(0);
    // Not by distance alone: places equally far from the start differ.
    const near = (i: number, j: number): boolean => Math.abs(away(made, i) - away(made, j)) < 0.02;
    expect(by.some((value, i) => by.some((other, j) => near(i, j) && Math.abs(value - other) > 0.05))).toBe(true);
  });

  test('nothing has set out without reach, not even where it begins', async () => {
    const made = await mesh([sheet(), front({ ...clicked, reach: 0 })]);
    expect(made.named.front.values.every((value) => value === 0)).toBe(true);
    expect(made.tip!.every((tip) => tip < 0)).toBe(true);
  });

  test('of two fronts the nearer edge counts; what the second takes back ends at the nearer of both', async () => {
    const two = (combine: string): Step[] => [
      sheet(),
      front({ ...clicked, reach: 0.9 }),
      front({ from: 'bottom', reach: 0.5, combine }),
    ];
    const both = await mesh(two('both'));
    const undo = await mesh(two('undo'));
    for (let i = 0; i < vertexCount(both); i++) {
      const [first, second] = [0.9 - away(both, i), 0.5 - both.positions[3 * i + 1]];
      expect(both.tip![i]).toBeCloseTo(Math.max(first, second), 4);
      expect(undo.tip![i]).toBeCloseTo(Math.min(first, -second), 4);
      if (Math.min(Math.abs(first), Math.abs(second)) < 1e-3) continue;
      expect(both.named.front.values[i]).toBe(first > 0 || second > 0 ? 1 : 0);
      expect(undo.named.front.values[i]).toBe(first > 0 && second < 0 ? 1 : 0);
    }
  });

  test('of two fronts the first to come tells the age', async () => {
    const scene = sceneOf([
      sheet(),
      front({ ...clicked, reach: grows(0, 1) }),
      front({ from: 'bottom', way: 'straight', reach: grows(0, 2), combine: 'both' }),
      newStep('finish', { by: 'age' }),
    ]);
    const { growths } = await testEvaluator().evaluate(scene, 71);
    const made = growths[0].form!.mesh!;
    for (let i = 0; i < vertexCount(made); i++) {
      const [first, second] = [70 - 100 * away(made, i), 70 - 50 * made.positions[3 * i + 1]];
      const ahead = Math.max(away(made, i) < 1 ? first : -Infinity, second);
      if (ahead > 0) expect(made.age![i]).toBeCloseTo(ahead / scene.fps, 3);
    }
  });

  test('on a path it sets out from the place itself, between points too, and goes both ways from there', async () => {
    const line = newStep('line', { fromY: 0, toY: 3, points: 4 });
    const made = (await form([line, front({ from: 'clicked', places: [[0.2, 1.3, 0]] as never, reach: 1 })])).paths!;
    expect([...made.named.distance.values].map((x) => Number(x.toFixed(5)))).toEqual([1.3, 0.3, 0.7, 1.7]);
    const two = [
      [0, 0.25, 0],
      [0, 2.9, 0],
    ];
    const from = (await form([line, front({ from: 'clicked', places: two as never, reach: 1 })])).paths!;
    expect([...from.named.distance.values].map((x) => Number(x.toFixed(5)))).toEqual([0.25, 0.75, 0.9, 0.1]);
    const top = (await form([line, front({ from: 'top', reach: 1 })])).paths!;
    expect([...top.named.distance.values].map((x) => Number(x.toFixed(5)))).toEqual([3, 2, 1, 0]);
  });
});
