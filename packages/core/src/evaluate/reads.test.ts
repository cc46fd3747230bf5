import type { Form } from '../geometry/form';
import { newGrowth, newStep } from '../scene/make';
import { newGuide } from '../scene/owners';
import type { ParamValue, Scene, Step } from '../scene/schema';
import type { StepContext, StepDeclaration } from '../steps/declare';
import { stepOf } from '../steps/index';
import { sceneOf, testEvaluator } from '../testing';
import { formHash } from '../digests/digest';

const track = (...values: number[]): ParamValue => ({
  keys: values.map((value, i) => ({ frame: 1 + 10 * i, value, ease: 'linear' })),
  before: 'hold',
  after: 'hold',
});

/** Copies along a line that grows, with what places them further; the item swells over 30 frames. */
function reef(...more: Step[]): Scene {
  const scene = sceneOf([
    newStep('line'),
    newStep('grow', { to: track(0, 0.5, 1) }),
    newStep('along', { growth: 'item', by: 'count', count: 6 }),
    ...more,
  ]);
  const item = newStep('solid', { which: 'tetrahedron', radius: { formula: '0.1 + frame / 100' } });
  scene.growths.push({ ...newGrowth('Item', 1, [item]), id: 'item', visible: false });
  scene.guides = [newGuide('g', 'G', 'ball', { positionY: 0.5, radius: 0.5 })];
  return scene;
}

const hashAt = async (evaluator: ReturnType<typeof testEvaluator>, scene: Scene, frame: number): Promise<string> => {
  const [growth] = (await evaluator.evaluate(scene, frame)).growths;
  expect(growth.notices).toEqual([]);
  return formHash(growth.form!);
};

/** Evaluates one scene, then a changed one at the same or another frame: it must be as if the first had never been. */
async function afterChange(scene: Scene, change: (scene: Scene) => void, frame = 25, next = frame): Promise<void> {
  const lived = testEvaluator();
  const before = await hashAt(lived, scene, frame);
  const changed = structuredClone(scene);
  change(changed);
  const after = await hashAt(lived, changed, next);
  expect(after).toBe(await hashAt(testEvaluator(), changed, next));
  // The change tells, or this would say nothing; a growth that is late shows at a later frame what it showed before.
  if (next === frame) expect(after).not.toBe(before);
  else expect(after).toBe(before);
}

type Row = [about: string, steps: Step[], change: (scene: Scene) => void, next?: number];
test.each<Row>([
  [
    'late by, where the front tells the time',
    [newStep('offset', { by: 'front' })],
    (s) => (s.growths[0].shift = 10),
    35,
  ],
  ...['number', 'even', 'distance', 'random', 'along'].map((by): Row => [
    `the rate, with a time offset by ${by}`,
    [newStep('offset', { by, time: 0.3 })],
    (s) => (s.fps = 12),
  ]),
  ['the rate, with a falloff of time', [newStep('falloff', { drives: 'time', late: 0.5 })], (s) => (s.fps = 12)],
  ['the range, with a time offset by life', [newStep('offset', { by: 'life' })], (s) => (s.range = [1, 60])],
  ['keys in the past, where ages are told', [], (s) => (s.growths[0].steps[1].params.to = track(0, 0.9, 1))],
  [
    'the ball that a falloff weighs by',
    [newStep('falloff', { shape: 'guide', guide: 'guide:g' })],
    (s) => (s.guides[0].params.positionY = 2),
  ],
  [
    'what kind of guide it is',
    [newStep('falloff', { shape: 'guide', guide: 'guide:g' })],
    (s) => (s.guides[0].params.which = 'plane'),
  ],
  ['the seed, where sizes are at random', [], (s) => (s.seed = 99)],
])('%s', async (...[about, steps, change, next]) => {
  const scene = reef(...steps);
  if (/random/.test(about)) Object.assign(scene.growths[0].steps[2].params, { vary: 0.5 });
  await afterChange(scene, change, 25, next ?? 25);
});

test('what a step does not read does not make it run again', async () => {
  const scene = sceneOf([newStep('line'), newStep('wave', { speed: 0 }), newStep('tube', { sides: 4 })]);
  const evaluator = testEvaluator();
  await evaluator.evaluate(scene, 1);
  const changed = { ...structuredClone(scene), seed: 99, fps: 12, range: [1, 50] as [number, number] };
  const { growths } = await evaluator.evaluate(changed, 9);
  expect(growths[0].costs.map(({ kept }) => kept)).toEqual([true, true, true]);
});

