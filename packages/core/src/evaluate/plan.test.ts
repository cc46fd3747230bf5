import { newGrowth, newScene, newStep } from '../scene/make';
import type { Scene } from '../scene/schema';
import { planOf } from './plan';

/** A scene of growths that refer to each other as given. */
function sceneWith(references: Record<string, string[]>): Scene {
  const scene = newScene('Reef');
  scene.growths = Object.entries(references).map(([id, others]) => ({
    ...newGrowth(
      id.toUpperCase(),
      0,
      others.map((other) => newStep('shared', { growth: other })),
    ),
    id,
  }));
  return scene;
}

test('circles are named all round; who only refers to one is not part of it', () => {
  const { circles } = planOf(sceneWith({ a: ['b'], b: ['c'], c: ['a'], d: ['a'], e: [] }));
  expect([...circles.keys()].sort()).toEqual(['a', 'b', 'c']);
  expect(circles.get('a')).toEqual(['A', 'B', 'C', 'A']);
});

test('a growth that refers to itself is a circle of one', () => {
  expect(planOf(sceneWith({ a: ['a'] })).circles.get('a')).toEqual(['A', 'A']);
});

test('steps that are off refer to nothing, and references to nowhere are left to the step', () => {
  const scene = sceneWith({ a: ['b'], b: ['a'], c: ['gone'] });
  scene.growths[0].steps[0].on = false;
  expect(planOf(scene).circles.size).toBe(0);
});
