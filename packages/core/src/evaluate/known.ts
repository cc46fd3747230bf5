import { baseOf, type Growth, isFormula, type Scene, type Step } from '../scene/schema';
import { type Plan, references } from './plan';
import { type Notice, type StepCost } from './results';
import { type Outcome } from './traces';
import { standingWants } from './wants';

/** A growth after some of its steps at a moment: what it came to, without its form. */
export interface KnownNode extends Outcome {
  notices: readonly Notice[];
  costs: readonly StepCost[];
}

/** Nodes that are remembered in each of two generations. */
const MOST = 30_000;
/** States of growths that have numbers. */
const MOST_STATES = 5000;

/** Parts of a scene of which no step knows anything; what groups do has been written into the growths. */
const APART: ReadonlySet<string> = new Set(['growths', 'groups', 'name', 'markers'] satisfies (keyof Scene)[]);

const numbers = new WeakMap<object, number>();
let count = 0;
const numberOf = (object: object): number => {
  let number = numbers.get(object);
  if (number === undefined) numbers.set(object, (number = count++));
  return number;
};

/**
 * What growths came to at moments, as long as nothing changes that they hang on: by the very objects of the document, which
 * cannot change. Nothing has to be asked again then, which for hundreds of copies at moments of their own is most of the work.
 */
export class KnownNodes {
  #young = new Map<string, KnownNode>();
  #old = new Map<string, KnownNode>();
  readonly #states = new Map<string, number>();
  #next = 0;
  readonly #byPlan = new WeakMap<Plan, { around: string | null; states: Map<string, number | null> }>();

  /**
   * A number for all that a growth hangs on: itself, the growths that it refers to or that take it over, and the scene's own. The
   * same number is the same objects; null where any of it may still change.
   */
  stateOf(scene: Scene, plan: Plan, id: string): number | null {
    return this.#state(scene, plan, id, (parts) => this.#related(plan, [id], parts));
  }

  /** The same for a growth's first steps: those after them count by what they want of them alone. */
  stateAfter(scene: Scene, plan: Plan, growth: Growth, count: number): number | null {
    return this.#state(scene, plan, `${growth.id} ${count}`, (parts) => {
      const first = growth.steps.slice(0, count);
      const wants = standingWants(plan, growth);
      // Formulas may look at the numbers of any step; what is wanted may hang on the moment.
      if (wants === null || first.some(hasFormula)) {
        parts.push(String(count));
        return this.#related(plan, [growth.id], parts);
      }
      parts.push(`${growth.id} ${growth.seed} ${growth.shift} ${wants.join()}`);
      for (const step of first) {
        if (!standsStill(step)) return false;
        parts.push(String(numberOf(step)));
      }
      return this.#related(plan, references({ ...growth, steps: first }), parts);
    });
  }

  get(state: number, moment: string): KnownNode | undefined {
    const name = `${state} ${moment}`;
    const found = this.#young.get(name);
    if (found) return found;
    const old = this.#old.get(name);
    // What is used again lives on.
    if (old) this.#young.set(name, old);
    return old;
  }

  put(state: number, moment: string, node: KnownNode): void {
    if (this.#young.size >= MOST) {
      this.#old = this.#young;
      this.#young = new Map();
    }
    this.#young.set(`${state} ${moment}`, node);
  }

  /** The number of what `collect` gathers; it returns false where any of it may still change. */
  #state(scene: Scene, plan: Plan, name: string, collect: (parts: string[]) => boolean): number | null {
    let known = this.#byPlan.get(plan);
    if (!known) this.#byPlan.set(plan, (known = { around: around(scene), states: new Map() }));
    let state = known.states.get(name);
    if (state === undefined) {
      const parts: string[] = [];
      state = known.around !== null && collect(parts) ? this.#numbered(`${known.around}|${parts.join('|')}`) : null;
      known.states.set(name, state);
    }
    return state;
  }

  /** Adds growths and all that they hang on; false where any of it may still change. */
  #related(plan: Plan, ids: readonly string[], parts: string[]): boolean {
    const related = [...new Set(ids)];
    for (let k = 0; k < related.length; k++) {
      const growth = plan.byId.get(related[k]);
      if (growth && !growth.steps.every(standsStill)) return false;
      parts.push(`${related[k]} ${growth ? numberOf(growth) : -1}`);
      const others = [
        ...(plan.references.get(related[k]) ?? []),
        ...(plan.heirs.get(related[k]) ?? []).map((heir) => heir.id),
      ];
      for (const other of others) if (!related.includes(other)) related.push(other);
    }
    return true;
  }

  #numbered(name: string): number {
    let state = this.#states.get(name);
    if (state === undefined) {
      if (this.#states.size >= MOST_STATES) this.#states.clear();
      this.#states.set(name, (state = this.#next++));
    }
    return state;
  }
}

/** The scene's own parts by their numbers; null where one may still change. */
function around(scene: Scene): string | null {
  const parts: string[] = [];
  for (const [name, value] of Object.entries(scene)) {
    if (APART.has(name)) continue;
    const object = typeof value === 'object' && value !== null;
    if (object && !Object.isFrozen(value)) return null;
    parts.push(object ? String(numberOf(value)) : String(value));
  }
  return parts.join('|');
}

/** A growth may be made anew round steps that cannot change, with its place as the last of them. */
const standsStill = (step: Step): boolean => Object.isFrozen(step) && Object.isFrozen(step.params);

const hasFormula = (step: Step): boolean => Object.values(step.params).some((value) => isFormula(baseOf(value)));
