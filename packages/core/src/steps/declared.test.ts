import { kindsOf } from '../geometry/form';
import { newGrowth, newStep } from '../scene/make';
import { sceneOf, testEvaluator } from '../testing';
import { stepOf, STEPS } from './index';

test.each(STEPS.map(({ kind }) => kind))('%s gives what it declares, on what it takes', async (kind) => {
  const declaration = stepOf(kind)!;
  const scene = sceneOf([
    ...(declaration.takes.includes('paths') || declaration.takes.includes('mesh')
      ? [newStep('helix', { points: 40 })]
      : []),
    ...(declaration.takes.includes('mesh') ? [newStep('tube', { sides: 4 })] : []),
    newStep(kind, kind === 'shared' ? { growth: 'source' } : {}),
  ]);
  scene.growths.push({ ...newGrowth('Source', 1, [newStep('line')]), id: 'source' });
  const [growth] = (await testEvaluator().evaluate(scene, 5)).growths;
  expect(growth.notices).toEqual([]);
  expect(kindsOf(growth.form!)).toEqual(expect.arrayContaining([...declaration.gives]));
});

test.each(STEPS.map(({ kind }) => kind))('%s leaves its input as it was', async (kind) => {
  const declaration = stepOf(kind)!;
  if (declaration.takes.length === 0) return;
  const before = [newStep('helix', { points: 40 }), newStep('tube', { sides: 4 })];
  const evaluator = testEvaluator();
  const scene = sceneOf(before);
  const alone = (await evaluator.evaluate(scene, 5)).growths[0].form!;
  const copy = structuredClone(alone);
  scene.growths = [{ ...scene.growths[0], steps: [...before, { ...newStep(kind), id: 'added' }] }];
  await evaluator.evaluate({ ...scene }, 5);
  expect(alone).toEqual(copy);
});

test("every choice's default is one of its options, and sliders lie within what is allowed", () => {
  for (const { params } of STEPS) {
    for (const spec of Object.values(params)) {
      if (spec.type === 'choice') expect(spec.options.map(({ value }) => value)).toContain(spec.default);
      if (spec.type !== 'number' || !spec.slider) continue;
      expect(spec.slider[0]).toBeGreaterThanOrEqual(spec.min);
      expect(spec.slider[1]).toBeLessThanOrEqual(spec.max);
    }
  }
});
