import { kindsOf } from '../geometry/form';
import { flaws } from '../geometry/invariants';
import { newGrowth, newStep } from '../scene/make';
import type { Scene, Step } from '../scene/schema';
import { putFile, sceneOf, testEvaluator } from '../testing';
import type { StepDeclaration } from './declare';
import { stepOf, STEPS } from './index';
import { STEP_WORDS } from './words';
import { withShipped } from '../../test/paths';

withShipped();

/** Parameters that name a growth or a file, which have no default. */
const filled = ({ params }: StepDeclaration): Record<string, string> =>
  Object.fromEntries(
    Object.entries(params).flatMap(([name, spec]) => {
      if (spec.type === 'growth') return [[name, 'source']];
      return spec.type === 'file' && spec.kind === 'svg' ? [[name, 'drawing']] : [];
    }),
  );

const pathsFor = (kind: string): Step[] => {
  if (kind === 'plate') return [newStep('arc')];
  if (kind === 'loft') return [newStep('arc', { radius: 0.2 }), newStep('arc', { radius: 0.2, middleX: 2 })];
  return [newStep('helix', { points: 40 })];
};

/** Steps that make what a step takes. */
const inputFor = (declaration: StepDeclaration): Step[] => [
  ...(declaration.takes.includes('paths') || declaration.takes.includes('mesh') ? pathsFor(declaration.kind) : []),
  ...(declaration.takesOne ? [newStep('helix', { points: 40 })] : []),
  ...(declaration.takes.includes('mesh') || declaration.takesOne ? [newStep('tube', { sides: 4 })] : []),
  ...(declaration.takes.includes('points') || declaration.takesOne ? [newStep('phyllotaxis', { count: 20 })] : []),
  ...(declaration.takes.includes('copies') || declaration.takesOne
    ? [newStep('helix'), newStep('along', { growth: 'source' })]
    : []),
];

function sceneWith(steps: Step[]): Scene {
  const scene = sceneOf(steps);
  scene.growths.push({ ...newGrowth('Source', 1, [newStep('line'), newStep('tube', { sides: 4 })]), id: 'source' });
  putFile(scene, 'drawing', 'svg', '<svg><path d="M0 0H5V3Z"/></svg>');
  return scene;
}

const KINDS = STEPS.map(({ kind }) => kind);

test.each(KINDS)('%s gives what it declares, on what it takes, and all of it is sound', async (kind) => {
  const declaration = stepOf(kind)!;
  const scene = sceneWith([...inputFor(declaration), newStep(kind, filled(declaration))]);
  const [growth] = (await testEvaluator().evaluate(scene, 5)).growths;
  expect(growth.notices.filter(({ level }) => level !== 'note')).toEqual([]);
  expect(kindsOf(growth.form!)).toEqual(expect.arrayContaining([...declaration.gives]));
  expect(flaws(growth.form!)).toEqual([]);
});

// Forms are shared between steps and frames: one that writes into its input changes what others show.
test.each(KINDS)('%s leaves its input as it was', async (kind) => {
  const declaration = stepOf(kind)!;
  const before = inputFor(declaration);
  if (before.length === 0) before.push(newStep('helix', { points: 40 }), newStep('tube', { sides: 4 }));
  const evaluator = testEvaluator();
  const scene = sceneWith(before);
  const alone = (await evaluator.evaluate(scene, 5)).growths[0].form!;
  const copy = structuredClone(alone);
  const steps = [...scene.growths[0].steps, { ...newStep(kind, filled(declaration)), id: 'added' }];
  scene.growths = [{ ...scene.growths[0], steps }, ...scene.growths.slice(1)];
  const [after] = (await evaluator.evaluate({ ...scene }, 5)).growths;
  expect(after.notices.filter(({ level }) => level === 'skipped')).toEqual([]);
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

test('every step is found by other words too, and every start is for something', () => {
  expect(Object.keys(STEP_WORDS).sort()).toEqual(STEPS.map(({ kind }) => kind).sort());
  for (const { kind, family, use } of STEPS) expect([kind, use !== undefined]).toEqual([kind, family === 'start']);
});

test('a field folds away in one part only, and no step folds all of its fields away', () => {
  for (const { kind, params, parts = {} } of STEPS) {
    const names = Object.values(parts).flat();
    expect([kind, new Set(names).size]).toEqual([kind, names.length]);
    // Nothing is called as its heading is.
    const labels = Object.values(params).map(({ label }) => label);
    expect([kind, Object.keys(parts).filter((part) => labels.includes(part))]).toEqual([kind, []]);
    if (names.length > 0) expect(Object.keys(params).length).toBeGreaterThan(names.length + 2);
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
