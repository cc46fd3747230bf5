import type { Copies, Form } from '../src/geometry/form';
import { flaws } from '../src/geometry/invariants';
import { type Turn, turnAt } from '../src/geometry/turns';
import { newGrowth, newStep } from '../src/scene/make';
import type { ParamValue, Scene, Step } from '../src/scene/schema';
import { sceneOf, testEvaluator } from '../src/testing';

/** What the tests of placing have in common: an item and a path that carries it. */
export const turnOf = (copies: Copies, k: number): Turn => turnAt(copies.turns, k);

export const item = (steps: Step[]) => ({ ...newGrowth('Item', 1, steps), id: 'item', visible: false });
export const link = () =>
  newStep('solid', { which: 'link', wire: 0.05, innerLength: 0.2, innerWidth: 0.075, sides: 12 });

export async function placed(
  path: Step[],
  params: Record<string, ParamValue>,
  what: Step[] = [link()],
  frame = 1,
): Promise<Form> {
  const scene: Scene = sceneOf([...path, newStep('along', { growth: 'item', settle: 0, ...params })]);
  scene.growths.push(item(what));
  const { growths } = await testEvaluator().evaluate(scene, frame);
  expect(growths[0].notices).toEqual([]);
  expect(flaws(growths[0].form!)).toEqual([]);
  return growths[0].form!;
}
export const line = (length: number) => newStep('line', { fromX: 0, fromY: 0, toX: length, toY: 0, points: 60 });
export const grows: ParamValue = {
  keys: [
    { frame: 1, value: 0, ease: 'linear' },
    { frame: 101, value: 1, ease: 'linear' },
  ],
  before: 'hold',
  after: 'hold',
};
