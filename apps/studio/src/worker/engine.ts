import * as Comlink from 'comlink';
import type { GeometryFormatId } from '@uvrex/formats';
import type { Scene, Seam, Sheet, Trail, TrailTarget } from '@uvrex/core';
import { takeWorker } from './preloadEngine';
import { type Crossing, Receiver } from './columns';
import type { EngineApi, EngineNews, FitReport, FramePayload, Shown } from './protocol';

/** Where the worker was when it was last heard of. */
export interface Stage {
  growth: string;
  step: string;
}

/** Thrown to whoever waits when the worker has died or fallen silent. */
export class EngineLost extends Error {
  /**
   * @param stage the step that was running; null where none was
   * @param dead no worker takes its place: several in a row have not said a word
   * @param silence how long it was silent before it was ended, milliseconds; null where it ended by itself
   */
  constructor(
    readonly stage: Stage | null,
    readonly dead = false,
    readonly silence: number | null = null,
  ) {
    super(dead ? 'The engine does not start.' : 'The engine stopped and was started again.');
  }
}

/** Silence after which a working engine is asked for a sign of life, and then as long again until it counts as lost, milliseconds. */
const SILENCE = 8000;
/** How often that is looked at. Where this takes longer the page itself stood still, and the worker with it. */
const WATCH = 500;
/** Workers in a row that die without a word before no other is started. */
const TRIES = 4;
/** Milliseconds before the next of them, longer each time. */
const DELAY = 300;

/**
 * The engine as the page sees it: one worker, one evaluation at a time. A crash or endless silence ends the worker; a
 * new one takes its place with the scene loaded, and the evaluation that was lost is told which step it was in.
 */
export class Engine {
  #worker: Worker | null = null;
  #api: Comlink.Remote<EngineApi> | null = null;
  #received = new Receiver();
  #scene: Scene | null = null;
  #ticket = 0;
  #stage: Stage | null = null;
  #heard = 0;
  /** Workers in a row that have not said a word. */
  #dumb = 0;
  #disposed = false;
  #starting: ReturnType<typeof setTimeout> | null = null;
  /** Whoever waits: told of a loss, or that nothing more will come. */
  readonly #waiting = new Set<{ lost: (error: EngineLost) => void; over: () => void }>();
  readonly #restarted: () => void;
  /** Told how far a check is, 0..1. */
  onProgress: (share: number) => void = () => {};

  /**
   * @param restarted told when a new worker has taken over: it holds nothing yet
   * @param cacheBytes of results that it keeps; as many as the core has by default where it is left out
   */
  constructor(
    restarted: () => void = () => {},
    readonly cacheBytes?: number,
  ) {
    this.#restarted = restarted;
    this.#start();
  }

  /** The step at work, or last at work. */
  get stage(): Stage | null {
    return this.#stage;
  }

  load(scene: Scene): void {
    this.#scene = scene;
    void this.#api?.load(scene);
  }

