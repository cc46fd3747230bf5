import { grownShare } from '../curves/pathFrames';
import { hash } from '../fields/random';
import { copiesOfSeats, countCopies, joinCopies, type ShownItem } from '../geometry/copies';
import { emptyForm, type Form, type FormKind, kindsOf } from '../geometry/form';
import { momentsOf } from '../geometry/seats';
import { Cancelled, type Place, Problem } from '../problem';
import { tipsOf } from '../curves/tips';
import { type Asset, baseOf, isTrack, isVaried, isFormula } from '../scene/schema';
import { GrowthValues } from '../scene/values';
import { variedNumber } from '../scene/vary';
import { type Growth, type Guide, type Scene, type Step } from '../scene/schema';
import {
  type NumberParam,
  type Resolved,
  type StepContext,
  type StepDeclaration,
  type Want,
  type Wants,
} from '../steps/declare';
import { stepOf } from '../steps/index';
import { base64Bytes } from '../scene/bytes';
import { REEF_SOUND, reefWav } from '../sound/reef';
import { type Budgets, DEFAULT_BUDGETS } from './budgets';
import { FormCache } from './cache';
import { digest } from './digest';
import { periodOf } from './period';
import { type Plan, planOf, referencedBy } from './plan';

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
  /** Bytes of a file that comes with Uvrex, by its name. */
  shipped?: (name: string) => Promise<Uint8Array>;
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
    const run = new Run(scene, this.#plan(scene), wanted, this.#around, this.#budgets, this.#cache);
    const shown = scene.growths.filter((growth) => (only ? only.has(growth.id) : growth.visible));
    const growths: GrowthResult[] = [];
    for (const growth of shown) growths.push((await run.result(growth.id, { frame, variant: 0, drive: 0 }))!);
    return { frame, growths, milliseconds: this.#around.now() - started };
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

/** What a growth is looked at as. */
interface Moment {
  /** Frame of the scene. */
  frame: number;
  /** Which of its variants a copy shows: 0 is the growth as it is, others have randomness of their own. */
  variant: number;
  /** What its formulas know as `drive`, 0..1. */
  drive: number;
}

/** One evaluation. Growths that others refer to are evaluated when they are asked for, once for each moment. */
class Run {
  #lastPause: number;
  readonly #results = new Map<string, Promise<GrowthResult>>();

  constructor(
    readonly scene: Scene,
    readonly plan: Plan,
    readonly wanted: Wanted,
    readonly around: Surroundings,
    readonly budgets: Budgets,
    readonly cache: FormCache,
  ) {
    this.#lastPause = around.now();
  }

  /** A growth at a moment; undefined where the scene has none of that id. */
  result(id: string, moment: Moment): Promise<GrowthResult> | undefined {
    const name = `${id}|${moment.frame}|${moment.variant}|${moment.drive}`;
    let result = this.#results.get(name);
    const growth = result ? undefined : this.plan.byId.get(id);
    if (growth) {
      const circle = this.plan.circles.get(id);
      result = circle ? Promise.resolve(circleResult(growth, circle)) : this.#growth(growth, moment);
      this.#results.set(name, result);
    }
    return result;
  }

  async #growth(growth: Growth, moment: Moment): Promise<GrowthResult> {
    const result: GrowthResult = {
      id: growth.id,
      key: digest('empty'),
      form: emptyForm(),
      share: null,
      notices: [],
      costs: [],
    };
    const wants = this.#wants(growth, moment);
    for (const step of growth.steps) {
      if (!step.on) continue;
      const place = { growth: growth.id, step: step.id };
      const declaration = stepOf(step.kind);
      if (!declaration) continue;
      const missing = missingFor(declaration, kindsOf(result.form!));
      if (missing) {
        const what = `${declaration.label} needs ${missing}, and there is none before it.`;
        result.notices.push({ level: 'skipped', what, advice: 'Drag it below a step that makes one.', place });
        continue;
      }
      try {
        await this.#step(growth, step, declaration, moment, wants, result);
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
    try {
      await this.#copies(moment, result);
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      result.notices.push({
        level: 'error',
        what: error.message,
        advice: error.advice,
        place: { growth: growth.id },
      });
      result.form = null;
      result.key = 'error:copies';
    }
    return result;
  }

  /** Turns seats into copies: each shows its growth at a moment of its own. */
  async #copies(moment: Moment, result: GrowthResult): Promise<void> {
    const { seats } = result.form!;
    if (!seats) return;
    const groups = momentsOf(seats, moment.frame, (id) => this.#periodOf(id));
    const shown: ShownItem[] = [];
    for (const { growth: id, frame, variant, drive } of groups.list) {
      await this.#breathe();
      // A variant of what is itself inside a variant is one of its own.
      const inner = moment.variant === 0 ? variant : hash(moment.variant, variant);
      const item = await this.result(id, { frame, variant: inner, drive });
      if (!item) throw new Problem('A growth to be copied is not in this scene.', 'Choose another item.');
      if (!item.form) {
        const name = this.plan.byId.get(id)!.name;
        throw new Problem(`“${name}”, which is copied, has a problem: ${item.notices[0].what}`, 'Mend that one first.');
      }
      shown.push({ form: item.form, key: item.key });
    }
    const key = digest(
      JSON.stringify([result.key, groups.list.map(({ growth: id }) => id), shown.map((item) => item.key)]),
    );
    let form = this.cache.get(key);
    if (!form) {
      const made = countCopies(groups.group, shown);
      this.#claim('copies', made, 'the number of copies, or what their items hold');
      const copies = copiesOfSeats(seats, groups.group, shown);
      form = { ...result.form!, seats: null, copies: joinCopies(result.form!.copies, copies) };
      this.cache.set(key, form, result.form!);
    }
    result.form = form;
    result.key = key;
  }

  /** After how many frames a growth is the same again; 1 where it stands still, 0 where that is not known. */
  #periodOf(id: string): number {
    let period = this.plan.periods.get(id);
    if (period === undefined) this.plan.periods.set(id, (period = periodOf(this.plan, id)));
    return period;
  }

  /**
   * What the steps of a growth want of each other, and those of growths that take its paths over. A formula that fails
   * is told when its own step runs.
   */
  #wants(growth: Growth, moment: Moment): Wants {
    const wants = new Set<Want>();
    const heirs = this.scene.growths.filter(
      ({ id, steps }) =>
        !this.plan.circles.has(id) &&
        steps.some(({ on, kind, params }) => on && kind === 'shared' && params.growth === growth.id),
    );
    for (const heir of heirs) for (const want of this.#wants(heir, moment)) wants.add(want);
    for (const step of growth.steps) {
      const declaration = step.on ? stepOf(step.kind) : undefined;
      if (!declaration?.wants) continue;
      try {
        const params = this.#values(growth, moment).of(declaration, step);
        for (const want of declaration.wants(params as never)) wants.add(want);
      } catch (error) {
        if (!(error instanceof Problem)) throw error;
      }
    }
    return wants;
  }

  async #step(
    growth: Growth,
    step: Step,
    declaration: StepDeclaration,
    moment: Moment,
    wants: Wants,
    result: GrowthResult,
  ): Promise<void> {
    const { scene, around } = this;
    const frame = moment.frame - growth.shift;
    const params = this.#values(growth, moment).of(declaration, step);
    const seed = hash(scene.seed, growth.seed, stepNumber(step.id), moment.variant);
    const others = new Map<string, GrowthResult>();
    for (const [id, still] of referencedBy(declaration, params)) {
      const other = await this.result(id, still ? { ...moment, frame: scene.range[1] } : moment);
      if (other) others.set(id, other);
    }
    const referred = [...others.values()].map(({ key }) => key);
    const key = digest(
      JSON.stringify([
        step.kind,
        params,
        seed,
        declaration.timed?.(params as never, wants)
          ? [frame, moment.drive, ...wants, ...this.#timeOf(growth, step)]
          : [],
        Object.values(step.params).map((value) => (isVaried(value) ? value.vary : 0)),
        guidesOf(declaration, params, scene),
        referred,
        result.key,
      ]),
    );
    const started = around.now();
    const input = result.form!;
    let form = this.cache.get(key);
    const kept = form !== undefined;
    if (!form) {
      around.stage?.(growth, step);
      await this.#breathe();
      form = await declaration.run(
        input,
        params as never,
        this.#context(growth, step, declaration, params, moment, wants, seed, others),
      );
      this.cache.set(key, form, input);
    }
    result.form = form;
    result.key = key;
    result.costs.push({ step: step.id, milliseconds: around.now() - started, kept });
  }

  /**
   * A timed step may look at its values at other frames: then what drives them is part of the key, and where that is
   * a formula, everything that it may look at.
   */
  #timeOf(growth: Growth, step: Step): unknown[] {
    const { fps, range } = this.scene;
    const formulas = Object.values(step.params).some((value) => isFormula(baseOf(value)));
    return [fps, ...range, step.params, formulas ? growth.steps.map(({ params }) => params) : 0];
  }

  #context(
    growth: Growth,
    step: Step,
    declaration: StepDeclaration,
    params: Resolved,
    moment: Moment,
    wants: Wants,
    seed: number,
    others: ReadonlyMap<string, GrowthResult>,
  ): StepContext {
    return {
      frame: moment.frame - growth.shift,
      sceneFrame: moment.frame,
      fps: this.scene.fps,
      range: this.scene.range,
      seed,
      wants,
      claim: (kind, amount, lower) => this.#claim(kind, amount, lower),
      numberAt: (param, at) => {
        const base = baseOf(step.params[param]);
        if (!isTrack(base) && !isFormula(base)) return params[param] as number;
        return new GrowthValues(growth, this.scene, at, moment.drive).one(declaration, step, param) as number;
      },
      varies: (param) => isVaried(step.params[param]),
      plain: (param) => params[param] as number,
      varied: (param) => {
        const spec = declaration.params[param] as NumberParam;
        const value = step.params[param];
        const channel = 16 + Object.keys(declaration.params).indexOf(param);
        return variedNumber(
          params[param] as number,
          isVaried(value) ? value.vary : null,
          [spec.min, spec.max],
          seed,
          channel,
        );
      },
      asset: (id) => this.#asset(id),
      places: (guide) => {
        const found = this.#guide(guide);
        if (found) return [found.position];
        const { paths } = otherForm(others, guide.slice(TIP.length));
        return paths ? tipsOf(paths).map(({ position }) => position) : [];
      },
      guide: (guide) => this.#guide(guide),
      other: (id) => otherForm(others, id),
      item: async (id) => {
        const item = await this.result(id, { ...moment, frame: this.scene.range[1] });
        return otherForm(new Map(item && [[id, item]]), id);
      },
      breathe: () => this.#breathe(),
    };
  }

  #values(growth: Growth, { frame, drive }: Moment): GrowthValues {
    return new GrowthValues(growth, this.scene, frame - growth.shift, drive);
  }

  #guide(guide: string): Guide | null {
    if (guide.startsWith(TIP)) return null;
    const found = this.scene.guides.find(({ id }) => guide === `guide:${id}`);
    if (!found) throw new Problem('The guide that it refers to is not in this scene.', 'Choose another guide.');
    return found;
  }

  #claim(kind: keyof Pick<Budgets, 'points' | 'faces' | 'copies'>, amount: number, lower: string): void {
    const limit = this.budgets[kind];
    if (amount <= limit) return;
    const [wanted, allowed] = [amount, limit].map((n) => Math.round(n).toLocaleString('en-GB'));
    throw new Problem(`This would make ${wanted} ${kind}; the limit is ${allowed}.`, `Lower ${lower}.`);
  }

  async #asset(id: string): Promise<Uint8Array> {
    if (id === REEF_SOUND) return reefWav();
    if (id.startsWith('shipped:')) {
      const shipped = this.around.shipped;
      if (!shipped) throw new Problem('Files that come with Uvrex are not within reach here.', 'Load a file instead.');
      return shipped(id.slice('shipped:'.length));
    }
    const asset = this.scene.assets.find((entry) => entry.id === id);
    if (!asset) throw new Problem('Its file is not in this scene.', 'Load the file again.');
    return bytesOfAsset(asset);
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

