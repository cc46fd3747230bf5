import { newGrowth, newStep } from '../scene/make';
import type { Scene } from '../scene/schema';
import type { Track } from '../time/track';
import { sceneOf, testEvaluator } from '../testing';
import { motionOf, trailOf } from './trail';

const keys = (...list: [number, number][]): Track => ({
  keys: list.map(([frame, value]) => ({ frame, value, ease: 'linear' })),
  before: 'hold',
  after: 'hold',
});

describe('speed and jerk', () => {
  const sampled = (of: (t: number) => number, n = 50, fps = 25): Float32Array =>
    Float32Array.from({ length: 3 * n }, (_, i) => (i % 3 === 0 ? of(Math.floor(i / 3) / fps) : 0));

  // Derivatives of t³ are 3t² and 6.
  test('of a cube they are its first and third derivative', () => {
    const { speed, jerk } = motionOf(
      sampled((t) => t ** 3),
      25,
    );
    for (let i = 5; i < 45; i++) {
      expect(speed[i]).toBeCloseTo(3 * (i / 25) ** 2, 1);
      expect(Math.abs(jerk[i] - 6)).toBeLessThan(0.5);
    }
  });

  test('at an even pace the speed is even, and there is no jerk', () => {
    const { speed, jerk } = motionOf(
      sampled((t) => 2 * t),
      25,
    );
    speed.forEach((value) => expect(value).toBeCloseTo(2, 4));
    for (let i = 2; i < 48; i++) expect(jerk[i]).toBeLessThan(0.2);
    expect(jerk[0]).toBeNaN();
  });
});

test('a point of a copy is followed with its turn and size', async () => {
  const scene: Scene = sceneOf([
    newStep('line', { fromX: 0, fromY: 0, toX: 1, toY: 0, points: 10 }),
    newStep('along', { growth: 'item', by: 'count', count: 1, settle: 0, varyTurn: 0, turns: '0' }),
    newStep('falloff', { shape: 'along', reach: 5, drives: 'turn', ease: 'linear', spinY: keys([1, 0], [37, 360]) }),
  ]);
  scene.range = [1, 37];
  scene.growths.push({
    ...newGrowth('Item', 1, [newStep('solid', { which: 'box', height: 1 })]),
    id: 'item',
    visible: false,
  });
  const { ids } = (await testEvaluator().evaluate(scene, 1)).growths[0].form!.copies!;
  const trail = await trailOf(testEvaluator(), scene, {
    growth: 'growth',
    of: 'copy',
    copy: ids[0],
    local: [0.5, 0, 0],
  });
  // Once round in 36 frames at a radius of half a metre: 2π · 0.5 · 24 / 36 metres a second, and no slower or faster.
  for (let i = 1; i < 36; i++) expect(trail.speed[i]).toBeCloseTo((Math.PI * 24) / 36, 1);
  const [x, y, z] = [0, 1, 2].map((c) => trail.positions[c] - trail.positions[3 * 36 + c]);
  expect(Math.hypot(x, y, z)).toBeLessThan(1e-4);
});

test('a place on a path is there from when it has grown, and rides on what sways', async () => {
  const scene = sceneOf([newStep('line', { toY: 2, points: 41 }), newStep('grow', { to: keys([1, 0], [21, 1]) })]);
  scene.range = [1, 30];
  const trail = await trailOf(testEvaluator(), scene, { growth: 'growth', of: 'path', path: 0, u: 0.5 });
  expect(trail.positions[0]).toBeNaN();
  expect(trail.positions[3 * 8 + 1]).toBeNaN();
  expect(trail.positions[3 * 11 + 1]).toBeCloseTo(1, 4);
  expect(trail.speed[25]).toBeCloseTo(0, 5);
});
