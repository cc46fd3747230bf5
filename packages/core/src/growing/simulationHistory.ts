import type { YieldNow } from '../yieldNow';
/** How something goes on from one state to the next. */
export interface Course<S> {
  first: S;
  /** Makes the next state, without changing the one before. */
  next(state: S, step: number, yieldNow: YieldNow): Promise<S>;
  /** What a state takes up. */
  bytes(state: S): number;
}

/** What the kept states of a course may take up. */
const BUDGET = 96 * 2 ** 20;

/**
 * States of something that can only be made one after another, kept so that any of them is reached at once after it has been
 * made. Where they take up too much every second one is dropped, and reached again from the one before it.
 */
export class History<S extends object> {
  readonly #kept = new Map<number, S>();
  #apart = 1;
  #bytes: number;

  constructor(
    readonly course: Course<S>,
    readonly budget = BUDGET,
  ) {
    this.#kept.set(0, course.first);
    this.#bytes = course.bytes(course.first);
  }

  /** What its kept states take up. */
  get bytes(): number {
    return this.#bytes;
  }

  /** The state after so many steps. */
  async at(step: number, yieldNow: YieldNow): Promise<S> {
    let from = step - (step % this.#apart);
    while (!this.#kept.has(from)) from -= this.#apart;
    let state: S = this.#kept.get(from)!;
    while (from < step) {
      state = await this.course.next(state, from++, yieldNow);
      this.#keep(from, state);
    }
    return state;
  }

  #keep(step: number, state: S): void {
    if (step % this.#apart > 0 || this.#kept.has(step)) return;
    this.#kept.set(step, state);
    this.#bytes += this.course.bytes(state);
    while (this.#bytes > this.budget && this.#kept.size > 2) {
      this.#apart *= 2;
      for (const [at, of] of this.#kept)
        if (at % this.#apart > 0) {
          this.#kept.delete(at);
          this.#bytes -= this.course.bytes(of);
        }
    }
  }
}

/** What all histories of a kind may take up together. */
const TOGETHER = 2 * BUDGET;

/** Histories by what they were made of, those used last. */
export class Histories<S extends object> {
  readonly #known = new Map<string, History<S>>();

  async of(key: string, course: () => Promise<Course<S>>): Promise<History<S>> {
    const known = this.#known.get(key);
    this.#known.delete(key);
    const history = known ?? new History(await course());
    let bytes = [...this.#known.values()].reduce((sum, other) => sum + other.bytes, history.bytes);
    for (const [oldest, other] of this.#known) {
      if (bytes <= TOGETHER) break;
      this.#known.delete(oldest);
      bytes -= other.bytes;
    }
    this.#known.set(key, history);
    return history;
  }
}
