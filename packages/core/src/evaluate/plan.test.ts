import { newGrowth, newScene, newStep } from '../scene/make';
import { type Scene } from '../scene/schema';
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

const orderOf = (references: Record<string, string[]>): string[] =>
  planOf(sceneWith(references)).order.map(({ id }) => id);

test('a growth comes after those it refers to, however they are listed', () => {
  expect(orderOf({ a: ['b'], b: ['c'], c: [] })).toEqual(['c', 'b', 'a']);
  const diamond = orderOf({ top: ['left', 'right'], left: ['base'], right: ['base'], base: [] });
  expect(diamond[0]).toBe('base');
  expect(diamond.at(-1)).toBe('top');
  expect(diamond).toHaveLength(4);
});

test('circles are named all round; who only refers to one is not part of it', () => {
  const { circles, order } = planOf(sceneWith({ a: ['b'], b: ['c'], c: ['a'], d: ['a'], e: [] }));
  expect([...circles.keys()].sort()).toEqual(['a', 'b', 'c']);
  expect(circles.get('a')).toEqual(['A', 'B', 'C', 'A']);
  expect(order.map(({ id }) => id)).toEqual(['d', 'e']);
});

test('a growth that refers to itself is a circle of one', () => {
  expect(planOf(sceneWith({ a: ['a'] })).circles.get('a')).toEqual(['A', 'A']);
});

test('steps that are off refer to nothing, and references to nowhere are left to the step', () => {
  const scene = sceneWith({ a: ['b'], b: ['a'], c: ['gone'] });
  scene.growths[0].steps[0].on = false;
  const { circles, order } = planOf(scene);
  expect(circles.size).toBe(0);
  expect(order).toHaveLength(3);
});
