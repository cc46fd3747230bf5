import { grownShare } from '../curves/pathFrames';
import { hash } from '../fields/random';
import { copiesOfSeats, countCopies, joinCopies, type ShownItem } from '../geometry/copies';
import { emptyForm, type FormKind, kindsOf } from '../geometry/form';
import { momentsOf } from '../geometry/seats';
import { Cancelled, Problem } from '../problem';
import { baseOf, type Growth, isFormula, isTrack, isVaried, type Scene, type Step } from '../scene/schema';
import { GrowthValues } from '../scene/values';
import { variedNumber } from '../scene/vary';
import {
  type NumberParam,
  type Resolved,
  type StepContext,
  type StepDeclaration,
  type Want,
  type Wants,
} from '../steps/declare';
import { stepOf } from '../steps/index';
import { type Budgets } from './budgets';
import { type FormCache } from './cache';
import { digest } from './digest';
import { keepsCourse, periodOf } from './period';
import { type Plan, referencedBy } from './plan';
import { assetBytes, guideOf, guidesOf, otherForm, tipPlaces } from './reach';
import { type GrowthResult, type Notice, type Surroundings, type Wanted } from './results';

/** Milliseconds of work after which waiting messages are let in. */
const SLICE = 12;

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
export interface Moment {
  /** Frame of the scene. */
  frame: number;
  /** Which of its variants a copy shows: 0 is the growth as it is, others have randomness of their own. */
  variant: number;
  /** What its formulas know as `drive`, 0..1. */
  drive: number;
}

/** One evaluation. Growths that others refer to are evaluated when they are asked for, once for each moment. */
export class Run {
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
    const steady = declaration.family === 'place' && keepsCourse(this.plan, growth, step);
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
        steady,
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
    const { plan } = this;
    return {
      frame: moment.frame - growth.shift,
      sceneFrame: moment.frame,
      fps: this.scene.fps,
      range: this.scene.range,
      seed,
      wants,
      get steady() {
        return keepsCourse(plan, growth, step);
      },
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
      asset: (id) => assetBytes(this.scene, this.around, id),
      places: (guide) => {
        const found = guideOf(this.scene, guide);
        return found ? [found.position] : tipPlaces(others, guide);
      },
      guide: (guide) => guideOf(this.scene, guide),
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

  #claim(kind: keyof Pick<Budgets, 'points' | 'faces' | 'copies'>, amount: number, lower: string): void {
    const limit = this.budgets[kind];
    if (amount <= limit) return;
    const [wanted, allowed] = [amount, limit].map((n) => Math.round(n).toLocaleString('en-GB'));
    throw new Problem(`This would make ${wanted} ${kind}; the limit is ${allowed}.`, `Lower ${lower}.`);
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

/** What a step lacks, in words; null where it has what it takes. */
function missingFor({ takes, takesOne }: StepDeclaration, there: readonly FormKind[]): string | null {
  const missing = takes.filter((kind) => !there.includes(kind));
  if (missing.length > 0) return missing.join(' and ');
  return takesOne && !takesOne.some((kind) => there.includes(kind)) ? takesOne.join(' or ') : null;
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
