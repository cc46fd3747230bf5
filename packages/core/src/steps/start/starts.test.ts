import { arcLengths, totalLength } from '../../curves/arclength';
import { visibleLength } from '../../curves/pathFrames';
import { flaws } from '../../geometry/invariants';
import { boundsOf } from '../../geometry/form';
import { at, distance } from '../../geometry/vec';
import { newStep } from '../../scene/make';
import { stepOf } from '../index';
import { formOf, sceneOf, testEvaluator } from '../../testing';

describe('arc', () => {
  test("a full sweep is a closed circle of the polygon's length; part of it an open arc", async () => {
    const circle = await formOf(sceneOf([newStep('arc', { radius: 0.8, points: 90 })]));
    expect(circle.paths!.closed[0]).toBe(1);
    expect(visibleLength(circle.paths!, 0)).toBeCloseTo(90 * 2 * 0.8 * Math.sin(Math.PI / 90), 5);
    const quarter = await formOf(sceneOf([newStep('arc', { radius: 2, sweep: 90, middleY: 0, points: 500 })]));
    expect(quarter.paths!.closed[0]).toBe(0);
    expect(visibleLength(quarter.paths!, 0)).toBeCloseTo(Math.PI, 4);
    expect(at(quarter.paths!.positions, 499).map((v) => Number(v.toFixed(5)) + 0)).toEqual([0, 2, 0]);
  });

  test('on the ground it lies flat', async () => {
    const bounds = boundsOf(await formOf(sceneOf([newStep('arc', { lies: 'ground', middleY: 0 })])))!;
    expect([bounds.min[1], bounds.max[1]]).toEqual([0, 0]);
    expect(bounds.max[2]).toBeCloseTo(1, 2);
  });
});

describe('catenary', () => {
  test('hangs between its ends by length or by sag, in even pieces', async () => {
    const { paths } = await formOf(
      sceneOf([newStep('catenary', { by: 'length', length: 5, fromZ: 0.4, points: 400 })]),
    );
    expect(distance(at(paths!.positions, 0), [-1.5, 2, 0.4])).toBeLessThan(1e-4);
    expect(distance(at(paths!.positions, 399), [1.5, 2.4, 0])).toBeLessThan(1e-4);
    expect(totalLength(arcLengths(paths!.positions, 0, 400, false))).toBeCloseTo(5, 3);
    const sagging = await formOf(sceneOf([newStep('catenary', { sag: 0.7, toY: 2, points: 401 })]));
    expect(at(sagging.paths!.positions, 200)[1]).toBeCloseTo(1.3, 4);
  });

  test.each([
    [{ by: 'length', length: 1 }, /does not reach/],
    [{ toX: -1.5 }, /one above the other/],
  ])('%j is refused with a reason', async (params, reason) => {
    const [growth] = (await testEvaluator().evaluate(sceneOf([newStep('catenary', params as never)]), 1)).growths;
    expect(growth.notices[0].what).toMatch(reason);
    expect(growth.notices[0].advice).not.toBe('');
  });
});

describe('fractal path', () => {
  test('fills the box it is given, standing on its base', async () => {
    for (const which of ['hilbert-3d', 'hilbert', 'koch', 'dragon', 'gosper', 'arrowhead']) {
      const form = await formOf(sceneOf([newStep('fractal', { which, order: 3, round: 0 })]));
      const { min, max } = boundsOf(form)!;
      expect(Math.max(max[0] - min[0], max[1] - min[1], max[2] - min[2])).toBeCloseTo(1.6, 4);
      expect(min[1]).toBeCloseTo(0.1, 5);
      expect((min[0] + max[0]) / 2).toBeCloseTo(0, 4);
      expect(flaws(form)).toEqual([]);
    }
  });

  test('an order past the budget is refused before anything is made', async () => {
    const [growth] = (await testEvaluator().evaluate(sceneOf([newStep('fractal', { order: 12 })]), 1)).growths;
    expect(growth.notices[0]).toMatchObject({ level: 'error', advice: 'Lower Order.' });
  });
});

test('a drawn path without anchors has a line to tell, and asks for some', async () => {
  const step = newStep('drawn', { anchors: [] });
  expect(stepOf('drawn')!.summary(step.params as never)).toBe('0 anchors');
  const [growth] = (await testEvaluator().evaluate(sceneOf([step]), 1)).growths;
  expect(growth.notices[0].what).toMatch(/two anchors or more/);
});
