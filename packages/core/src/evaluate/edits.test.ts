import { createHash } from 'node:crypto';
import fc from 'fast-check';
import type { Form } from '../geometry/form';
import { newGrowth, newStep } from '../scene/make';
import { newGuide } from '../scene/owners';
import { checkScene } from '../scene/read';
import { type Growth, isTrack, isVaried, type Params, type ParamValue, type Scene, type Step } from '../scene/schema';
import type { ParamSpec } from '../steps/declare';
import { stepOf, STEPS } from '../steps/index';
import { putFile, sceneOf, testEvaluator } from '../testing';
import { withShipped } from '../../test/paths';
import { formHash } from '../digests/digest';
import type { Evaluator } from './evaluator';

withShipped();

// Metamorphic (Chen, Cheung and Yiu 1998): an evaluator that lived through edits gives the bytes of a fresh one.

/** Series of edits; more with EDIT_SERIES=20000 npm run unit -- edits. Each run of CI draws others. */
const SERIES = Number(process.env.EDIT_SERIES ?? 80);
const BUDGETS = { points: 1200, faces: 1200, copies: 500, cacheBytes: 200_000 };
const IDS = ['a', 'b', 'c', 'd'];

/** A stream of whole numbers that a series is drawn from. */
class Dice {
  #at = 0;
  constructor(readonly numbers: readonly number[]) {}
  below(n: number): number {
    return this.numbers[this.#at++ % this.numbers.length] % n;
  }
  of<T>(list: readonly T[]): T {
    return list[this.below(list.length)];
  }
}

/** Counts are kept small, so that a series costs little. */
const FEW = 7;
const counts = (spec: ParamSpec): boolean =>
  spec.type === 'number' && ((spec.whole === true && spec.unit === 'count') || spec.label === 'Count');

/** What is made step by step, or multiplies, is kept small too, of large pieces. */
const SIMULATED = new Set(
  ['ruffle', 'frill', 'burst'].flatMap((kind): ParamSpec[] => Object.values(stepOf(kind)!.params)),
);

function randomValue(spec: ParamSpec, dice: Dice, own: string): ParamValue {
  switch (spec.type) {
    case 'number': {
      const [low, high] = spec.slider ?? [spec.min, spec.max];
      const some = (): number => {
        if (SIMULATED.has(spec) && spec.label === 'Segment length') return high;
        const top = SIMULATED.has(spec) ? Math.min(high, spec.default) : high;
        const few = SIMULATED.has(spec) ? (spec.label === 'Bursts' ? 2 : 3) : FEW;
        const most = counts(spec) ? Math.min(high, Math.max(low, few)) : top;
        const value = low + ((most - low) * dice.below(9)) / 8;
        return spec.whole ? Math.round(value) : value;
      };
      // Where what it is made by changes, all of it is made anew at every frame.
      if (SIMULATED.has(spec) && spec.label !== 'Grown') return some();
      const base = ((): ParamValue => {
        switch (dice.below(5)) {
          case 0: {
            const keys = [1, 4 + dice.below(6), 14].map((frame, i, all) => ({
              frame: frame + (i === 2 ? all[1] : 0),
              value: some(),
              ease: dice.of(['linear', 'hold', 'ease-in-out'] as const),
            }));
            const cycle = dice.of(['hold', 'repeat', 'ping-pong'] as const);
            if (cycle === 'repeat') keys[2].value = keys[0].value;
            return { keys, before: cycle, after: cycle };
          }
          case 1:
            return spec.whole
              ? some()
              : { formula: dice.of(['frame / 9', 'drive', 'seconds + 0.1', '1 / fps', 'last - frame']) };
          default:
            return some();
        }
      })();
      if (!spec.varies || dice.below(4) > 0) return base;
      const by = dice.of(['random', 'noise', 'index', 'attribute'] as const);
      return {
        base: base as number,
        vary: {
          by,
          amount: 0.3,
          waves: 2,
          attribute: spec.varies === 'path' ? 'whole' : dice.of(['age', 's', 'level']),
          span: [0, 2],
          shape: [
            { at: 0, value: 0 },
            { at: 1, value: 1 },
          ],
        },
      };
    }
    case 'toggle':
      return dice.below(2) === 1;
    case 'choice':
      return dice.of(spec.options).value;
    case 'growth':
      return own < 'd' ? dice.of(['d', 'd', ...IDS.filter((id) => id > own)]) : null;
    case 'guide':
      return dice.of([null, 'guide:g', ...IDS.filter((id) => id > own).map((id) => `tip:${id}`)]);
    case 'file':
      return spec.kind === 'svg' ? 'drawing' : (spec.shipped[0]?.value ?? null);
    case 'text':
      return spec.default === 'Reef' ? 'i' : spec.default;
    case 'color':
      return dice.of(['#c9e86a', '#66d3c8']);
    default:
      return JSON.parse(JSON.stringify(spec.default)) as ParamValue;
  }
}

let made = 0;
function randomStep(kind: string, dice: Dice, own: string): Step {
  const declaration = stepOf(kind)!;
  const step = newStep(kind);
  step.id = `s${made++}`;
  const track = (): ParamValue => ({
    keys: [1, 3 + dice.below(4), 20].map((frame, i) => ({ frame, value: [0, 0.5, 1][i], ease: 'linear' as const })),
    before: 'hold',
    after: 'hold',
  });
  // What reads most besides its own values is met most often.
  const often: Record<string, () => Record<string, ParamValue>> = {
    grow: () => ({ to: track(), stagger: dice.below(3) }),
    offset: () => ({ by: dice.of(['front', 'life', 'number']), time: 0.1 }),
    falloff: () =>
      dice.of([
        { shape: 'guide', guide: 'guide:g' },
        ...(own < 'c' ? [{ shape: 'guide', guide: 'tip:c' }] : []),
        { shape: 'front', guide: null },
      ]),
  };
  for (const [name, spec] of Object.entries(declaration.params)) {
    if (spec.type === 'number' && counts(spec)) step.params[name] = Math.min(spec.max, Math.max(spec.min, FEW));
    const refers = spec.type === 'growth' || spec.type === 'file';
    if (refers || dice.below(4) === 0) step.params[name] = randomValue(spec, dice, own);
  }
  if (dice.below(4) > 0) Object.assign(step.params, often[kind]?.());
  return step;
}

const STARTS = STEPS.filter(({ family }) => family === 'start').map(({ kind }) => kind);
const PATHS = ['line', 'arc', 'helix'];
const PLACES = ['offset', 'falloff', 'offset', 'falloff', 'clearance'];
const OTHERS = STEPS.filter(({ family }) => family !== 'start').map(({ kind }) => kind);

const rising = (first: number, last: number): ParamValue => ({
  keys: [
    { frame: first, value: 0, ease: 'linear' },
    { frame: last, value: 2, ease: 'linear' },
  ],
  before: 'repeat',
  after: 'repeat',
});

/** Four growths, each of which can refer to those after it; the last is a plain one that can be copied and ridden. */
function randomScene(dice: Dice): Scene {
  const scene = sceneOf([]);
  scene.range = [1, 24];
  putFile(scene, 'drawing', 'svg', '<svg><path d="M0 0H5V3Z"/></svg>');
  scene.guides = [newGuide('g', 'G', dice.of(['point', 'ball', 'plane'] as const))];
  const some = (kinds: readonly string[], id: string, n: number): Step[] =>
    Array.from({ length: n }, () => randomStep(dice.of(kinds), dice, id));
  const steps: Record<string, () => Step[]> = {
    a: () => [...some(STARTS, 'a', 1), ...some(OTHERS, 'a', 2 + dice.below(3))],
    // Copies that grow, are late and fall off: what reads time and other growths most.
    b: () => [
      ...some(PATHS, 'b', 1),
      ...some(['grow', 'noise', 'wave'], 'b', 1 + dice.below(2)),
      ...some(['along'], 'b', 1).map((step) => ({ ...step, params: { ...step.params, by: 'count', second: null } })),
      ...some(PLACES, 'b', 2),
    ],
    c: () => [...some(PATHS, 'c', 1), ...some(['grow', 'grow', 'noise', 'strands'], 'c', 2), ...some(OTHERS, 'c', 1)],
    d: () => [
      newStep('solid', { which: 'tetrahedron', radius: 0.1, sides: 3, pieces: 3 }),
      ...some(['finish', 'twist'], 'd', 1),
    ],
  };
  scene.growths = IDS.map((id, i) => ({
    ...newGrowth(id, i, steps[id]()),
    id,
    seed: dice.below(100),
    shift: dice.below(3),
  }));
  return scene;
}

/** A track or a variation with one of its figures changed a little. */
function nudge(value: ParamValue, dice: Dice): ParamValue {
  if (isVaried(value)) return { ...value, vary: { ...value.vary, amount: dice.of([0.1, 0.2, 0.4]) } };
  if (!isTrack(value)) return value;
  const at = dice.below(value.keys.length);
  return { ...value, keys: value.keys.map((key, i) => (i === at ? { ...key, value: key.value * 0.75 } : key)) };
}

/** A copy of a scene with one thing changed. */
function edited(scene: Scene, dice: Dice): Scene {
  const g = dice.below(scene.growths.length);
  const growth = scene.growths[g];
  const put = (next: Growth): Scene => ({
    ...scene,
    growths: scene.growths.map((entry, i) => (i === g ? next : entry)),
  });
  const s = dice.below(Math.max(1, growth.steps.length));
  const step = growth.steps[s];
  const putStep = (next: Step): Scene =>
    put({ ...growth, steps: growth.steps.map((entry, i) => (i === s ? next : entry)) });
  switch (dice.below(15)) {
    case 0:
      return { ...scene, fps: dice.of([12, 24, 25]) };
    case 1:
      return { ...scene, range: [dice.of([1, 3]), dice.of([20, 24, 30])] };
    case 2:
      return { ...scene, seed: dice.below(50) };
    case 3:
      return put({ ...growth, shift: dice.below(12) });
    case 14:
      return put({
        ...growth,
        place: dice.of<Params>([
          {},
          { moveY: dice.below(3), scale: 2 },
          { turnY: rising(0, 24), moveX: { formula: 'frame / 24' } },
        ]),
      });
    case 4:
      return put({ ...growth, seed: dice.below(50) });
    case 5:
      return {
        ...scene,
        guides: [
          newGuide('g', 'G', dice.of(['point', 'box', 'plane'] as const), {
            positionX: dice.of<ParamValue>([dice.below(3), rising(1, 24), { formula: 'frame / 10' }]),
          }),
        ],
      };
    case 6:
      return step ? putStep({ ...step, on: !step.on }) : scene;
    case 7:
      return put({
        ...growth,
        steps: [...growth.steps.slice(0, s), randomStep(dice.of(OTHERS), dice, growth.id), ...growth.steps.slice(s)],
      });
    case 8:
      return growth.steps.length > 2 ? put({ ...growth, steps: growth.steps.filter((_, i) => i !== s) }) : scene;
    default: {
      if (!step) return scene;
      const specs = Object.entries(stepOf(step.kind)!.params);
      if (specs.length === 0) return scene;
      const [name, spec] = dice.of(specs);
      const nudged = specs.filter(([one]) => isTrack(step.params[one]) || isVaried(step.params[one]));
      if (nudged.length > 0 && dice.below(2) === 0) {
        const [own] = dice.of(nudged);
        return putStep({ ...step, params: { ...step.params, [own]: nudge(step.params[own], dice) } });
      }
      return putStep({ ...step, params: { ...step.params, [name]: randomValue(spec, dice, growth.id) } });
    }
  }
}

/** Bytes, and what is said of them, growth by growth. */
async function told(evaluator: Evaluator, scene: Scene, frame: number): Promise<unknown[]> {
  const { growths } = await evaluator.evaluate(scene, frame);
  return growths.map(({ id, form, share, notices }) => [id, form && wholeHash(form), share, notices]);
}

/** The hash of a form with what it was cut from; by the machine's own hasher, since there are thousands. */
const wholeHash = (form: Form): string => `${formHash(form, () => createHash('sha1'))} ${form.pitch}`;

const frozen = <T>(value: T): T => {
  if (typeof value === 'object' && value !== null && !Object.isFrozen(value)) {
    Object.freeze(value);
    Object.values(value).forEach(frozen);
  }
  return value;
};

test(
  `whatever series of edits an evaluator has lived through, it gives the bytes of a fresh one (${SERIES} series)`,
  async () => {
    const kinds = new Set<string>();
    const failed = { count: 0, all: 0 };
    await fc.assert(
      fc.asyncProperty(fc.array(fc.nat(1 << 20), { minLength: 60, maxLength: 60 }), async (numbers) => {
        const dice = new Dice(numbers);
        let scene = frozen(checkScene(randomScene(dice)));
        const lived = testEvaluator(BUDGETS);
        let frame = dice.of([5, 12, 7.5]);
        await lived.evaluate(scene, frame);
        for (let edit = 0; edit < 4; edit++) {
          const next = frozen(edited(scene, dice));
          // What does not fit, as a formula out of place, the studio would not have taken.
          try {
            checkScene(next);
          } catch {
            continue;
          }
          scene = next;
          // The same frame most of the time: what was kept for it must not be taken for what it is now.
          if (dice.below(4) === 0) frame = dice.of([1, 5, 12, 24]);
          const result = await told(lived, scene, frame);
          expect(result).toEqual(await told(testEvaluator(BUDGETS), scene, frame));
          for (const growth of scene.growths) for (const { kind, on } of growth.steps) if (on) kinds.add(kind);
          for (const [, hash] of result as [string, string | null][]) {
            failed.all++;
            if (hash === null) failed.count++;
          }
        }
      }),
      { numRuns: SERIES },
    );
    // The series have met every step, and most of what they made has come to something.
    if (SERIES >= 1000) expect([...kinds].sort()).toEqual(STEPS.map(({ kind }) => kind).sort());
    expect(failed.count / failed.all).toBeLessThan(0.6);
  },
  SERIES * 600,
);
