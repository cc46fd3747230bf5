import { PointTree } from '../../geometry/search/pointTree';
import { turnAt, turnedBy } from '../../geometry/turns';
import { at, distance, type Vec3 } from '../../geometry/vec';
import { random } from '../../fields/random';
import { newGrowth, newStep } from '../../scene/make';
import type { ParamValue, Scene, Step } from '../../scene/schema';
import { sceneOf, testEvaluator } from '../../testing';
import { form, grows, paths } from '../../../test/paths';

const ride = (params: Record<string, ParamValue> = {}): Step => newStep('ride', { growth: 'stalk', ...params });
const on =
  (...steps: Step[]) =>
  (scene: Scene): void => {
    scene.range = [1, 101];
    scene.growths.push({ ...newGrowth('Stalk', 1, steps), id: 'stalk' });
    scene.growths.push({ ...newGrowth('Dot', 2, [newStep('solid', { radius: 0.01, sides: 6 })]), id: 'dot' });
  };
const stalk = newStep('line', { toY: 2, points: 41 });
/** Moves a metre over the range, and is where it was made at the last frame. */
const moves = newStep('transform', { moveX: { formula: '(101 - frame) / 100' } });
/** A quarter turn about Z at the first frame, none at the last. */
const turns = newStep('transform', { turnZ: { formula: '90 * (101 - frame) / 100' } });
const beside = newStep('line', { fromX: 0.3, fromY: 0.5, toX: 0.3, toY: 1.5, points: 5 });
const near = (v: Vec3): unknown[] => v.map((value) => expect.closeTo(value, 4));

test('what lies beside a path goes along as it moves; at the last frame it is where it was', async () => {
  const first = await paths([beside, ride()], 1, on(stalk, moves));
  const last = await paths([beside, ride()], 101, on(stalk, moves));
  for (let i = 0; i < 5; i++) {
    expect(at(last.positions, i)).toEqual(near([0.3, 0.5 + i / 4, 0]));
    expect(at(first.positions, i)).toEqual(near([1.3, 0.5 + i / 4, 0]));
  }
  const half = await paths([beside, ride({ amount: 0.5 })], 1, on(stalk, moves));
  expect(at(half.positions, 0)).toEqual(near([0.8, 0.5, 0]));
});

test('it turns with the path, or is only moved along; copies turn too', async () => {
  // (x, y) goes to (−y, x).
  const turned = await paths([beside, ride()], 1, on(stalk, turns));
  expect(at(turned.positions, 0)).toEqual(near([-0.5, 0.3, 0]));
  const moved = await paths([beside, ride({ turn: false })], 1, on(stalk, turns));
  // The place of the path half a metre up goes to the left; what is 0.3 to the right of it stays so.
  expect(at(moved.positions, 0)).toEqual(near([-0.5 + 0.3, 0, 0]));
  const copied = [beside, newStep('along', { growth: 'dot', by: 'count', count: 3, facing: 'upright' })];
  const before = (await form(copied, 1, on(stalk, turns))).copies!;
  const after = (await form([...copied, ride()], 1, on(stalk, turns))).copies!;
  for (let k = 0; k < 3; k++) {
    const [x, y, z] = turnedBy(turnAt(before.turns, k), [0.2, 0.7, 0.4]);
    expect(turnedBy(turnAt(after.turns, k), [0.2, 0.7, 0.4])).toEqual(near([-y, x, z]));
  }
});

test('on a path that has grown in part it rides on the whole course', async () => {
  const grown = on(stalk, newStep('grow', { to: grows(0.1, 1) }), moves);
  const made = await paths([beside, ride()], 1, grown);
  expect(at(made.positions, 4)).toEqual(near([1.3, 1.5, 0]));
});

test('the nearest of many points is the one that looking at all finds', () => {
  const points = Float64Array.from({ length: 900 }, (_, i) => random(5, i, 0));
  const tree = new PointTree(points);
  for (let k = 0; k < 60; k++) {
    const place: Vec3 = [random(9, k, 0), random(9, k, 1), random(9, k, 2)];
    const away = Array.from({ length: 300 }, (_, i) => distance(at(points, i), place));
    expect(away[tree.nearestTo(...place)]).toBe(Math.min(...away));
  }
  expect(new PointTree([]).nearestTo(0, 0, 0)).toBe(-1);
});

test('without paths it says so', async () => {
  const [{ notices }] = (await testEvaluator().evaluate(sceneOf([beside, newStep('ride')]), 1)).growths;
  expect(notices.map(({ what }) => what)).toEqual(['No paths are chosen.']);
});
