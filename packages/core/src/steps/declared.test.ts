import { kindsOf } from '../geometry/form';
import { newGrowth, newStep } from '../scene/make';
import { putFile, sceneOf, testEvaluator } from '../testing';
import { type StepDeclaration } from './declare';
import { stepOf, STEPS } from './index';
import { withFont } from '../../test/paths';

withFont();

/** Parameters that name a growth or a file, which have no default. */
const filled = ({ params }: StepDeclaration): Record<string, string> =>
  Object.fromEntries(
    Object.entries(params).flatMap(([name, { type, default: value }]) =>
      type === 'growth' ? [[name, 'source']] : type === 'file' && value === null ? [[name, 'drawing']] : [],
    ),
  );

test.each(STEPS.map(({ kind }) => kind))('%s gives what it declares, on what it takes', async (kind) => {
  const declaration = stepOf(kind)!;
  const scene = sceneOf([
    ...(declaration.takes.includes('paths') || declaration.takes.includes('mesh')
      ? [kind === 'plate' ? newStep('arc') : newStep('helix', { points: 40 })]
      : []),
    ...(declaration.takesOne ? [newStep('helix', { points: 40 })] : []),
    ...(declaration.takes.includes('mesh') ? [newStep('tube', { sides: 4 })] : []),
    ...(declaration.takes.includes('points') ? [newStep('phyllotaxis', { count: 20 })] : []),
    ...(declaration.takes.includes('copies') ? [newStep('helix'), newStep('along', { growth: 'source' })] : []),
    newStep(kind, filled(declaration)),
  ]);
  scene.growths.push({ ...newGrowth('Source', 1, [newStep('line'), newStep('tube', { sides: 4 })]), id: 'source' });
  putFile(scene, 'drawing', 'svg', '<svg><path d="M0 0H5V3Z"/></svg>');
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

test('every step has help, and a sign of its own within its field', () => {
  const icons = STEPS.map(({ icon }) => icon);
  expect(new Set(icons).size).toBe(icons.length);
  for (const { icon, help, kind } of STEPS) {
    expect([kind, /^M[-\d.\sA-Za-z]+$/.test(icon)]).toEqual([kind, true]);
    for (const number of icon.match(/\d+(\.\d+)?/g)!) expect(Number(number)).toBeLessThanOrEqual(20);
    expect(help.length).toBeGreaterThan(20);
  }
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
