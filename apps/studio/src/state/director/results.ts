import { create } from 'zustand';
import { draftScene, isShown, type Notice, type Scene, type Vec3 } from '@uvrex/core';
import { Engine, EngineLost, type Stage } from '@/worker/engine';
import type { Bounds, FramePayload } from '@/worker/protocol';
import { growthIn, useDocument } from '../document/document';
import { type FrameRecord, type OnScreen, onScreenOf, wholeBounds } from './frameRecord';
import { deviceRoom } from './device';
import type { FramesAhead } from './framesAhead';
import { Geometries } from './geometries';
import { useInspection, wantedGrowth } from './inspection';
import { lostNotice } from './lostNotice';
import { measureResults } from './measureResults';
import { useView } from '../document/view';

export type { FrameRecord, OnScreen };

interface ResultsState {
  /** The evaluated frame on screen; null before the first. */
  record: FrameRecord | null;
  onScreen: OnScreen[];
  /** Frames that can be shown at once. */
  ready: ReadonlySet<number>;
  /** Share grown per growth and frame, NaN where not measured yet; kept from before a change until measured anew. */
  shares: ReadonlyMap<string, Float32Array>;
  /** Visible length per growth and frame, metres; kept in the same way. */
  lengths: ReadonlyMap<string, Float32Array>;
  /** Milliseconds since the present evaluation began; null when none runs or it is a short one. */
  busy: { since: number; stage: Stage | null } | null;
  /** What became of the engine, when it had to be restarted. */
  lost: Notice | null;
}

const noResults = (): ResultsState => ({
  record: null,
  onScreen: [],
  ready: new Set(),
  shares: new Map(),
  lengths: new Map(),
  busy: null,
  lost: null,
});

/** What the engine made of the scene. */
export const useResults = create<ResultsState>(noResults);

/** Milliseconds over which news of frames in the background is gathered. */
const TELL = 150;

/** The parts of a scene that the engine's result depends on. */
const sameResult = (a: Scene, b: Scene): boolean =>
  a.growths === b.growths &&
  a.groups === b.groups &&
  a.guides === b.guides &&
  a.files === b.files &&
  a.seed === b.seed &&
  a.fps === b.fps &&
  a.range === b.range;

/** While changes follow one another closer than so many milliseconds, frames ahead would be made for nothing. */
const CHANGING = 700;

/** Changes that follow one another within so many milliseconds are a drag, or a key that is held. */
const STREAM = 400;

/**
 * What has been at work for less than this, in milliseconds, when such a change comes is finished and shown: otherwise a scene
 * that takes longer than the time between two changes would show nothing of a drag until it ends. As long as the last one took,
 * and half as long again, within these bounds.
 */
const PATIENCE = { least: 350, most: 1500 };

/**
 * What takes longer than this after a change, in milliseconds, is first shown coarsely, where steps can be; the whole follows when
 * nothing has changed for a moment. Steps that took less than some of that are not the reason.
 */
const COARSE = { after: 150, step: 40, rest: 250 };

/** Whether all frames of the range are wanted, not only the one at the playhead: the checks go by what all of them measure. */
const wantsAll = ({ ahead, playing, checks }: { ahead: boolean; playing: boolean; checks: boolean }): boolean =>
  ahead || playing || checks;

/**
 * Keeps the screen up to date: evaluates the frame at the playhead before anything else, and the rest of the range when
 * there is time, so that it can play.
 */