function otherForm(others: ReadonlyMap<string, GrowthResult>, id: string): Form {
  const other = others.get(id);
  if (!other) throw new Problem('The growth that it refers to is not in this scene.', 'Choose another growth.');
  if (!other.form) throw new Problem('The growth that it refers to has a problem of its own.', 'Mend that one first.');
  return other.form;
}

/** Before the growth whose tips a guide parameter stands for. */
const TIP = 'tip:';

/** The guides that a step refers to, as they stand in the scene. */
const guidesOf = (declaration: StepDeclaration, params: Resolved, scene: Scene): unknown[] =>
  Object.entries(declaration.params).flatMap(([name, spec]) =>
    spec.type === 'guide' ? (scene.guides.find(({ id }) => `guide:${id}` === params[name]) ?? []) : [],
  );

/** What a step lacks, in words; null where it has what it takes. */
function missingFor({ takes, takesOne }: StepDeclaration, there: readonly FormKind[]): string | null {
  const missing = takes.filter((kind) => !there.includes(kind));
  if (missing.length > 0) return missing.join(' and ');
  return takesOne && !takesOne.some((kind) => there.includes(kind)) ? takesOne.join(' or ') : null;
}

/** Decoded files, by the entry that holds them: a file is read at many frames. */
const decoded = new WeakMap<Asset, Uint8Array>();

function bytesOfAsset(asset: Asset): Uint8Array {
  let bytes = decoded.get(asset);
  if (!bytes) decoded.set(asset, (bytes = base64Bytes(asset.data)));
  return bytes;
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
