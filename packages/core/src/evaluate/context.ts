import { tipsOf } from '../curves/tips';
import type { Form } from '../geometry/form';
import type { Measures } from '../geometry/measures';
import type { Corners, Vec3 } from '../geometry/vec';
import { Problem } from '../problem';
import type { Guide } from '../scene/owners';
import { baseOf, type Growth, isFormula, isTrack, isVaried, type Step } from '../scene/schema';
import { constantAt } from '../scene/values';
import { variedNumber } from '../scene/vary';
import type { VariedNumber } from '../geometry/element';
import { hash } from '../fields/random';
import type { GrowthParam, NumberParam, Resolved, StepContext, StepDeclaration, Want } from '../steps/declare';
import { digestOf } from '../digests/digest';
import { keepsCourse } from './period';
import { fileBytes, guideOf, TIP } from './reach';
import type { Moment, Node, Run, Telling } from './run';
import type { Fix, Note, Read } from './traces';

/** A step's own input at the last frame of the scene, which is the same whatever frame is asked for. */
const LAST = 'last';

/** A step within one evaluation: which it is, at which moment, with which numbers. */
export interface Place {
  growth: Growth;
  step: Step;
  /** How many steps stand before it. */
  index: number;
  declaration: StepDeclaration;
  moment: Moment;
  params: Resolved;
}

/**
 * All that a step can learn besides its input and its parameters at this frame. It answers by questions, and whatever a run
 * has asked is part of the key of what it makes: a step cannot read what its key does not hold.
 */
export class RecordedContext implements StepContext {
  /** What has been read, in order, each once. */
  readonly reads: Read[] = [];
  /** What the step has told of what it makes. */
  readonly notes: Note[] = [];
  readonly #asked = new Map<string, string>();
  /** Numbers that have been read at other frames: some are asked for hundreds of times. */
  readonly #courses = new Set<string>();

  constructor(
    readonly run: Run,
    readonly place: Place,
  ) {}

  // What steps may ask, each through `#read`.

  tell(what: string, advice: string, fix?: Fix): void {
    this.notes.push({ what, advice, ...(fix && { fix }) });
  }

