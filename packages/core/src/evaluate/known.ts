import { type Growth, type Scene } from '../scene/schema';
import { type Plan } from './plan';
import { type Notice, type StepCost } from './results';
import { type Outcome } from './traces';

/** A growth after all its steps at a moment: what it came to, without its form. */
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
  readonly #byPlan = new WeakMap<Plan, Map<string, number | null>>();

  /**
   * A number for all that a growth hangs on: itself, the growths that it refers to or that take it over, and the scene's own. The
   * same number is the same objects; null where any of it may still change.
   */
  stateOf(scene: Scene, plan: Plan, id: string): number | null {
    let known = this.#byPlan.get(plan);
    if (!known) this.#byPlan.set(plan, (known = new Map()));
    let state = known.get(id);
    if (state === undefined) known.set(id, (state = this.#numbered(scene, plan, id)));
    return state;
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

  #numbered(scene: Scene, plan: Plan, id: string): number | null {
    const parts: string[] = [];
    for (const [name, value] of Object.entries(scene)) {
      if (APART.has(name)) continue;
      const part = typeof value === 'object' && value !== null ? frozenNumber(value) : String(value);
      if (part === null) return null;
      parts.push(String(part));
    }
    const related = [id];
    for (let k = 0; k < related.length; k++) {
      const growth = plan.byId.get(related[k]);
      const number = growth ? numberOfGrowth(growth) : -1;
      if (number === null) return null;
      parts.push(`${related[k]} ${number}`);
      const others = [
        ...(plan.references.get(related[k]) ?? []),
        ...(plan.heirs.get(related[k]) ?? []).map((heir) => heir.id),
      ];
      for (const other of others) if (!related.includes(other)) related.push(other);
    }
    const name = parts.join('|');
    let state = this.#states.get(name);
    if (state === undefined) {
      if (this.#states.size >= MOST_STATES) this.#states.clear();
      this.#states.set(name, (state = this.#next++));
    }
    return state;
  }
}

const frozenNumber = (value: object): number | null => (Object.isFrozen(value) ? numberOf(value) : null);

/** A growth may be made anew round steps that cannot change, with its place as the last of them. */
const numberOfGrowth = (growth: Growth): number | null =>
  growth.steps.every((step) => Object.isFrozen(step) && Object.isFrozen(step.params)) ? numberOf(growth) : null;