  /**
   * Evaluates one frame. To be called again only after the one before has ended or was cancelled and ended.
   * @param limit milliseconds after which it gives itself up
   * @returns null when cancelled or given up, or when the engine was disposed of
   * @throws EngineLost
   */
  async evaluate(frame: number, limit?: number): Promise<FramePayload | null> {
    const sent = await this.#run((api, ticket) => api.evaluate(ticket, frame, limit));
    if (!sent) return null;
    const take = (key: string, shown: Crossing<Shown>): Shown => this.#received.take<Shown>(key, shown);
    try {
      return {
        ...sent,
        growths: sent.growths.map(({ shown, ...growth }) => ({
          ...growth,
          shown: shown && take(growth.key, shown),
        })),
        items: sent.items.map(({ key, shown }) => ({ key, shown: take(key, shown) })),
      };
    } catch {
      // Both sides no longer hold the same, as after an answer that broke off half made: they begin anew.
      this.#lose();
      throw new EngineLost(this.#stage);
    }
  }

  /** What a frame is, or adds, in a format of geometry, under the same rules. */
  file(frame: number, format: GeometryFormatId): Promise<Uint8Array | null> {
    return this.#run((api, ticket) => api.file(ticket, frame, format));
  }

  /** Measures how the range closes, under the same rules. */
  seam(): Promise<Seam | null> {
    return this.#run((api, ticket) => api.seam(ticket));
  }

  /** Looks for the shortest range that closes; gives its last frame. */
  loop(): Promise<{ end: number | null } | null> {
    return this.#run((api, ticket) => api.loop(ticket));
  }

  /** Measures how copies go together at a frame, under the same rules. */
  fit(frame: number): Promise<FitReport[] | null> {
    return this.#run((api, ticket) => api.fit(ticket, frame));
  }

  /** Follows a point over the range, under the same rules. */
  trail(target: TrailTarget): Promise<Trail | null> {
    return this.#run((api, ticket) => api.trail(ticket, target));
  }

  /** What the form of a growth knows at a frame, under the same rules. */
  sheets(frame: number, growth: string): Promise<{ key: string; sheets: Sheet[] } | null> {
    return this.#run((api, ticket) => api.sheets(ticket, frame, growth));
  }

  async #run<T>(work: (api: Comlink.Remote<EngineApi>, ticket: number) => Promise<T | null>): Promise<T | null> {
    if (this.#disposed) return null;
    const api = this.#api;
    if (!api) throw new EngineLost(null, this.#starting === null);
    const ticket = ++this.#ticket;
    this.#heard = performance.now();
    this.#stage = null;
    let waiter: { lost: (error: EngineLost) => void; over: () => void };
    const ended = new Promise<null>((over, lost) => {
      waiter = { lost, over: () => over(null) };
      this.#waiting.add(waiter);
    });
    let asked = false;
    let watched = performance.now();
    const watch = setInterval(() => {
      const now = performance.now();
      const stalled = now - watched - WATCH;
      watched = now;
      if (stalled > WATCH) this.#heard += stalled;
      const silence = now - this.#heard;
      if (silence < SILENCE) asked = false;
      else if (!asked) {
        asked = true;
        void this.#api?.ping();
      } else if (silence > 2 * SILENCE) this.#lose(silence);
    }, WATCH);
    try {
      return await Promise.race([work(api, ticket), ended]);
    } finally {
      this.#waiting.delete(waiter!);
      clearInterval(watch);
    }
  }

  /** Gives up the running evaluation. */
  cancel(): void {
    void this.#api?.cancel(this.#ticket);
  }

  /** Ends a worker that does not come back by itself; the waiting evaluation throws EngineLost. */
  abandon(): void {
    this.#lose();
  }

  /** Keys of which the page no longer holds what came: it is sent again when it is asked for. */
  forget(keys: string[]): void {
    for (const key of keys) this.#received.forget(key);
    void this.#api?.forget(keys);
  }

  /** Ends the worker; whoever waits gets null. */
  dispose(): void {
    this.#disposed = true;
    if (this.#starting) clearTimeout(this.#starting);
    this.#end();
    for (const { over } of this.#waiting) over();
  }

  #start(): void {
    this.#starting = null;
    const worker = takeWorker();
    worker.addEventListener('message', ({ data }: MessageEvent<EngineNews | object>) => {
      this.#heard = performance.now();
      this.#dumb = 0;
      if ('news' in data && data.news === 'progress') this.onProgress(data.share ?? 0);
      if ('news' in data && data.news === 'stage')
        this.#stage = data.growth && data.step ? { growth: data.growth, step: data.step } : null;
    });
    const lose = (): void => {
      if (this.#worker === worker) this.#lose();
    };
    worker.addEventListener('error', lose);
    worker.addEventListener('messageerror', lose);
    this.#worker = worker;
    // Another worker counts from the beginning.
    this.#received = new Receiver();
    this.#api = Comlink.wrap<EngineApi>(worker);
    this.#dumb++;
    if (this.cacheBytes !== undefined) void this.#api.limit(this.cacheBytes);
    if (this.#scene) void this.#api.load(this.#scene);
  }

  #end(): void {
    // Comlink holds what it has wrapped until it is told to let go.
    this.#api?.[Comlink.releaseProxy]();
    this.#worker?.terminate();
    this.#api = null;
    this.#worker = null;
  }

  #lose(silence: number | null = null): void {
    if (this.#disposed || !this.#worker) return;
    this.#end();
    const { stage } = this;
    const dead = this.#dumb >= TRIES;
    if (this.#dumb === 0) this.#start();
    else if (!dead)
      this.#starting = setTimeout(
        () => {
          this.#start();
          this.#restarted();
        },
        DELAY * 2 ** this.#dumb,
      );
    this.#restarted();
    for (const { lost } of [...this.#waiting]) lost(new EngineLost(stage, dead, silence));
  }
}
