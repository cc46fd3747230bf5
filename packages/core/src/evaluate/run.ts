import { grownShare } from '../curves/pathFrames';
import { hash } from '../fields/random';
import { copiesOfSeats, countCopies, joinCopies, type ShownItem } from '../geometry/copies';
import type { Drives } from '../geometry/drives';
import { emptyForm, type Form, type FormKind, kindsOf } from '../geometry/form';
import { holesOf, measuresOf, roomOf } from '../geometry/measures';
import { momentsOf, type SeatMoment, type SeatMoments, type Seats } from '../geometry/seats';
import { Cancelled, Problem } from '../problem';
import type { Growth, Scene, Step } from '../scene/schema';
import { GrowthValues } from '../scene/values';
import type { StepDeclaration, Want, Wants } from '../steps/declare';
import { SceneValues } from '../scene/look';
import { runnableOf } from '../scene/owners';
import type { Budgets } from './budgets';
import type { FormCache } from './cache';
import { type Place, RecordedContext } from './context';
import { digest } from '../digests/digest';
import { type NamedParams, paramsAt } from './fixedParams';
import type { KnownNodes } from './growthMemo';
import { periodOf } from './period';
import type { Plan } from './plan';
import type { GrowthResult, Notice, StepCost, Surroundings, Wanted } from './results';
import type { Outcome, Traces } from './traces';
import { wantsAge } from './wants';

/** Milliseconds of work after which waiting messages are let in. */
const SLICE = 12;

/** What a growth is looked at as. */
export interface Moment {
  /** Frame of the scene. */
  frame: number;
  /** Which of its variants a copy shows: 0 is the growth as it is, others have randomness of their own. */
  variant: number;
  /** What its formulas know as `drive`, `drive2` and `drive3`, 0..1. */
  drives: Drives;
}

/** A growth after some of its steps, at a moment: named at once, made when it is wanted. */
export interface Node extends Outcome {
  /** Why there is no form. */
  failed: Notice | null;
  notices: readonly Notice[];
  costs: readonly StepCost[];
  /** @throws Problem where a step fails after all */
  form: () => Promise<Form>;
}

/** What is told of a growth's form without the form. */
const TELLS = { measures: measuresOf, room: roomOf, holes: holesOf } satisfies Record<string, (form: Form) => unknown>;
export type Telling = keyof typeof TELLS;

/** What is kept from one evaluation to the next. */
export interface Memory {
  forms: FormCache;
  traces: Traces;
  nodes: KnownNodes;
  /** Moments that seats show, by the key of the seats and the periods of what they show. */
  moments: Map<string, readonly SeatMoment[]>;
  /** What has been told of forms, as JSON, by what it is and their keys. */
  told: Map<string, string>;
}

const EMPTY_KEY = digest('empty');
/** Lists of moments that are remembered. */
const MOST_MOMENTS = 2000;
/** Tellings that are remembered: some megabytes. */
const MOST_TOLD = 20_000;

/** Moments of seats that are still at hand, by the periods that they were worked out for. */
const dealt = new WeakMap<Seats, { name: string; moments: SeatMoments }>();

/** One evaluation. What it comes to is found node by node (growth, step, moment), each once. */
export class Run {
  #lastPause: number;
  readonly #nodes = new Map<string, Promise<Node>>();
  readonly #values = new Map<string, GrowthValues>();
  readonly #sceneValues = new Map<number, SceneValues>();
  readonly #wants = new Map<string, Wants>();

  constructor(
    readonly scene: Scene,
    readonly plan: Plan,
    readonly wanted: Wanted,
    readonly around: Surroundings,
    readonly budgets: Budgets,
    readonly memory: Memory,
  ) {
    this.#lastPause = around.now();
  }

  /** A growth at a moment, with its form. */
  async result(growth: Growth, moment: Moment): Promise<GrowthResult> {
    const node = await this.node(growth.id, moment);
    const failure = (notice: Notice): GrowthResult => ({
      id: growth.id,
      key: `error:${notice.place.step ?? 'copies'}`,
      form: null,
      share: null,
      notices: [...node.notices, notice],
      costs: [...node.costs],
    });
    if (node.failed) return failure(node.failed);
    try {
      const form = await node.form();
      this.memory.forms.show(node.key);
      const share = grownShare(form.paths);
      return { id: growth.id, key: node.key, form, share, notices: [...node.notices], costs: [...node.costs] };
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      return failure(noticeOf(error, error.place.step ? error.place : { growth: growth.id }));
    }
  }