test('a step that reads time without declaring it is found out at once', async () => {
  const noise = stepOf('noise') as StepDeclaration;
  noise.moves = undefined;
  try {
    const [growth] = (await testEvaluator().evaluate(sceneOf([newStep('line'), newStep('noise')]), 1)).growths;
    expect(growth.notices[0].what).toMatch(/reads time without declaring/);
  } finally {
    noise.moves = true;
  }
});

describe("a step's own input at another frame", () => {
  const wave = stepOf('wave') as StepDeclaration;
  const { run } = wave;
  afterEach(() => (wave.run = run));
  /** A step that shows what came in three frames ago. */
  const trailing = (_form: Form, _params: never, context: StepContext): Promise<Form> =>
    context.inputAt(context.frame - 3);
  const grown = (): Scene => sceneOf([newStep('line'), newStep('grow', { to: track(0, 0.5, 1) }), newStep('wave')]);

  test('is what comes into it there, whichever frames were evaluated before, and with a shift', async () => {
    wave.run = trailing as never;
    const evaluator = testEvaluator();
    const scene = grown();
    for (const frame of [9, 4, 15.5]) {
      const plain = { ...scene, growths: [{ ...scene.growths[0], steps: scene.growths[0].steps.slice(0, 2) }] };
      expect(await hashAt(evaluator, scene, frame)).toBe(await hashAt(testEvaluator(), plain, frame - 3));
      const late = { ...scene, growths: [{ ...scene.growths[0], shift: 5 }] };
      expect(await hashAt(evaluator, late, frame + 5)).toBe(await hashAt(evaluator, scene, frame));
    }
  });

  test('at the last frame of the scene it is the same from any frame, and goes with the range', async () => {
    wave.run = ((_: Form, __: never, context: StepContext) => context.inputAtLast()) as never;
    const evaluator = testEvaluator();
    const scene = { ...grown(), range: [1, 20] as [number, number] };
    const plain = { ...scene, growths: [{ ...scene.growths[0], steps: scene.growths[0].steps.slice(0, 2) }] };
    const last = await hashAt(testEvaluator(), plain, 20);
    for (const frame of [3, 17]) expect(await hashAt(evaluator, scene, frame)).toBe(last);
    expect(await hashAt(testEvaluator(), plain, 3)).not.toBe(last);
    await afterChange(scene, (s) => (s.range = [1, 12]), 14);
  });

  test('is part of its key: keys that matter only there count', async () => {
    wave.run = trailing as never;
    const scene = grown();
    await afterChange(scene, (s) => (s.growths[0].steps[1].params.to = track(0, 0.7, 1)), 14);
  });
});

test('chains of growths that refer twice to the next are planned and evaluated once each', async () => {
  const scene = sceneOf([]);
  const count = 40;
  scene.growths = Array.from({ length: count }, (_, i) => {
    const next = i + 1 < count ? `g${i + 1}` : null;
    const steps = next
      ? [newStep('shared', { growth: next }), newStep('blend', { growth: next, amount: 0 })]
      : [newStep('line', { points: 3 })];
    return { ...newGrowth(`G ${i}`, i, steps), id: `g${i}`, visible: i === 0 };
  });
  const stages: string[] = [];
  const evaluator = testEvaluator({}, (growth, step) => stages.push(`${growth.id} ${step.kind}`));
  const { growths } = await evaluator.evaluate(scene, 1);
  expect(growths[0].form).not.toBeNull();
  expect(stages).toHaveLength(2 * count - 1);
});

test('a loop that is too long for the budget still gains from what fits', async () => {
  const scene = sceneOf([
    newStep('line', { points: 400 }),
    newStep('noise', { evolve: 1 }),
    newStep('tube', { sides: 6 }),
  ]);
  const kept = async (bytes: number): Promise<number> => {
    const evaluator = testEvaluator({ cacheBytes: bytes });
    let hits = 0;
    for (let round = 0; round < 3; round++)
      for (let frame = 1; frame <= 40; frame++) {
        const { growths } = await evaluator.evaluate(scene, frame);
        if (round === 2 && growths[0].costs.every((cost) => cost.kept)) hits++;
      }
    return hits;
  };
  const whole = testEvaluator();
  await whole.evaluate(scene, 1);
  const one = whole.keptBytes;
  expect(await kept(20 * one)).toBeGreaterThan(8);
});
