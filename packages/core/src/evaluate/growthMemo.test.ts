import { newGrowth, newStep } from '../scene/make';
import type { Growth, Scene, Step } from '../scene/schema';
import { shareStructure } from '../scene/structuralSharing';
import { sceneOf, testEvaluator } from '../testing';
import { Evaluator } from './evaluator';
import { KnownNodes } from './growthMemo';
import { planOf } from './plan';

const growth = (id: string, steps: Step[], more: Partial<Growth> = {}): Growth => ({
  ...newGrowth(id, 0, steps),
  id,
  seed: 1,
  ...more,
});
const grows = (): Step => newStep('grow', { to: { keys: [key(1, 0), key(40, 1)], before: 'hold', after: 'hold' } });
const key = (frame: number, value: number) => ({ frame, value, ease: 'linear' as const });
const weeds = (): Scene => {
  const scene = sceneOf([]);
  scene.growths = [
    growth('bed', [
      newStep('line', { toX: 4, toY: 0, points: 40 }),
      newStep('along', { growth: 'weed', by: 'count', count: 30 }),
      newStep('offset', { by: 'number', time: 0.1 }),
    ]),
    growth('weed', [newStep('line'), grows(), newStep('tube'), newStep('finish')], { visible: false }),
    growth('stone', [newStep('rock')]),
  ];
  return shareStructure(scene);
};
const withStep = (scene: Scene, id: string, kind: string, params: Step['params']): Scene =>
  shareStructure(
    {
      ...scene,
      growths: scene.growths.map((one) =>
        one.id === id
          ? {
              ...one,
              steps: one.steps.map((step) =>
                step.kind === kind ? { ...step, params: { ...step.params, ...params } } : step,
              ),
            }
          : one,
      ),
    },
    scene,
  );
const keysOf = async (evaluator: Evaluator, scene: Scene, frame: number): Promise<string[]> =>
  (await evaluator.evaluate(scene, frame)).growths.map(({ key: name }) => name);

test('a change makes what hangs on it and nothing else; the rest costs nothing and is the very same', async () => {
  const ran: string[] = [];
  const evaluator = new Evaluator({ now: () => 0, stage: ({ id }, { kind }) => void ran.push(`${id} ${kind}`) });
  const scene = weeds();
  const before = await evaluator.evaluate(scene, 30);
  ran.length = 0;
  const after = await evaluator.evaluate(withStep(scene, 'bed', 'offset', { time: 0.2 }), 30);
  // Other moments of the weed are shown now; the stone and what was laid out stay.
  expect(ran).toContain('bed offset');
  expect(ran.some((one) => one.startsWith('stone') || one === 'bed along')).toBe(false);
  expect(after.growths[1].form).toBe(before.growths[1].form);
  expect(after.growths[1].costs).toEqual([{ step: scene.growths[2].steps[0].id, milliseconds: 0, kept: true }]);
  ran.length = 0;
  await evaluator.evaluate(shareStructure(structuredClone(scene), scene), 30);
  expect(ran).toEqual([]);
});

test('another colour of an item places nothing anew, and its copies wear it', async () => {
  const ran: string[] = [];
  const evaluator = new Evaluator({ now: () => 0, stage: ({ id }, { kind }) => void ran.push(`${id} ${kind}`) });
  const scene = weeds();
  await evaluator.evaluate(scene, 30);
  ran.length = 0;
  const matt = withStep(scene, 'weed', 'finish', { roughness: 0.97 });
  const [bed] = (await evaluator.evaluate(matt, 30)).growths;
  expect(new Set(ran)).toEqual(new Set(['weed finish']));
  for (const { surface } of bed.form!.copies!.items) expect(surface!.roughness).toBe(0.97);
  // A longer one takes other room.
  ran.length = 0;
  await evaluator.evaluate(withStep(scene, 'weed', 'line', { toY: 1.7 }), 30);
  expect(ran).toContain('bed along');
});

describe('a growth after its first steps', () => {
  const nodes = new KnownNodes();
  const after = (scene: Scene, id: string, count: number): number | null => {
    const plan = planOf(scene);
    return nodes.stateAfter(scene, plan, plan.byId.get(id)!, count);
  };

  test('is what it was, whatever later steps are, and growths that it does not refer to', () => {
    const scene = weeds();
    const wider = withStep(scene, 'weed', 'tube', { radius: 0.2 });
    expect(after(wider, 'weed', 2)).toBe(after(scene, 'weed', 2));
    expect(after(wider, 'weed', 3)).not.toBe(after(scene, 'weed', 3));
    expect(after(wider, 'bed', 1)).toBe(after(scene, 'bed', 1));
    expect(after(wider, 'bed', 2)).not.toBe(after(scene, 'bed', 2));
    expect(after(scene, 'weed', 1)).not.toBe(after(scene, 'weed', 2));
  });

  test('is another where its seed, its lateness or the scene is, or a later step wants its age', () => {
    const scene = weeds();
    const of = (more: Partial<Growth>): Scene =>
      shareStructure(
        { ...scene, growths: scene.growths.map((one) => (one.id === 'weed' ? { ...one, ...more } : one)) },
        scene,
      );
    expect(after(of({ name: 'Eelgrass' }), 'weed', 2)).toBe(after(scene, 'weed', 2));
    expect(after(of({ seed: 2 }), 'weed', 2)).not.toBe(after(scene, 'weed', 2));
    expect(after(of({ shift: 2 }), 'weed', 2)).not.toBe(after(scene, 'weed', 2));
    expect(after(shareStructure({ ...scene, fps: 50 }, scene), 'weed', 2)).not.toBe(after(scene, 'weed', 2));
    expect(after(withStep(scene, 'weed', 'finish', { by: 'age' }), 'weed', 2)).not.toBe(after(scene, 'weed', 2));
  });

  test('hangs on all steps where one of the first has a formula, which may look at any', () => {
    const scene = withStep(weeds(), 'weed', 'line', { toY: { formula: 'tube.radius * 10' } });
    const wider = withStep(scene, 'weed', 'tube', { radius: 0.2 });
    expect(after(wider, 'weed', 1)).not.toBe(after(scene, 'weed', 1));
  });

  test('is not known while one of them may still change', () => {
    const open = { ...weeds(), growths: [growth('stem', [newStep('line'), newStep('tube')])] };
    expect(after(open, 'stem', 1)).toBeNull();
  });
});

test('what a growth is wanted to leave behind by one that takes its paths over is part of it', async () => {
  const scene = sceneOf([]);
  scene.growths = [
    growth('stem', [newStep('line'), grows(), newStep('tube')]),
    growth('heir', [newStep('shared', { growth: 'stem' }), newStep('tube'), newStep('finish', { by: 'rest' })]),
  ];
  const plain = shareStructure(scene);
  const aged = withStep(plain, 'heir', 'finish', { by: 'age' });
  const lived = testEvaluator();
  const first = await keysOf(lived, plain, 20);
  const second = await keysOf(lived, aged, 20);
  expect(second).toEqual(await keysOf(testEvaluator(), aged, 20));
  expect(second[0]).not.toBe(first[0]);
  const { form } = (await lived.evaluate(aged, 20)).growths[0];
  expect(form!.paths!.age).not.toBeNull();
});

test('a scene that may still change is not taken for what it was', async () => {
  const evaluator = testEvaluator();
  const scene = sceneOf([newStep('line'), newStep('tube', { radius: 0.1 })]);
  const [before] = await keysOf(evaluator, scene, 1);
  scene.growths[0].steps[1].params.radius = 0.2;
  const [after] = await keysOf(evaluator, { ...scene }, 1);
  expect(after).not.toBe(before);
});
