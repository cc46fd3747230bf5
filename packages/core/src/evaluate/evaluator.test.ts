import fc from 'fast-check';
import { flaws } from '../geometry/invariants';
import { Cancelled } from '../problem';
import { newGrowth, newStep } from '../scene/make';
import type { Scene } from '../scene/schema';
import { sceneOf, testEvaluator } from '../testing';
import { formHash } from '../digests/digest';
import { Evaluator } from './evaluator';
import type { FrameResult } from './results';

const growTo = (first: number, last: number) => ({
  keys: [
    { frame: first, value: 0, ease: 'ease-in-out' as const },
    { frame: last, value: 1, ease: 'linear' as const },
  ],
  before: 'hold' as const,
  after: 'hold' as const,
});

const swaying = (): Scene =>
  sceneOf([
    newStep('drawn', { points: 60 }),
    newStep('noise', { evolve: 0.5 }),
    newStep('grow', { to: growTo(1, 100) }),
    newStep('tube', { sides: 5 }),
    newStep('finish'),
  ]);

const hashes = (result: FrameResult): string[] => result.growths.map(({ form }) => formHash(form!));

describe('evaluation', () => {
  test('any order of frames gives the same hashes as each frame alone', async () => {
    const scene = swaying();
    const alone = new Map<number, string[]>();
    for (const frame of [1, 7.5, 40, 41, 99, 144])
      alone.set(frame, hashes(await testEvaluator().evaluate(scene, frame)));
    await fc.assert(
      fc.asyncProperty(fc.shuffledSubarray([...alone.keys()], { minLength: 3 }), async (frames) => {
        const evaluator = testEvaluator();
        for (const frame of frames) expect(hashes(await evaluator.evaluate(scene, frame))).toEqual(alone.get(frame));
      }),
      { numRuns: 12 },
    );
  });

  test('looping noise: one frame past the range is the first frame, to the bit', async () => {
    const scene = swaying();
    scene.growths[0].steps.splice(2, 1);
    const evaluator = testEvaluator();
    expect(hashes(await evaluator.evaluate(scene, 145))).toEqual(hashes(await evaluator.evaluate(scene, 1)));
    expect(hashes(await evaluator.evaluate(scene, 73))).not.toEqual(hashes(await evaluator.evaluate(scene, 1)));
  });

  test('a changed step recomputes itself and what follows, nothing before', async () => {
    const scene = swaying();
    const evaluator = testEvaluator();
    await evaluator.evaluate(scene, 50);
    scene.growths[0].steps[3].params.sides = 8;
    const { growths } = await evaluator.evaluate(scene, 50);
    expect(growths[0].costs.map(({ kept }) => kept)).toEqual([true, true, true, false, false]);
  });

  test('a step whose values stand still is kept from frame to frame', async () => {
    const scene = sceneOf([newStep('line'), newStep('noise', { evolve: 0 }), newStep('grow', { to: growTo(1, 100) })]);
    const evaluator = testEvaluator();
    await evaluator.evaluate(scene, 10);
    const { growths } = await evaluator.evaluate(scene, 11);
    expect(growths[0].costs.map(({ kept }) => kept)).toEqual([true, true, false]);
  });

  test('keeps within its byte budget', async () => {
    const evaluator = testEvaluator({ cacheBytes: 300_000 });
    const scene = swaying();
    for (let frame = 1; frame <= 40; frame++) await evaluator.evaluate(scene, frame);
    expect(evaluator.keptBytes).toBeLessThanOrEqual(300_000);
    expect(evaluator.keptBytes).toBeGreaterThan(0);
  });

  test("every form on the way is sound, and the share grown is the track's value", async () => {
    const scene = swaying();
    scene.growths[0].steps[2].params.to = {
      ...growTo(1, 101),
      keys: growTo(1, 101).keys.map((key) => ({ ...key, ease: 'linear' as const })),
    };
    for (const frame of [1, 26, 51, 101, 140]) {
      const [growth] = (await testEvaluator().evaluate(scene, frame)).growths;
      expect(flaws(growth.form!)).toEqual([]);
      expect(growth.share!).toBeCloseTo(Math.min(1, (frame - 1) / 100), 4);
    }
  });

  test('a growth shifted by d frames at frame f is the unshifted one at f − d', async () => {
    const scene = swaying();
    const plain = hashes(await testEvaluator().evaluate(scene, 30));
    scene.growths[0].shift = 12;
    expect(hashes(await testEvaluator().evaluate(scene, 42))).toEqual(plain);
  });

  test('reordering growths or adding one changes no other', async () => {
    const scene = swaying();
    const [before] = hashes(await testEvaluator().evaluate(scene, 60));
    scene.growths.unshift({ ...newGrowth('Other', 1, [newStep('helix'), newStep('tube')]) });
    expect(hashes(await testEvaluator().evaluate(scene, 60))[1]).toBe(before);
  });
});

