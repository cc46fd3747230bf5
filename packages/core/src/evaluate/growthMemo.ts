import { baseOf, type Growth, isFormula, type Scene, type Step } from '../scene/schema';
import type { Plan } from './plan';
import { references } from '../scene/references';
import type { Notice, StepCost } from './results';
import type { Outcome } from './traces';
import { standingWants } from './wants';

/** A growth after some of its steps at a moment: what it came to, without its form. */
export interface KnownNode extends Outcome {
  notices: readonly Notice[];
  costs: readonly StepCost[];
}

/** Nodes by the state of their growth, and then by their moment. */
type Generation = Map<number, Map<string, KnownNode>>;

/** Lists of steps that cost nothing, each made once: hundreds of moments of a growth have the same one. */
class CostLists {
  readonly #longer = new WeakMap<readonly StepCost[], Map<string, readonly StepCost[]>>();
  readonly #empty: readonly StepCost[] = [];

  /** The same steps, of which nothing has to be done. */
  kept(costs: readonly StepCost[]): readonly StepCost[] {
    let list = this.#empty;
    for (const { step } of costs) {
      let known = this.#longer.get(list);
      if (!known) this.#longer.set(list, (known = new Map()));
      let longer = known.get(step);
      if (!longer) known.set(step, (longer = [...list, { step, milliseconds: 0, kept: true }]));
      list = longer;
    }
    return list;
  }
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
  #young: Generation = new Map();
  #old: Generation = new Map();
  /** Nodes in the young one. */
  #size = 0;
  #costs = new CostLists();
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
    const found = this.#young.get(state)?.get(moment);
    if (found) return found;
    const old = this.#old.get(state)?.get(moment);
    // What is used again lives on.
    if (old) this.#add(state, moment, old);
    return old;
  }

  /** Remembers a node: all but its form, and that it costs nothing the next time. */
  put(state: number, moment: string, { key, kinds, shows, notes, notices, costs }: KnownNode): void {
    if (this.#size >= MOST) {
      this.#old = this.#young;
      this.#young = new Map();
      this.#size = 0;
      this.#costs = new CostLists();
    }
    this.#add(state, moment, { key, kinds, shows, notes, notices, costs: this.#costs.kept(costs) });
  }

  #add(state: number, moment: string, node: KnownNode): void {
    let moments = this.#young.get(state);
    if (!moments) this.#young.set(state, (moments = new Map()));
    moments.set(moment, node);
    this.#size++;
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