  get frame(): number {
    return Number(this.#read('frame'));
  }

  get sceneFrame(): number {
    return Number(this.#read('scene frame'));
  }

  get fps(): number {
    return Number(this.#read('fps'));
  }

  get range(): readonly [number, number] {
    const [first, last] = this.#read('range').split(' ');
    return [Number(first), Number(last)];
  }

  get seed(): number {
    return Number(this.#read('seed'));
  }

  get steady(): boolean {
    return this.#read('steady') === 'true';
  }

  wanted(want: Want): boolean {
    return this.#read(`wanted ${want}`) === 'true';
  }

  numberAt(param: string, at: number): number {
    const { growth, step, declaration, moment, params } = this.place;
    const base = baseOf(step.params[param]);
    if (!isTrack(base) && !isFormula(base)) return params[param] as number;
    if (!this.#courses.has(param)) {
      this.#read(`course ${param}`);
      this.#courses.add(param);
    }
    if (!isFormula(base)) return constantAt(declaration.params[param], base, at) as number;
    return this.run.values(growth, at, moment.drives).one(declaration, step, param) as number;
  }

  varies(param: string): boolean {
    return this.#read(`vary ${param}`) !== '';
  }

  plain(param: string): number {
    return this.place.params[param] as number;
  }

  varied(param: string): VariedNumber {
    const { declaration, step, params } = this.place;
    const spec = declaration.params[param] as NumberParam;
    const value = step.params[param];
    this.#read(`vary ${param}`);
    const vary = isVaried(value) ? value.vary : null;
    const random = vary?.by === 'random' || vary?.by === 'noise';
    const channel = 16 + Object.keys(declaration.params).indexOf(param);
    return variedNumber(params[param] as number, vary, [spec.min, spec.max], random ? this.seed : 0, channel);
  }

  file(id: string): Promise<Uint8Array> {
    // Its id is the hash of its bytes, and a parameter: what it holds is in the key.
    return fileBytes(this.run.scene, this.run.around, id);
  }

  guide(param: string): Guide | null {
    const { params } = this.place;
    const guide = guideOf(this.run.sceneValues(this.place.moment.frame), String(params[param]));
    if (guide) this.#read(`guide ${param}`);
    return guide;
  }

  async places(param: string): Promise<Vec3[]> {
    const found = this.guide(param);
    if (found) return [found.position];
    const { paths } = await this.#readForm(`tips ${param}`);
    return paths ? tipsOf(paths).map(({ position }) => position) : [];
  }

  other(param: string): Promise<Form> {
    return this.#readForm(`growth ${param}`);
  }

  async holes(param: string): Promise<(number | null)[]> {
    return JSON.parse(await this.#readAnswer(`holes ${param}`)) as (number | null)[];
  }

  async measures(param: string): Promise<Measures | null> {
    return JSON.parse(await this.#readAnswer(`measures ${param}`)) as Measures | null;
  }

  async room(id: string): Promise<Corners | null> {
    return JSON.parse(await this.#readAnswer(`room ${id}`)) as Corners | null;
  }

  inputAt(frame: number): Promise<Form> {
    return this.#readForm(`input ${frame}`);
  }

  inputBefore(frames: number): Promise<Form> {
    return this.#readForm(`before ${frames}`);
  }

  otherAt(param: string, sceneFrame: number | typeof LAST): Promise<Form> {
    return this.#readForm(`moment ${sceneFrame} ${param}`);
  }

  inputAtLast(): Promise<Form> {
    return this.#readForm(`input ${LAST}`);
  }

  // Steps hand these two on.
  readonly claim: StepContext['claim'] = (kind, amount, lower) => this.run.claim(kind, amount, lower);
  readonly yieldNow: StepContext['yieldNow'] = () => this.run.yieldNow();

  // How questions are answered, when they are first asked and whenever a result is looked up.

  /** The answer as things are now; undefined where there is none. */
  answer(question: string): string | undefined | Promise<string | undefined> {
    const { place, run } = this;
    const [what, name] = split(question);
    switch (what) {
      case 'growth':
      case 'tips':
      case 'input':
      case 'before':
      case 'moment':
        return this.#node(what, name).then((node) => (node.failed ? undefined : node.key));
      case 'measures':
      case 'room':
      case 'holes':
        return this.#node(what, name).then((node) => (node.failed ? undefined : run.told(what, node)));
      case 'frame':
        return String(place.moment.frame - place.growth.shift);
      case 'scene frame':
        return String(place.moment.frame);
      case 'fps':
        return String(run.scene.fps);
      case 'range':
        return run.scene.range.join(' ');
      case 'seed':
        return String(hash(run.scene.seed, place.growth.seed, stepNumber(place.step.id), place.moment.variant));
      case 'steady':
        return String(keepsCourse(run.plan, place.growth, place.step));
      case 'wanted':
        return String(run.wants(place.growth, place.moment).has(name as Want));
      case 'vary': {
        const value = place.step.params[name];
        return isVaried(value) ? digestOf(value.vary) : '';
      }
      case 'course':
        return this.#course(name);
      case 'guide': {
        const guide = run.sceneValues(place.moment.frame).guide(String(place.params[name]).slice('guide:'.length));
        return guide ? JSON.stringify(guide) : undefined;
      }
      default:
        return undefined;
    }
  }

  /** What a number hangs on at other frames: its keys; where it is a formula, everything that formulas may look at. */
  #course(param: string): string {
    const { growth, step, moment } = this.place;
    const base = baseOf(step.params[param]);
    if (!isFormula(base)) return digestOf(base);
    const { fps, range } = this.run.scene;
    return `${digestOf(growth.steps)} ${fps} ${range.join(' ')} ${moment.drives.join()} ${step.id}`;
  }

  #read(question: string): string {
    const known = this.#asked.get(question);
    if (known !== undefined) return known;
    const [what] = split(question);
    if ((what === 'frame' || what === 'scene frame' || what === 'course') && !this.place.declaration.moves)
      throw new Error(`“${this.place.step.kind}” reads time without declaring that it moves`);
    const answer = this.answer(question);
    if (typeof answer !== 'string') throw new Error(`nothing answers “${question}”`);
    this.#keep(question, answer);
    return answer;
  }

  async #readForm(question: string): Promise<Form> {
    const [what, name] = split(question);
    if ((what === 'input' || what === 'moment') && split(name)[0] !== LAST && !this.place.declaration.moves)
      throw new Error(`“${this.place.step.kind}” reads time without declaring that it moves`);
    const node = await this.#sound(what, name);
    this.#keep(question, node.key);
    return node.form();
  }

  /** What is told of a form: what reads it does not see the rest, and stays where only that changes. */
  async #readAnswer(question: string): Promise<string> {
    const known = this.#asked.get(question);
    if (known !== undefined) return known;
    const [what, name] = split(question);
    const answer = await this.run.told(what as Telling, await this.#sound(what, name));
    this.#keep(question, answer);
    return answer;
  }

  /** @throws Problem where there is none */
  async #sound(what: string, name: string): Promise<Node> {
    const node = await this.#node(what, name);
    if (!node.failed) return node;
    throw what === 'input' || what === 'before'
      ? new Problem(node.failed.what, node.failed.advice)
      : new Problem('The growth that it refers to has a problem of its own.', 'Mend that one first.');
  }

  #keep(question: string, answer: string): void {
    if (this.#asked.has(question)) return;
    this.#asked.set(question, answer);
    this.reads.push({ question, answer });
  }

  #node(what: string, name: string): Promise<Node> {
    const { growth, index, moment, declaration, params } = this.place;
    const { scene } = this.run;
    const last = { ...moment, frame: scene.range[1] };
    if (what === 'input' && name === LAST) return this.run.prefix(growth, index, last);
    if (what === 'input') return this.run.prefix(growth, index, { ...moment, frame: Number(name) + growth.shift });
    if (what === 'before') return this.run.prefix(growth, index, { ...moment, frame: moment.frame - Number(name) });
    if (what === 'moment') {
      const [frame, param] = split(name);
      return this.run.node(String(params[param]), frame === LAST ? last : { ...moment, frame: Number(frame) });
    }
    if (what === 'room') return this.run.node(name, last);
    if (what === 'tips') return this.run.node(String(params[name]).slice(TIP.length), moment);
    const still = (declaration.params[name] as GrowthParam).still ?? false;
    return this.run.node(String(params[name]), still ? last : moment);
  }
}

/** The word that says what is asked, and what it is asked of. */
function split(question: string): [what: string, name: string] {
  if (question === 'scene frame') return [question, ''];
  const space = question.indexOf(' ');
  return space < 0 ? [question, ''] : [question.slice(0, space), question.slice(space + 1)];
}

/** A number from a step's id, so that its randomness survives reordering. */
function stepNumber(id: string): number {
  let number = 0;
  for (let i = 0; i < id.length; i++) number = (Math.imul(number, 31) + id.charCodeAt(i)) | 0;
  return number;
}
