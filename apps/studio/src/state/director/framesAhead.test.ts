import { newScene, type Scene } from '@uvrex/core';
import type { Engine } from '@/worker/engine';
import type { FramePayload } from '@/worker/protocol';
import { roomOf } from './device';
import { FramesAhead } from './framesAhead';

/** An engine that answers when the test says so. */
class FakeEngine {
  static all: FakeEngine[] = [];
  asked: number[] = [];
  loaded: Scene[] = [];
  forgotten: string[] = [];
  cancelled = 0;
  disposed = false;
  #end: { answer: (payload: FramePayload | null) => void; fail: (error: Error) => void } | null = null;

  constructor(
    readonly restarted: () => void,
    readonly cacheBytes: number,
  ) {
    FakeEngine.all.push(this);
  }
  load(scene: Scene): void {
    this.loaded.push(scene);
  }
  evaluate(frame: number): Promise<FramePayload | null> {
    this.asked.push(frame);
    return new Promise((answer, fail) => (this.#end = { answer, fail }));
  }
  cancel(): void {
    this.cancelled++;
  }
  forget(keys: string[]): void {
    this.forgotten.push(...keys);
  }
  dispose(): void {
    this.disposed = true;
  }
  async answer(given: 'frame' | 'given up' | 'lost' = 'frame'): Promise<void> {
    const { answer, fail } = this.#end!;
    this.#end = null;
    if (given === 'lost') fail(new Error('The engine stopped.'));
    else answer(given === 'frame' ? { frame: this.asked.at(-1)!, milliseconds: 1, growths: [], items: [] } : null);
    for (let i = 0; i < 8; i++) await Promise.resolve();
  }
}

jest.mock('@/worker/engine', () => ({
  get Engine() {
    return FakeEngine;
  },
}));

let made: Set<number>;
let from: number;
let scene: Scene;
let gains: boolean;
const range = 30;

const aheadOf = (size: number): FramesAhead =>
  new FramesAhead(size, 1000, {
    missing: () =>
      Array.from({ length: range }, (_, i) => 1 + ((from - 1 + i) % range)).filter((frame) => !made.has(frame)),
    scene: () => scene,
    take: ({ frame }) => {
      made.add(frame);
      return gains;
    },
  });
const engines = (): FakeEngine[] => FakeEngine.all;

beforeEach(() => {
  FakeEngine.all = [];
  made = new Set();
  from = 1;
  scene = newScene('Reef');
  gains = true;
});

test('frames are dealt in runs, the next to be shown first, each once, until all are there', async () => {
  const ahead = aheadOf(2);
  ahead.start();
  ahead.start();
  expect(engines().map(({ asked }) => asked)).toEqual([[1], [7]]);
  for (let k = 0; k < 5; k++) await engines()[0].answer();
  expect(engines()[0].asked).toEqual([1, 2, 3, 4, 5, 6]);
  // The playhead has gone on: what is to be shown next comes next.
  from = 20;
  await engines()[0].answer();
  expect(engines()[0].asked.at(-1)).toBe(20);
  while (made.size < range)
    for (const engine of engines()) if (engine.asked.at(-1)! && !made.has(engine.asked.at(-1)!)) await engine.answer();
  const asked = engines().flatMap((engine) => engine.asked);
  expect(asked.toSorted((a, b) => a - b)).toEqual(Array.from({ length: range }, (_, i) => i + 1));
  for (const engine of engines()) expect(engine.loaded).toEqual([scene]);
});

test('a change gives up all of them; nothing of before is taken, and all begin anew when they are started', async () => {
  const ahead = aheadOf(2);
  ahead.start();
  ahead.cancel();
  expect(engines().map(({ cancelled }) => cancelled)).toEqual([1, 1]);
  scene = newScene('Another');
  // One had its frame just then, one gave it up.
  await engines()[0].answer();
  await engines()[1].answer('given up');
  expect(made.size).toBe(0);
  expect(engines()[0].asked).toEqual([1]);
  ahead.start();
  expect(engines().map(({ asked }) => asked.at(-1))).toEqual([1, 7]);
  expect(engines()[0].loaded.at(-1)).toBe(scene);
});

test('started again before they have given up, they go on when they have', async () => {
  const ahead = aheadOf(1);
  ahead.start();
  ahead.cancel();
  ahead.start();
  expect(engines()[0].asked).toEqual([1]);
  await engines()[0].answer('given up');
  expect(engines()[0].asked).toEqual([1, 1]);
});

test('a frame with which an engine is lost is not asked again until something changes; the others are made', async () => {
  const ahead = aheadOf(1);
  ahead.start();
  await engines()[0].answer();
  engines()[0].restarted();
  await engines()[0].answer('lost');
  while (made.size < range - 1) await engines()[0].answer();
  expect(made.has(2)).toBe(false);
  expect(engines()[0].asked.filter((frame) => frame === 2)).toHaveLength(1);
  // The new worker has been given the scene.
  expect(engines()[0].loaded).toEqual([scene, scene]);
  ahead.cancel();
  ahead.start();
  expect(engines()[0].asked.at(-1)).toBe(2);
});

test('they stop where nothing is gained, and end with the scene', async () => {
  const ahead = aheadOf(2);
  gains = false;
  ahead.start();
  for (const engine of engines()) await engine.answer();
  expect(engines().map(({ asked }) => asked.length)).toEqual([1, 1]);
  ahead.forget(['k']);
  ahead.dispose();
  ahead.start();
  for (const engine of engines())
    expect(engine).toMatchObject({ forgotten: ['k'], disposed: true, cacheBytes: 1000 } satisfies Partial<
      Record<keyof FakeEngine | keyof Engine, unknown>
    >);
});

test('cores and memory are shared out: one core for the page, one for the interactive engine', () => {
  const GB = 2 ** 30;
  expect(roomOf(1, 4)).toEqual({ helpers: 0, cacheBytes: GB / 2, pictureBytes: GB / 2 });
  expect(roomOf(2, 8).helpers).toBe(0);
  expect(roomOf(4, 8)).toEqual({ helpers: 2, cacheBytes: Math.floor(GB / 3), pictureBytes: GB });
  expect(roomOf(32, 8).helpers).toBe(6);
  // What they keep together stays within the memory, and none keeps too little to be of use.
  for (const cores of [1, 2, 4, 8, 64])
    for (const memory of [0.5, 1, 2, 4, 8]) {
      const { helpers, cacheBytes } = roomOf(cores, memory);
      expect((helpers + 1) * cacheBytes).toBeLessThanOrEqual(Math.max(GB / 4, (memory * GB) / 8));
      expect(cacheBytes).toBeGreaterThanOrEqual(GB / 8);
    }
});