class Director {
  readonly #engine: Engine;
  /** Background engines, where the device has room for them; null until they are first used. */
  #ahead: FramesAhead | null = null;
  readonly #room = deviceRoom();
  readonly #geometries: Geometries;
  readonly #records = new Map<number, FrameRecord>();
  readonly #stop: (() => void)[] = [];
  #scene: Scene;
  #loaded: Scene | null = null;
  #running = false;
  #again = false;
  #disposed = false;
  /** A frame whose evaluation lost the engine is not tried again until the scene or the playhead changes. */
  #poisoned = false;
  /** The engine was lost at the frame that is wanted, which has been tried once more. */
  #retried = false;
  #idle: ReturnType<typeof setTimeout> | null = null;
  #evaluating: number | null = null;
  /** When the scene last changed, and whether the change before it was just then. */
  #changed = -Infinity;
  #streaming = false;
  /** When the evaluation at work began, and how long the last one took that ended. */
  #since = -Infinity;
  #took = 0;
  /** The scene of which a frame was last shown whole, and what steps took for that, milliseconds. */
  #whole: Scene | null = null;
  readonly #costs = new Map<string, number>();
  /** A whole frame was given up for a coarse one: the changes that follow begin with that. */
  #coarse = false;
  /** What is at work is a coarse one. */
  #atCoarse = false;
  /** The scene of which a coarse frame is shown. */
  #coarseOf: Scene | null = null;
  #rest: ReturnType<typeof setTimeout> | null = null;
  /** Records whose readiness and measures are not published yet. */
  readonly #untold: FrameRecord[] = [];
  #teller: ReturnType<typeof setTimeout> | null = null;