  /** A growth after all its steps, its copies made. @throws Problem where the scene has none of that id */
  node(id: string, moment: Moment): Promise<Node> {
    const growth = this.plan.byId.get(id);
    if (!growth)
      return Promise.reject(
        new Problem('The growth that it refers to is not in this scene.', 'Choose another growth.'),
      );
    const circle = this.plan.circles.get(id);
    if (circle) return Promise.resolve(circleNode(growth, circle));
    const name = momentName(moment);
    return this.#once(`${id}|all|${name}`, () =>
      this.#remembered(this.memory.nodes.stateOf(this.scene, this.plan, id), name, async () =>
        this.#withCopies(growth, await this.prefix(growth, growth.steps.length, moment), moment),
      ),
    );
  }

  /** What is known of a node where nothing has changed that it hangs on; else it is made, and known from then on. */
  async #remembered(state: number | null, moment: string, make: () => Promise<Node>): Promise<Node> {
    const { nodes, forms } = this.memory;
    const known = state === null ? undefined : nodes.get(state, moment);
    if (known) return { ...known, failed: null, form: once(async () => forms.get(known.key) ?? (await make()).form()) };
    const node = await make();
    if (state !== null && !node.failed) nodes.put(state, moment, node);
    return node;
  }

  /** A growth after its first `count` steps. */
  prefix(growth: Growth, count: number, moment: Moment): Promise<Node> {
    if (count === 0) return Promise.resolve(EMPTY);
    const name = momentName(moment);
    return this.#once(`${growth.id}|${count}|${name}`, () =>
      this.#remembered(this.memory.nodes.stateAfter(this.scene, this.plan, growth, count), name, async () =>
        this.#after(growth, count - 1, await this.prefix(growth, count - 1, moment), moment),
      ),
    );
  }

  #once(name: string, make: () => Promise<Node>): Promise<Node> {
    let node = this.#nodes.get(name);
    if (!node) this.#nodes.set(name, (node = make()));
    return node;
  }

  /** What a step makes of what comes before it. */
  async #after(growth: Growth, index: number, before: Node, moment: Moment): Promise<Node> {
    const step = growth.steps[index];
    const declaration = step.on ? runnableOf(step.kind) : undefined;
    if (before.failed || !declaration) return before;
    const place = { growth: growth.id, step: step.id };
    const missing = missingFor(declaration, before.kinds);
    if (missing) {
      const what = `${declaration.label} needs ${missing}, and there is none before it.`;
      const advice = 'Drag it below a step that makes one.';
      return { ...before, notices: [...before.notices, { level: 'skipped', what, advice, place }] };
    }
    try {
      const { params, name } = this.#params(growth, step, declaration, moment);
      return await this.#step({ growth, step, index, declaration, moment, params }, name, before);
    } catch (error) {
      return { ...before, failed: noticeOf(problemOf(error, declaration), place) };
    }
  }

  /** Names what a step comes to, by what it read when it last began so; runs it where that is not known. */
  async #step(place: Place, params: string, before: Node): Promise<Node> {
    const { step, declaration } = place;
    const { forms, traces } = this.memory;
    const begin = digest(`${params} ${before.key}`);
    const cost: StepCost = { step: step.id, milliseconds: 0, kept: true };
    const run = async (): Promise<{ outcome: Outcome; form: Form }> => {
      this.around.stage?.(place.growth, step);
      await this.yieldNow();
      const input = await before.form();
      const started = this.around.now();
      const context = new RecordedContext(this, place);
      const form = await declaration.run(input, place.params as never, context);
      const key = digest(JSON.stringify([begin, context.reads]));
      const outcome: Outcome = { key, kinds: kindsOf(form), shows: form.seats?.growths ?? [], notes: context.notes };
      traces.put(begin, context.reads, outcome);
      forms.set(key, form);
      cost.kept = false;
      cost.milliseconds += this.around.now() - started;
      return { outcome, form };
    };
    const asker = new RecordedContext(this, place);
    const known = await traces.find(begin, (question) => asker.answer(question));
    const common = ({ notes }: Outcome): Pick<Node, 'failed' | 'notices' | 'costs'> => ({
      failed: null,
      notices: [
        ...before.notices,
        ...notes.map((note): Notice => ({ level: 'note', ...note, place: { growth: place.growth.id, step: step.id } })),
      ],
      costs: [...before.costs, cost],
    });
    if (known) {
      const remake = async (): Promise<Form> => {
        try {
          return (await run()).form;
        } catch (error) {
          const problem = problemOf(error, declaration);
          throw new Problem(problem.message, problem.advice, {
            ...problem.place,
            growth: place.growth.id,
            step: step.id,
          });
        }
      };
      return { ...known, ...common(known), form: once(async () => forms.get(known.key) ?? remake()) };
    }
    const { outcome, form } = await run();
    return { ...outcome, ...common(outcome), form: () => Promise.resolve(form) };
  }

  /** Turns seats into copies: each shows its growth at a moment of its own. */
  async #withCopies(growth: Growth, node: Node, moment: Moment): Promise<Node> {
    if (node.failed || node.shows.length === 0) return node;
    const fail = (error: unknown): Node => {
      if (!(error instanceof Problem)) throw error;
      return { ...node, failed: noticeOf(error, { growth: growth.id }) };
    };
    try {
      const moments = await this.#moments(node);
      const items: Node[] = [];
      for (const { growth: id, late, variant, drives } of moments) {
        if (items.length % 64 === 0) await this.yieldNow();
        // A variant of what is itself inside a variant is one of its own.
        const inner = moment.variant === 0 ? variant : hash(moment.variant, variant);
        items.push(await this.#item(id, { frame: moment.frame - late, variant: inner, drives }));
      }
      const key = digest(JSON.stringify([node.key, moments.map((one) => one.growth), items.map((item) => item.key)]));
      return {
        ...node,
        key,
        kinds: [...new Set<FormKind>([...node.kinds, 'copies'])],
        shows: [],
        form: once(() => this.#copies(key, node, items)),
      };
    } catch (error) {
      return fail(error);
    }
  }

  async #item(id: string, moment: Moment): Promise<Node> {
    const found = this.plan.byId.get(id);
    if (!found) throw new Problem('A growth to be copied is not in this scene.', 'Choose another item.');
    const item = await this.node(id, moment);
    if (item.failed)
      throw new Problem(`“${found.name}”, which is copied, has a problem: ${item.failed.what}`, 'Mend that one first.');
    return item;
  }

  /** Which moments of which growths the seats show. */
  async #moments(node: Node): Promise<readonly SeatMoment[]> {
    const periods = node.shows.map((id) => periodOf(this.plan, id));
    const { moments } = this.memory;
    const name = `${node.key} ${periods.join(' ')}`;
    let list = moments.get(name);
    if (!list) {
      list = this.#dealt((await node.form()).seats!, periods).list;
      if (moments.size > MOST_MOMENTS) moments.clear();
      moments.set(name, list);
    }
    return list;
  }

  /** Moments of seats, worked out once while they are at hand. */
  #dealt(seats: Seats, periods: readonly number[]): SeatMoments {
    const name = periods.join(' ');
    const known = dealt.get(seats);
    if (known?.name === name) return known.moments;
    const moments = momentsOf(seats, (id) => periodOf(this.plan, id));
    dealt.set(seats, { name, moments });
    return moments;
  }

  /** What is told of a form, as JSON; worked out once for each. */
  async told(what: Telling, node: Node): Promise<string> {
    const { told } = this.memory;
    const name = `${what} ${node.key}`;
    let known = told.get(name);
    if (known === undefined) {
      known = JSON.stringify(TELLS[what](await node.form()));
      if (told.size > MOST_TOLD) told.clear();
      told.set(name, known);
    }
    return known;
  }

  async #copies(key: string, node: Node, items: readonly Node[]): Promise<Form> {
    const kept = this.memory.forms.get(key);
    if (kept) return kept;
    const form = await node.form();
    const seats = form.seats!;
    const { group } = this.#dealt(
      seats,
      node.shows.map((id) => periodOf(this.plan, id)),
    );
    const shown: ShownItem[] = [];
    for (const item of items) shown.push({ form: await item.form(), key: item.key });
    this.claim('copies', countCopies(group, shown), 'the number of copies, or what their items hold');
    await this.yieldNow();
    const copies = copiesOfSeats(seats, group, shown);
    const made = { ...form, seats: null, copies: joinCopies(form.copies, copies) };
    this.memory.forms.set(key, made);
    return made;
  }

  #params(growth: Growth, step: Step, declaration: StepDeclaration, moment: Moment): NamedParams {
    return paramsAt(declaration, step, () => this.values(growth, moment.frame - growth.shift, moment.drives));
  }

  /** Values of a growth's numbers at one of its own frames. */
  values(growth: Growth, frame: number, drives: Drives): GrowthValues {
    const name = `${growth.id}|${frame}|${drives.join()}`;
    let values = this.#values.get(name);
    if (!values) this.#values.set(name, (values = new GrowthValues(growth, this.scene, frame, drives)));
    return values;
  }

  /** The scene's own numbers at a frame. */
  sceneValues(frame: number): SceneValues {
    let values = this.#sceneValues.get(frame);
    if (!values) this.#sceneValues.set(frame, (values = new SceneValues(this.scene, frame)));
    return values;
  }

  /**
   * What the steps of a growth want of each other, and those of growths that take its paths over. A formula that fails
   * is told when its own step runs.
   */
  wants(growth: Growth, moment: Moment): Wants {
    const name = `${growth.id}|${momentName(moment)}`;
    const known = this.#wants.get(name);
    if (known) return known;
    const wants = new Set<Want>();
    this.#wants.set(name, wants);
    for (const heir of this.plan.heirs.get(growth.id) ?? [])
      for (const want of this.wants(heir, moment)) wants.add(want);
    for (const step of growth.steps) {
      const declaration = step.on ? runnableOf(step.kind) : undefined;
      if (declaration && wantsAge(step)) wants.add('age');
      if (!declaration?.wants) continue;
      try {
        const { params } = this.#params(growth, step, declaration, moment);
        for (const want of declaration.wants(params as never)) wants.add(want);
      } catch (error) {
        if (!(error instanceof Problem)) throw error;
      }
    }
    return wants;
  }

  claim(kind: keyof Pick<Budgets, 'points' | 'faces' | 'copies'>, amount: number, lower: string): void {
    const limit = this.budgets[kind];
    if (amount <= limit) return;
    const [wanted, allowed] = [amount, limit].map((n) => Math.round(n).toLocaleString('en-GB'));
    throw new Problem(`This would make ${wanted} ${kind}; the limit is ${allowed}.`, `Lower ${lower}.`);
  }

  async yieldNow(): Promise<void> {
    const now = this.around.now();
    if (now - this.#lastPause > SLICE) {
      await this.around.pause?.();
      this.#lastPause = this.around.now();
    }
    if (this.wanted.aborted) throw new Cancelled();
  }
}

