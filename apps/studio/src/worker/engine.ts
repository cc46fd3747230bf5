import * as Comlink from 'comlink';
import { type Scene, type Seam, type Trail, type TrailTarget } from '@uvrex/core';
import { type EngineApi, type EngineNews, type FitReport, type FramePayload } from './protocol';

/** Where the worker was when it was last heard of. */
export interface Stage {
  growth: string;
  step: string;
}

/** Thrown to whoever waits when the worker has died or fallen silent; a new one is up already. */
export class EngineLost extends Error {
  constructor(readonly stage: Stage | null) {
    super('The engine stopped and was started again.');
  }
}

/** Silence after which a working engine counts as lost: steps report several times a second. */
const SILENCE = 8000;

/**
 * The engine as the page sees it: one worker, one evaluation at a time. A crash or endless silence ends the worker; a
 * new one takes its place with the scene loaded, and the evaluation that was lost is told which step it was in.
 */
export class Engine {
  #worker!: Worker;
  #api!: Comlink.Remote<EngineApi>;
  #scene: Scene | null = null;
  #ticket = 0;
  #stage: Stage | null = null;
  #heard = 0;
  #fail: ((error: EngineLost) => void) | null = null;
  #watch: ReturnType<typeof setInterval> | null = null;
  readonly #restarted: () => void;
  /** Told how far a check is, 0..1. */
  onProgress: (share: number) => void = () => {};

  /** @param restarted told when a new worker has taken over: it holds nothing yet */
  constructor(restarted: () => void = () => {}) {
    this.#restarted = restarted;
    this.#start();
  }

  /** The step at work, or last at work. */
  get stage(): Stage | null {
    return this.#stage;
  }

  load(scene: Scene): void {
    const same = this.#scene?.assets === scene.assets;
    this.#scene = scene;
    void this.#api.load(same ? { ...scene, assets: [] } : scene, same);
  }

  /**
   * Evaluates one frame. To be called again only after the one before has ended or was cancelled and ended.
   * @returns null when cancelled
   * @throws EngineLost
   */
  evaluate(frame: number): Promise<FramePayload | null> {
    return this.#run((ticket) => this.#api.evaluate(ticket, frame));
  }

  /** A geometry file of one frame, under the same rules. */
  file(frame: number, format: 'glb' | 'obj'): Promise<Uint8Array | null> {
    return this.#run((ticket) => this.#api.file(ticket, frame, format));
  }

  /** Measures how the range closes, under the same rules. */
  seam(): Promise<Seam | null> {
    return this.#run((ticket) => this.#api.seam(ticket));
  }

  /** Looks for the shortest range that closes; gives its last frame. */
  loop(): Promise<{ end: number | null } | null> {
    return this.#run((ticket) => this.#api.loop(ticket));
  }

  /** Measures how copies go together at a frame, under the same rules. */
  fit(frame: number): Promise<FitReport[] | null> {
    return this.#run((ticket) => this.#api.fit(ticket, frame));
  }

  /** Follows a point over the range, under the same rules. */
  trail(target: TrailTarget): Promise<Trail | null> {
    return this.#run((ticket) => this.#api.trail(ticket, target));
  }

  async #run<T>(work: (ticket: number) => Promise<T>): Promise<T> {
    const ticket = ++this.#ticket;
    this.#heard = performance.now();
    this.#stage = null;
    const lost = new Promise<never>((_, reject) => {
      this.#fail = reject;
    });
    this.#watch = setInterval(() => {
      if (performance.now() - this.#heard > SILENCE) this.#lose();
    }, 500);
    try {
      return await Promise.race([work(ticket), lost]);
    } finally {
      this.#fail = null;
      if (this.#watch) clearInterval(this.#watch);
    }
  }

  /** Gives up the running evaluation. */
  cancel(): void {
    void this.#api.cancel(this.#ticket);
  }

  /** Ends a worker that does not come back by itself; the waiting evaluation throws EngineLost. */
  abandon(): void {
    this.#lose();
  }

  forget(keys: string[]): void {
    void this.#api.forget(keys);
  }

  dispose(): void {
    if (this.#watch) clearInterval(this.#watch);
    this.#worker.terminate();
  }

  #start(): void {
    const worker = new Worker(new URL('./engine.worker.ts', import.meta.url), { type: 'module', name: 'uvrex-engine' });
    worker.addEventListener('message', ({ data }: MessageEvent<EngineNews | object>) => {
      this.#heard = performance.now();
      if ('news' in data && data.news === 'progress') this.onProgress(data.share ?? 0);
      if ('news' in data && data.news === 'stage') this.#stage = { growth: data.growth ?? '', step: data.step ?? '' };
    });
    worker.addEventListener('error', () => this.#lose());
    worker.addEventListener('messageerror', () => this.#lose());
    this.#worker = worker;
    this.#api = Comlink.wrap<EngineApi>(worker);
    if (this.#scene) void this.#api.load(this.#scene, false);
  }

  #lose(): void {
    this.#worker.terminate();
    const { stage } = this;
    const fail = this.#fail;
    this.#start();
    this.#restarted();
    fail?.(new EngineLost(stage));
  }
}