  constructor() {
    this.#geometries = new Geometries(this.#room.pictureBytes);
    this.#engine = new Engine(() => {
      this.#loaded = null;
      this.#records.clear();
      useResults.setState({ ready: new Set() });
    }, this.#room.cacheBytes);
    this.#geometries.onDrop = (keys) => {
      this.#engine.forget(keys);
      this.#ahead?.forget(keys);
      this.#dropRecords(new Set(keys));
    };
    this.#scene = useDocument.getState().scene;
    this.#stop.push(
      useDocument.subscribe(({ scene }) => this.#sceneChanged(scene)),
      useView.subscribe((view, before) => {
        const same = view.frame === before.frame && wantedGrowth(view) === wantedGrowth(before);
        if (same && wantsAll(view) === wantsAll(before)) return;
        this.#poisoned = false;
        if (view.frame !== before.frame) this.#retried = false;
        if (!wantsAll(view)) this.#ahead?.cancel();
        this.#wake();
      }),
    );
    this.#wake();
  }

  dispose(): void {
    this.#disposed = true;
    for (const stop of this.#stop) stop();
    if (this.#idle) clearTimeout(this.#idle);
    if (this.#teller) clearTimeout(this.#teller);
    if (this.#rest) clearTimeout(this.#rest);
    this.#ahead?.dispose();
    this.#engine.dispose();
    useResults.setState(noResults());
    useInspection.setState({ inspected: null });
  }

  /** Gives up the evaluation at work; when it does not answer, its worker is replaced. */
  giveUp(): void {
    this.#poisoned = true;
    this.#retried = true;
    this.#engine.abandon();
  }

  #sceneChanged(scene: Scene): void {
    const before = this.#scene;
    this.#scene = scene;
    if (sameResult(before, scene)) return;
    const now = performance.now();
    this.#streaming = now - this.#changed < STREAM;
    this.#changed = now;
    this.#poisoned = false;
    this.#retried = false;
    if (this.#rest) clearTimeout(this.#rest);
    this.#ahead?.cancel();
    this.#records.clear();
    this.#untold.length = 0;
    const known = new Set(scene.growths.map(({ id }) => id));
    useResults.setState(({ shares, onScreen }) => ({
      ready: new Set(),
      lost: null,
      shares: new Map([...shares].filter(([id]) => known.has(id))),
      onScreen: onScreen.filter(({ id }) => {
        const growth = growthIn(scene, id);
        return growth && isShown(scene, growth);
      }),
    }));
    this.#wake();
  }

  #wake(): void {
    const { frame } = useView.getState();
    const record = this.#records.get(frame);
    if (record) this.#present(record);
    if (this.#running) {
      // What is at work is worth finishing only when it is the frame that is wanted, of the scene as it is or as it was a moment ago.
      this.#again = true;
      const asWanted =
        this.#loaded === this.#scene ||
        (performance.now() - this.#since < this.#patience &&
          // A whole one, when coarse ones are what can follow the changes, is not waited for.
          (this.#atCoarse || (this.#streaming && !this.#coarse)));
      if (!record && (this.#evaluating !== frame || !asWanted)) this.#engine.cancel();
      return;
    }
    void this.#run();
  }

  get #patience(): number {
    return Math.min(PATIENCE.most, Math.max(PATIENCE.least, 1.5 * this.#took));
  }

  async #run(): Promise<void> {
    this.#running = true;
    if (this.#idle) clearTimeout(this.#idle);
    try {
      do {
        this.#again = false;
        const { frame } = useView.getState();
        if (!this.#records.has(frame) && !this.#poisoned) await this.#show(frame);
        if (!this.#again && !this.#poisoned) await this.#inspect(frame);
      } while (this.#again);
    } finally {
      this.#running = false;
    }
    if (this.#disposed) return;
    const wait = Math.max(30, CHANGING - (performance.now() - this.#changed));
    this.#idle = setTimeout(() => void this.#fill(), wait);
  }

  /** Frames of the range that are not ready, from the playhead on and round; none where they are not wanted. */
  #missing(): number[] {
    if (this.#poisoned || this.#disposed || !wantsAll(useView.getState())) return [];
    const [first, last] = this.#scene.range;
    const length = last - first + 1;
    const { frame } = useView.getState();
    const start = Math.min(Math.max(Math.ceil(frame), first), last);
    return Array.from({ length }, (_, i) => first + ((start - first + i) % length)).filter(
      (next) => !this.#records.has(next),
    );
  }

  /** Loaded when it is first wanted; null where the scene has been closed meanwhile. */
  async #loadAhead(): Promise<FramesAhead | null> {
    const { FramesAhead } = await import('./framesAhead');
    if (this.#disposed) return null;
    this.#ahead ??= new FramesAhead(this.#room.helpers, this.#room.cacheBytes, {
      missing: () => this.#missing(),
      scene: () => this.#scene,
      take: (payload, scene, engine) => {
        const before = this.#records.size;
        const whole = this.#take(payload, scene, false, engine);
        // What has to be asked again, or is of a moment ago, is no sign that there is no room for it.
        return !whole || scene !== this.#scene || this.#records.size > before;
      },
    });
    return this.#ahead;
  }

  /** Evaluates missing frames: in background engines, where the device has room for them. */
  async #fill(): Promise<void> {
    if (this.#running) return;
    if (this.#room.helpers > 0) {
      (this.#ahead ?? (await this.#loadAhead()))?.start();
      return;
    }
    const [next] = this.#missing();
    if (next === undefined) return;
    this.#running = true;
    this.#again = false;
    const before = this.#records.size;
    const scene = this.#scene;
    try {
      await this.#evaluate(next, scene);
    } finally {
      this.#running = false;
    }
    if (this.#again) void this.#run();
    // A range too heavy to keep whole would chase its own tail: stop when nothing is gained.
    else if (scene !== this.#scene || this.#records.size > before) this.#idle = setTimeout(() => void this.#fill(), 0);
  }

  /** Reads what is known of the growth that is looked into, where it is not the same as before. */
  async #inspect(frame: number): Promise<void> {
    const growth = wantedGrowth();
    const record = this.#records.get(frame)?.growths.find(({ id }) => id === growth);
    const { inspected } = useInspection.getState();
    if (growth === null || !record || record.failed) {
      if (inspected && growth === null) useInspection.setState({ inspected: null });
      return;
    }
    if (inspected?.growth === growth && inspected.key === record.key) {
      if (inspected.frame !== frame) useInspection.setState({ inspected: { ...inspected, frame } });
      return;
    }
    this.#evaluating = frame;
    try {
      const found = await this.#engine.sheets(frame, growth);
      if (found && !this.#disposed) useInspection.setState({ inspected: { growth, frame, ...found } });
    } catch (error) {
      this.#poisoned = true;
      if (!this.#disposed) useResults.setState({ lost: lostNotice(this.#scene, error) });
    } finally {
      this.#evaluating = null;
    }
  }

  /** Makes the frame that is looked at: what takes long after a change coarsely first, and whole when nothing changes any more. */
  async #show(frame: number): Promise<void> {
    const scene = this.#scene;
    const coarse = this.#coarser(scene);
    if (coarse) {
      if (!this.#coarse && (await this.#evaluate(frame, scene, { limit: COARSE.after }))) return;
      if (this.#again || this.#poisoned || this.#disposed) return;
      if (await this.#evaluate(frame, coarse, { coarse: true })) this.#coarseOf = scene;
      if (this.#again || this.#poisoned || this.#disposed) return;
      const still = performance.now() - this.#changed;
      if (this.#streaming && still < COARSE.rest) {
        this.#rest = setTimeout(() => this.#wake(), COARSE.rest - still);
        return;
      }
    }
    await this.#evaluate(frame, scene);
  }

  /** The scene with the slow ones of its changed steps made coarse; null where none are, or where it has been shown so. */
  #coarser(scene: Scene): Scene | null {
    if (!this.#whole || this.#coarseOf === scene || useView.getState().playing) return null;
    return draftScene(scene, this.#whole, (step) => (this.#costs.get(step) ?? Infinity) > COARSE.step);
  }

  /**
   * Has a frame made and shows it.
   * @param scene as it is, or a coarse one in its place
   * @param how.limit milliseconds after which it is given up
   * @returns whether there was an answer
   */
  async #evaluate(frame: number, scene: Scene, how: { limit?: number; coarse?: boolean } = {}): Promise<boolean> {
    if (this.#loaded !== scene) {
      this.#engine.load(scene);
      this.#loaded = scene;
    }
    this.#evaluating = frame;
    this.#atCoarse = how.coarse ?? false;
    const since = performance.now();
    this.#since = since;
    // Work ahead of the playhead goes on quietly.
    const watch = setInterval(() => {
      if (frame === useView.getState().frame) useResults.setState({ busy: { since, stage: this.#engine.stage } });
    }, 500);
    try {
      const payload = await this.#engine.evaluate(frame, how.limit);
      if (payload) {
        this.#retried = false;
        if (useResults.getState().lost) useResults.setState({ lost: null });
        this.#took = performance.now() - since;
        if (!this.#take(payload, scene, this.#atCoarse, this.#engine)) this.#again = true;
      } else if (how.limit && performance.now() - since >= how.limit) this.#coarse = true;
      return payload !== null;
    } catch (error) {
      // The first time the frame is tried once more by itself.
      const again = error instanceof EngineLost && !error.dead && !this.#retried;
      this.#retried = true;
      if (again) this.#again = true;
      else this.#poisoned = true;
      if (!this.#disposed) useResults.setState({ lost: lostNotice(scene, error, again) });
      return false;
    } finally {
      this.#evaluating = null;
      clearInterval(watch);
      if (useResults.getState().busy) useResults.setState({ busy: null });
    }
  }

  /**
   * @param scene what it is of: where that is not the scene as it is, but of a moment ago or coarse, it is shown and not kept
   * @returns false where the engine left out what the page no longer holds: it is to be asked again
   */
  #take(payload: FramePayload, scene: Scene, coarse: boolean, engine: Engine): boolean {
    const onScreen = new Set(useResults.getState().onScreen.flatMap(({ key, items }) => [key, ...items.keys()]));
    for (const { key, shown } of payload.items) this.#geometries.add(key, shown, onScreen);
    for (const growth of payload.growths) if (growth.shown) this.#geometries.add(growth.key, growth.shown, onScreen);
    const record: FrameRecord = {
      frame: payload.frame,
      milliseconds: payload.milliseconds,
      growths: payload.growths.map(({ shown, ...rest }) => rest),
      coarse,
    };
    // The engine may still believe in a key that was dropped while its answer was on the way.
    const gone = record.growths
      .filter(({ failed }) => !failed)
      .flatMap(({ key, items }) => [key, ...items])
      .filter((key) => !this.#geometries.has(key));
    if (gone.length > 0) {
      engine.forget(gone);
      return false;
    }
    if (!coarse) {
      this.#coarse = false;
      for (const { costs } of payload.growths)
        for (const { step, milliseconds, kept } of costs) if (!kept) this.#costs.set(step, milliseconds);
    }
    if (scene !== this.#scene) {
      if (payload.frame === useView.getState().frame && !this.#disposed) this.#present(record);
      return true;
    }
    this.#whole = scene;
    this.#records.set(payload.frame, record);
    this.#untold.push(record);
    if (payload.frame === useView.getState().frame) {
      this.#tell();
      this.#present(record);
    } else this.#teller ??= setTimeout(() => this.#tell(), TELL);
    return true;
  }

  /** Publishes which frames are ready and what they measured; in batches, since the timeline draws itself anew. */
  #tell(): void {
    if (this.#teller) clearTimeout(this.#teller);
    this.#teller = null;
    const records = this.#untold.splice(0);
    if (records.length === 0) return;
    const { range } = this.#scene;
    useResults.setState(({ shares, lengths }) => ({
      ready: new Set(this.#records.keys()),
      shares: measureResults(shares, records, range, ({ share }) => share ?? 1),
      lengths: measureResults(lengths, records, range, ({ length }) => length),
    }));
  }

  #present(record: FrameRecord): void {
    useResults.setState(({ onScreen }) => ({
      record,
      onScreen: onScreenOf(record, this.#scene, this.#geometries, onScreen),
    }));
  }

  /** Whether what is shown is what the scene says now, as far as the engine can tell. */
  get current(): boolean {
    return this.#poisoned || this.#records.has(useView.getState().frame);
  }

  /** The picture of a frame that is ready; null for others. */
  pictureOf(frame: number): OnScreen[] | null {
    const record = this.#records.get(frame);
    return record ? onScreenOf(record, this.#scene, this.#geometries, []) : null;
  }

  /** Box round growths over all frames that are ready, with what has yet to grow. @param growth one of them; null for all */
  wholeOf(growth: string | null): Bounds | null {
    return wholeBounds(this.#records.values(), this.#scene, growth);
  }

  #dropRecords(keys: ReadonlySet<string>): void {
    for (const [frame, record] of this.#records) {
      if (record.growths.some(({ key, items }) => keys.has(key) || items.some((item) => keys.has(item))))
        this.#records.delete(frame);
    }
    useResults.setState({ ready: new Set(this.#records.keys()) });
  }
}

let director: Director | null = null;

/** Starts keeping the screen up to date; returns how to stop it. */
export function startDirector(): () => void {
  director = new Director();
  return () => {
    director?.dispose();
    director = null;
  };
}

/** The picture of another frame, where it is ready. */
export const pictureOf = (frame: number): OnScreen[] | null => director?.pictureOf(frame) ?? null;

/** Box round all growths that are shown, or one of them, over the range as far as it is ready; null where nothing is known. */
export const wholeOf = (growth: string | null): Bounds | null => director?.wholeOf(growth) ?? null;

/** The middle of a growth as it is shown; null where nothing of it is. */
export function middleOfGrowth(id: string): Vec3 | null {
  const bounds = useResults.getState().record?.growths.find((growth) => growth.id === id)?.bounds;
  if (!bounds) return null;
  const { min, max } = bounds;
  return [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2, (min[2] + max[2]) / 2];
}

/** Gives up the evaluation at work. */
export const giveUp = (): void => director?.giveUp();

/** Whether the picture is of the scene as it is now, at the playhead; until then another is on its way. */
export const isCurrent = (): boolean => director?.current ?? false;