const momentName = ({ frame, variant, drives }: Moment): string => `${frame}|${variant}|${drives.join()}`;

const EMPTY: Node = {
  key: EMPTY_KEY,
  kinds: [],
  shows: [],
  notes: [],
  failed: null,
  notices: [],
  costs: [],
  form: () => Promise.resolve(emptyForm()),
};

function circleNode(growth: Growth, names: readonly string[]): Node {
  const problem = new Problem(
    `Growths refer to each other in a circle: ${names.join(' → ')}.`,
    'Let one of them refer to another growth, or switch that step off.',
  );
  return { ...EMPTY, failed: noticeOf(problem, { growth: growth.id }) };
}

/** Makes something when it is first asked for, and only then. */
function once<T>(make: () => Promise<T>): () => Promise<T> {
  let made: Promise<T> | null = null;
  return () => (made ??= make());
}

const noticeOf = (problem: Problem, place: Notice['place']): Notice => ({
  level: 'error',
  what: problem.message,
  advice: problem.advice,
  place: problem.place.text ? { ...place, text: problem.place.text } : place,
});

/** What a step lacks, in words; null where it has what it takes. */
function missingFor({ takes, takesOne }: StepDeclaration, there: readonly FormKind[]): string | null {
  const missing = takes.filter((kind) => !there.includes(kind));
  if (missing.length > 0) return missing.join(' and ');
  return takesOne && !takesOne.some((kind) => there.includes(kind)) ? takesOne.join(' or ') : null;
}

/** What a step threw, as a problem for people. @throws Cancelled again */
function problemOf(error: unknown, declaration: StepDeclaration): Problem {
  if (error instanceof Cancelled) throw error;
  if (error instanceof Problem) return error;
  const reason =
    error instanceof RangeError ? 'it asked for more memory than there is' : String((error as Error)?.message ?? error);
  return new Problem(`${declaration.label} failed: ${reason}.`, 'Lower its numbers, or switch it off.');
}
