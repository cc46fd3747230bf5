import { grownShare } from '../curves/pathFrames';
import { hash } from '../fields/random';
import { emptyForm, type Form, kindsOf } from '../geometry/form';
import { Cancelled, type Place, Problem } from '../problem';
import { resolveParam, resolveParams } from '../scene/params';
import { type Growth, type Scene, type Step } from '../scene/schema';
import { type StepContext, type StepDeclaration } from '../steps/declare';
import { stepOf } from '../steps/index';
import { type Budgets, DEFAULT_BUDGETS } from './budgets';
import { FormCache } from './cache';
import { digest } from './digest';
import { type Plan, planOf, referencedBy, references } from './plan';

/** Something that a person should know about one step of the result. */
export interface Notice {
  /** `error`: the growth has no result. `skipped`: the step was passed over, the rest went on. */
  level: 'error' | 'skipped';
  what: string;
  advice: string;
  place: Place;
}

/** What one step cost in this evaluation. */
export interface StepCost {
  step: string;
  milliseconds: number;
  /** The result was kept from before. */
  kept: boolean;
}

export interface GrowthResult {
  id: string;
  /** Names the result: the same key is the same geometry, to the bit. */
  key: string;
  /** Null after an error. */
  form: Form | null;
  /** Share of its whole path length that has grown, 0..1; null without paths. */
  share: number | null;
  notices: Notice[];
  costs: StepCost[];
}

export interface FrameResult {
  frame: number;
  growths: GrowthResult[];
  milliseconds: number;
}

/** What the evaluator asks of the place it runs in. */
export interface Surroundings {
  /** A clock in milliseconds. */
  now: () => number;
  /** Lets waiting messages in; called about every 12 ms of work. */
  pause?: () => Promise<void>;
  /** Told before each step that has to run, for progress and for finding what was at work in a crash. */
  stage?: (growth: Growth, step: Step) => void;
  budgets?: Partial<Budgets>;
}

/** Says whether an evaluation is still wanted. */
export interface Wanted {
  readonly aborted: boolean;
}

const SLICE = 12;

/**
 * Evaluates scenes frame by frame. The result is a pure function of scene and frame; what was computed is kept under a
 * key made of the step, its parameters at that frame and the key of its input, so that only changes are computed.
 */
export class Evaluator {
  readonly #around: Surroundings;
  readonly #budgets: Budgets;
  readonly #cache: FormCache;
  readonly #plans = new WeakMap<Scene, Plan>();

  constructor(around: Surroundings) {
    this.#around = around;
    this.#budgets = { ...DEFAULT_BUDGETS, ...around.budgets };
    this.#cache = new FormCache(this.#budgets.cacheBytes);
  }

  /** Bytes of results kept. */
  get keptBytes(): number {
    return this.#cache.bytes;
  }

  /**
   * @param frame any number, fractional ones too
   * @param only ids of the growths wanted (what they refer to is evaluated too); all visible ones when left out
   * @throws Cancelled when `wanted` turns; every other problem is a notice on the growth it concerns
   */
  async evaluate(
    scene: Scene,
    frame: number,
    wanted: Wanted = { aborted: false },
    only?: ReadonlySet<string>,
  ): Promise<FrameResult> {
    const started = this.#around.now();
    const { order, circles } = this.#plan(scene);
    const run = new Run(scene, frame, wanted, this.#around, this.#budgets, this.#cache);
    const results = new Map<string, GrowthResult>();
    for (const growth of scene.growths) {
      const circle = circles.get(growth.id);
      if (circle) results.set(growth.id, circleResult(growth, circle));
    }
    const needed = new Set(only ?? scene.growths.filter((growth) => growth.visible).map(({ id }) => id));
    for (const growth of [...order].reverse())
      if (needed.has(growth.id)) for (const id of references(growth)) needed.add(id);
    for (const growth of order) if (needed.has(growth.id)) results.set(growth.id, await run.growth(growth, results));
    const shown = scene.growths.filter((growth) => (only ? only.has(growth.id) : growth.visible));
    return {
      frame,
      growths: shown.flatMap((growth) => results.get(growth.id) ?? []),
      milliseconds: this.#around.now() - started,
    };
  }

  /** The plan of a scene, made once: a scene is not changed while it is evaluated. */
  #plan(scene: Scene): Plan {
    let plan = this.#plans.get(scene);
    if (!plan) this.#plans.set(scene, (plan = planOf(scene)));
    return plan;
  }
}

function circleResult(growth: Growth, names: string[]): GrowthResult {
  const notice: Notice = {
    level: 'error',
    what: `Growths refer to each other in a circle: ${names.join(' → ')}.`,
    advice: 'Let one of them refer to another growth, or switch that step off.',
    place: { growth: growth.id },
  };
  return { id: growth.id, key: 'circle', form: null, share: null, notices: [notice], costs: [] };
}

