import type { Scene } from '@uvrex/core';
import { Engine } from '@/worker/engine';
import type { FramePayload } from '@/worker/protocol';

/** Consecutive frames that one engine evaluates: what they share is computed, and sent, once. */
const RUN = 6;

interface Helper {
  engine: Engine;
  /** The scene that it holds. */
  loaded: Scene | null;
  running: boolean;
}

export interface AheadHooks {
  /** Frames of the range that are missing, the next to be shown first. */
  missing(): number[];
  scene(): Scene;
  /** Takes a frame; false where nothing is gained by more of them. */
  take(payload: FramePayload, scene: Scene, engine: Engine): boolean;
}

/**
 * Evaluates frames ahead of the playhead in background engines, so that the interactive engine is idle when an edit comes. Frames are
 * dealt in runs. A frame with which an engine crashed is left to the interactive engine, which reports the error.
 */
export class FramesAhead {
  readonly #helpers: Helper[] = [];
  /** Frames that are being evaluated, and those with which an engine crashed. */
  readonly #dealt = new Set<number>();
  readonly #lost = new Set<number>();
  /** Incremented on cancellation: results of earlier rounds are dropped. */
  #round = 0;
  #wanted = false;
  #disposed = false;

  /** @param size engines at most @param cacheBytes what each of them keeps */
  constructor(
    readonly size: number,
    readonly cacheBytes: number,
    readonly hooks: AheadHooks,
  ) {}

  /** Deals missing frames to all idle engines, which are created at the first call. */
  start(): void {
    this.#wanted = true;
    if (this.#disposed || !this.#due()) return;
    while (this.#helpers.length < this.size) {
      const helper: Helper = {
        engine: new Engine(() => (helper.loaded = null), this.cacheBytes),
        loaded: null,
        running: false,
      };
      this.#helpers.push(helper);
    }
    for (const helper of this.#helpers) if (!helper.running) void this.#work(helper);
  }

  /** Cancels all evaluations. */
  cancel(): void {
    this.#wanted = false;
    this.#round++;
    this.#dealt.clear();
    this.#lost.clear();
    for (const { engine, running } of this.#helpers) if (running) engine.cancel();
  }

  /** Keys of which the page no longer holds what came. */
  forget(keys: string[]): void {
    for (const { engine } of this.#helpers) engine.forget(keys);
  }

  dispose(): void {
    this.#disposed = true;
    this.#round++;
    for (const { engine } of this.#helpers) engine.dispose();
  }

  /** The frames that come next and are not being made yet, as many as make a run. */
  #due(): number[] | null {
    const free = this.hooks.missing().filter((frame) => !this.#dealt.has(frame) && !this.#lost.has(frame));
    return free.length > 0 ? free.slice(0, RUN) : null;
  }

  async #work(helper: Helper): Promise<void> {
    const round = this.#round;
    helper.running = true;
    try {
      for (let run = this.#due(); run && round === this.#round; run = this.#due())
        if (!(await this.#make(helper, run, round))) return;
    } finally {
      helper.running = false;
    }
    // `start` was called again before the cancellation was answered.
    if (round !== this.#round && this.#wanted) this.start();
  }

  /** @returns whether more are wanted */
  async #make(helper: Helper, run: readonly number[], round: number): Promise<boolean> {
    for (const frame of run) this.#dealt.add(frame);
    try {
      for (const frame of run) {
        const scene = this.hooks.scene();
        if (helper.loaded !== scene) {
          helper.engine.load(scene);
          helper.loaded = scene;
        }
        const payload = await helper.engine.evaluate(frame).catch(() => undefined);
        if (round !== this.#round) return true;
        if (payload === undefined) this.#lost.add(frame);
        if (payload && !this.hooks.take(payload, scene, helper.engine)) return false;
        if (!payload) break;
      }
    } finally {
      if (round === this.#round) for (const frame of run) this.#dealt.delete(frame);
    }
    return true;
  }
}
