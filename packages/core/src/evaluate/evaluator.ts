import { fileBytes } from './reach';
import { UNDRIVEN } from '../geometry/drives';
import { withoutGroups } from '../scene/groups';
import type { Scene } from '../scene/schema';
import { type Budgets, DEFAULT_BUDGETS } from './budgets';
import { FormCache } from './cache';
import { KnownNodes } from './growthMemo';
import { type Plan, planOf } from './plan';
import type { FrameResult, GrowthResult, Surroundings, Wanted } from './results';
import { type Memory, Run } from './run';
import { Traces } from './traces';

/**
 * Evaluates scenes frame by frame. The result is a pure function of scene and frame; what was computed is kept under what
 * it was made from and all that was read on the way, so that only changes are computed.
 */
export class Evaluator {
  readonly #around: Surroundings;
  readonly #budgets: Budgets;
  readonly #memory: Memory;
  #scene: Scene | null = null;
  readonly #plans = new WeakMap<Scene, Plan>();

  constructor(around: Surroundings) {
    this.#around = around;
    this.#budgets = { ...DEFAULT_BUDGETS, ...around.budgets };
    this.#memory = {
      forms: new FormCache(this.#budgets.cacheBytes),
      traces: new Traces(),
      nodes: new KnownNodes(),
      moments: new Map(),
      told: new Map(),
    };
  }

  /** Bytes of results kept. */
  get keptBytes(): number {
    return this.#memory.forms.bytes;
  }

  /** Sets how many bytes of results are kept, and drops what is past them. */
  keepAtMost(bytes: number): void {
    this.#memory.forms.resize(bytes);
  }

  /** Bytes of a file, as steps of a scene name it. @throws Problem where it is not within reach */
  bytesOf(scene: Scene, file: string): Promise<Uint8Array> {
    return fileBytes(scene, this.#around, file);
  }

  /**
   * @param frame any number, fractional ones too
   * @param only ids of the growths wanted (what they refer to is evaluated too); all visible ones when left out
   * @throws Cancelled when `wanted` turns; every other problem is a notice on the growth it concerns
   */
  async evaluate(
    given: Scene,
    frame: number,
    wanted: Wanted = { aborted: false },
    only?: ReadonlySet<string>,
  ): Promise<FrameResult> {
    const started = this.#around.now();
    const scene = withoutGroups(given);
    const run = new Run(scene, this.#plan(scene), wanted, this.#around, this.#budgets, this.#memory);
    this.#memory.forms.begin(scene !== this.#scene);
    this.#scene = scene;
    const shown = scene.growths.filter((growth) => (only ? only.has(growth.id) : growth.visible));
    const growths: GrowthResult[] = [];
    for (const growth of shown) growths.push(await run.result(growth, { frame, variant: 0, drives: UNDRIVEN }));
    return { frame, growths, milliseconds: this.#around.now() - started };
  }

  /** The plan of a scene, made once: a scene is not changed while it is evaluated. */
  #plan(scene: Scene): Plan {
    let plan = this.#plans.get(scene);
    if (!plan) this.#plans.set(scene, (plan = planOf(scene)));
    return plan;
  }
}