/** One evaluation of one frame. */
class Run {
  #lastPause: number;

  constructor(
    readonly scene: Scene,
    readonly frame: number,
    readonly wanted: Wanted,
    readonly around: Surroundings,
    readonly budgets: Budgets,
    readonly cache: FormCache,
  ) {
    this.#lastPause = around.now();
  }

  async growth(growth: Growth, others: ReadonlyMap<string, GrowthResult>): Promise<GrowthResult> {
    const frame = this.frame - growth.shift;
    const result: GrowthResult = {
      id: growth.id,
      key: digest('empty'),
      form: emptyForm(),
      share: null,
      notices: [],
      costs: [],
    };
    for (const step of growth.steps) {
      if (!step.on) continue;
      const place = { growth: growth.id, step: step.id };
      const declaration = stepOf(step.kind);
      if (!declaration) continue;
      const missing = declaration.takes.filter((kind) => !kindsOf(result.form!).includes(kind));
      if (missing.length > 0) {
        const what = `${declaration.label} needs ${missing.join(' and ')}, and there is none before it.`;
        result.notices.push({ level: 'skipped', what, advice: 'Drag it below a step that makes one.', place });
        continue;
      }
      try {
        await this.#step(growth, step, declaration, frame, result, others);
      } catch (error) {
        if (error instanceof Cancelled) throw error;
        const problem = error instanceof Problem ? error : unexpected(error, declaration);
        result.notices.push({ level: 'error', what: problem.message, advice: problem.advice, place });
        result.form = null;
        result.key = `error:${step.id}`;
        return result;
      }
    }
    result.share = grownShare(result.form!.paths);
    return result;
  }

  async #step(
    growth: Growth,
    step: Step,
    declaration: StepDeclaration,
    frame: number,
    result: GrowthResult,
    others: ReadonlyMap<string, GrowthResult>,
  ): Promise<void> {
    const { scene, around } = this;
    const params = resolveParams(declaration, step, frame);
    const seed = hash(scene.seed, growth.seed, stepNumber(step.id));
    // A timed step may look at its values at other frames: then the tracks themselves are part of the key.
    const time = declaration.timed?.(params) ? [frame, scene.fps, ...scene.range, step.params] : [];
    const referred = referencedBy(declaration, params).map((id) => others.get(id)?.key ?? 'none');
    const key = digest(JSON.stringify([step.kind, params, seed, time, referred, result.key]));
    const started = around.now();
    const input = result.form!;
    let form = this.cache.get(key);
    const kept = form !== undefined;
    if (!form) {
      around.stage?.(growth, step);
      await this.#breathe();
      form = await declaration.run(input, params as never, this.#context(step, declaration, frame, seed, others));
      this.cache.set(key, form, input);
    }
    result.form = form;
    result.key = key;
    result.costs.push({ step: step.id, milliseconds: around.now() - started, kept });
  }

  #context(
    step: Step,
    declaration: StepDeclaration,
    frame: number,
    seed: number,
    others: ReadonlyMap<string, GrowthResult>,
  ): StepContext {
    return {
      frame,
      fps: this.scene.fps,
      range: this.scene.range,
      seed,
      claim: (kind, amount, lower) => {
        const limit = this.budgets[kind];
        if (amount <= limit) return;
        const [wanted, allowed] = [amount, limit].map((n) => Math.round(n).toLocaleString('en-GB'));
        throw new Problem(`This would make ${wanted} ${kind}; the limit is ${allowed}.`, `Lower ${lower}.`);
      },
      numberAt: (param, at) => resolveParam(declaration.params[param], step.params[param], at) as number,
      other: (id) => {
        const other = others.get(id);
        if (!other) throw new Problem('The growth that it refers to is not in this scene.', 'Choose another growth.');
        if (!other.form)
          throw new Problem('The growth that it refers to has a problem of its own.', 'Mend that one first.');
        return other.form;
      },
      breathe: () => this.#breathe(),
    };
  }

  async #breathe(): Promise<void> {
    const now = this.around.now();
    if (now - this.#lastPause > SLICE) {
      await this.around.pause?.();
      this.#lastPause = this.around.now();
    }
    if (this.wanted.aborted) throw new Cancelled();
  }
}

/** A number from a step's id, so that its randomness survives reordering. */
function stepNumber(id: string): number {
  let number = 0;
  for (let i = 0; i < id.length; i++) number = (Math.imul(number, 31) + id.charCodeAt(i)) | 0;
  return number;
}

function unexpected(error: unknown, declaration: StepDeclaration): Problem {
  const reason =
    error instanceof RangeError ? 'it asked for more memory than there is' : String((error as Error)?.message ?? error);
  return new Problem(`${declaration.label} failed: ${reason}.`, 'Lower its numbers, or switch it off.');
}
