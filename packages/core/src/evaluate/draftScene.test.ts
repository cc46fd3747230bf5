import { newGrowth, newScene, newStep } from '../scene/make';
import type { Growth, Scene } from '../scene/schema';
import { STEPS } from '../steps';
import { draftScene } from './draftScene';
import { Evaluator } from './evaluator';

const growth = (name: string, ...steps: Growth['steps']): Growth => newGrowth(name, 0, steps);
const reef = newScene('Reef');
const sceneOf = (...growths: Growth[]): Scene => ({ ...reef, growths });
const withSteps = (scene: Scene, steps: Growth['steps']): Scene => ({
  ...scene,
  growths: [{ ...scene.growths[0], steps }, ...scene.growths.slice(1)],
});
const always = (): boolean => true;

const [frill, subdivide, noise] = [newStep('frill'), newStep('subdivide', { levels: 4 }), newStep('noise')];
const scene = sceneOf(growth('Coral', frill, subdivide, noise), growth('Other', newStep('frill')));

test('steps from the changed one on make less, those before it and other growths stay', () => {
  const next = { ...subdivide, params: { ...subdivide.params, crease: 90 } };
  const made = draftScene(withSteps(scene, [frill, next, noise]), scene, always)!;
  expect(made.growths[0].steps[0]).toBe(frill);
  expect(made.growths[0].steps[1].params).toEqual({ ...next.params, levels: 2 });
  expect(made.growths[0].steps[2]).toBe(noise);
  expect(made.growths[1]).toBe(scene.growths[1]);
});

test('all steps of a growth follow its seed, and all growths that of the scene', () => {
  const seeded = { ...scene, growths: [{ ...scene.growths[0], seed: 5 }, scene.growths[1]] };
  const pieces = ({ growths }: Scene): unknown[] => growths.map(({ steps }) => steps[0].params.piece);
  const piece = frill.params.piece as number;
  expect(pieces(draftScene(seeded, scene, always)!)).toEqual([3 * piece, piece]);
  expect(pieces(draftScene({ ...scene, seed: 7 }, scene, always)!)).toEqual([3 * piece, 3 * piece]);
});

test('where nothing changed, or nothing that did is slow, on, of a plain number, or any coarser, there is no such scene', () => {
  const changed = (params: object, on = true): Scene =>
    withSteps(scene, [{ ...frill, on, params: { ...frill.params, height: 0.7, ...params } }, noise]);
  expect(draftScene(scene, scene, always)).toBeNull();
  expect(draftScene({ ...scene, name: 'Other reef' }, scene, always)).toBeNull();
  expect(draftScene(changed({}), scene, always)).not.toBeNull();
  expect(draftScene(changed({}), scene, (id) => id !== frill.id)).toBeNull();
  expect(draftScene(changed({}, false), scene, always)).toBeNull();
  expect(draftScene(changed({ piece: { formula: '0.03' } }), scene, always)).toBeNull();
  expect(draftScene(changed({ piece: 1000 }), scene, always)).toBeNull();
  expect(draftScene(sceneOf(growth('New', frill)), scene, always)).toBeNull();
});

const declaring = STEPS.filter(({ coarse }) => coarse);

test.each(declaring.map(({ kind }) => kind))('%s makes less when it is coarse, and no error', async (kind) => {
  const takes = STEPS.find((step) => step.kind === kind)!.takes.length > 0;
  // Chance goes by seeds and by the ids of steps.
  const needs = takes ? [{ ...newStep('solid', { pieces: 24 }), id: 'needed' }] : [];
  const step = { ...newStep(kind), id: 'own' };
  const before = { ...sceneOf({ ...growth('Coral', ...needs, step), seed: 3 }), seed: 7 };
  const next = withSteps(before, [...needs, { ...step, params: { ...step.params } }]);
  const made = draftScene(next, before, always)!;
  const sizes = await Promise.all(
    [next, made].map(async (one) => {
      const { growths } = await new Evaluator({ now: () => 0 }).evaluate(one, 100);
      expect(growths[0].notices).toEqual([]);
      const { mesh, paths, points } = growths[0].form!;
      return points?.ids.length ?? mesh?.indices.length ?? paths!.s.length;
    }),
  );
  expect(sizes[1]).toBeGreaterThan(0);
  expect(sizes[1]).toBeLessThan(0.75 * sizes[0]);
});