describe('what goes wrong', () => {
  test('a step over budget stops its growth with the number to lower; others go on', async () => {
    const scene = swaying();
    scene.growths.push({ ...newGrowth('Small', 1, [newStep('line', { points: 10 })]), id: 'small' });
    const { growths } = await testEvaluator({ points: 50 }).evaluate(scene, 50);
    expect(growths[0].form).toBeNull();
    expect(growths[0].notices).toEqual([
      {
        level: 'error',
        what: 'This would make 60 points; the limit is 50.',
        advice: 'Lower Points.',
        place: { growth: 'growth', step: 'step0' },
      },
    ]);
    expect(growths[1].form!.paths!.s).toHaveLength(10);
  });

  test('a step that does not fit is skipped with a reason, and loses nothing', async () => {
    const scene = sceneOf([newStep('tube'), newStep('line'), newStep('finish')]);
    const [growth] = (await testEvaluator().evaluate(scene, 1)).growths;
    expect(growth.notices.map(({ level, place }) => [level, place.step])).toEqual([
      ['skipped', 'step0'],
      ['skipped', 'step2'],
    ]);
    expect(growth.form!.paths).not.toBeNull();
  });

  test('growths that refer to each other in a circle are named; the rest are evaluated', async () => {
    const scene = sceneOf([newStep('shared', { growth: 'b' })], 'Anna');
    scene.growths.push({ ...newGrowth('Ben', 1, [newStep('shared', { growth: 'growth' })]), id: 'b' });
    scene.growths.push({ ...newGrowth('Cleo', 2, [newStep('line')]), id: 'c' });
    const { growths } = await testEvaluator().evaluate(scene, 1);
    expect(growths.map(({ form }) => form !== null)).toEqual([false, false, true]);
    expect(growths[0].notices[0].what).toContain('Anna → Ben → Anna');
  });

  test("a growth takes another one's paths, hidden or later in the list, and follows its changes", async () => {
    const scene = sceneOf([newStep('shared', { growth: 'b' }), newStep('tube', { sides: 4 })]);
    scene.growths.push({ ...newGrowth('Source', 1, [newStep('line', { points: 9 })]), id: 'b', visible: false });
    const evaluator = testEvaluator();
    const first = await evaluator.evaluate(scene, 1);
    expect(first.growths).toHaveLength(1);
    expect(first.growths[0].form!.paths!.s).toHaveLength(9);
    scene.growths[1].steps[0].params.points = 11;
    expect((await evaluator.evaluate(scene, 1)).growths[0].form!.paths!.s).toHaveLength(11);
  });

  test('a missing reference says so', async () => {
    const [growth] = (await testEvaluator().evaluate(sceneOf([newStep('shared', { growth: 'gone' })]), 1)).growths;
    expect(growth.notices[0].what).toMatch(/not in this scene/);
  });

  test('work that is no longer wanted is given up between steps', async () => {
    const wanted = { aborted: false };
    const stages: string[] = [];
    const evaluator = new Evaluator({
      now: () => 0,
      stage: (_, step) => {
        stages.push(step.kind);
        wanted.aborted = stages.length === 2;
      },
    });
    await expect(evaluator.evaluate(swaying(), 50, wanted)).rejects.toBeInstanceOf(Cancelled);
    expect(stages).toEqual(['drawn', 'noise']);
  });

  test('long work lets messages in', async () => {
    let [clock, pauses] = [0, 0];
    const evaluator = new Evaluator({
      now: () => (clock += 5),
      pause: async () => {
        pauses++;
      },
    });
    await evaluator.evaluate(swaying(), 50);
    expect(pauses).toBeGreaterThan(0);
  });
});

test('what a growth wants of the paths that it takes over is known where they are grown', async () => {
  const scene = sceneOf([
    newStep('shared', { growth: 'stem' }),
    newStep('along', { growth: 'item', by: 'count', count: 4, settle: 1, ease: 'linear' }),
  ]);
  const to = {
    keys: [1, 25].map((frame) => ({ frame, value: (frame - 1) / 24, ease: 'linear' as const })),
    before: 'hold' as const,
    after: 'hold' as const,
  };
  scene.growths.push(
    { ...newGrowth('Stem', 1, [newStep('line'), newStep('grow', { to })]), id: 'stem' },
    { ...newGrowth('Item', 2, [newStep('solid')]), id: 'item' },
  );
  const { copies } = (await testEvaluator().evaluate(scene, 25)).growths[0].form!;
  // The first stands an eighth along, passed at frame 4, 21 of 24 frames before.
  expect(copies!.sizes[0]).toBeCloseTo(21 / 24, 2);
});
