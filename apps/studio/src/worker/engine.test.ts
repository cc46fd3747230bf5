import { newScene } from '@uvrex/core';
import { Engine, EngineLost } from './engine';

/** A worker of the test's own: it can speak, fail, or say nothing at all. */
class FakeWorker {
  static all: FakeWorker[] = [];
  listeners: Record<string, ((event: unknown) => void)[]> = {};
  ended = false;
  constructor() {
    FakeWorker.all.push(this);
  }
  addEventListener(type: string, listener: (event: unknown) => void): void {
    (this.listeners[type] ??= []).push(listener);
  }
  terminate(): void {
    this.ended = true;
  }
  emit(type: string, event: unknown): void {
    for (const listener of this.listeners[type] ?? []) listener(event);
  }
}

const calls: [string, ...unknown[]][] = [];
/** What evaluations are answered with, in their order; those beyond are never answered. */
let answers: Promise<unknown>[] = [];
jest.mock('comlink', () => ({
  releaseProxy: 'release',
  wrap: () =>
    new Proxy(
      {},
      {
        get:
          (_, name: string) =>
          (...args: unknown[]) => {
            calls.push([name, ...args]);
            return name === 'evaluate' ? (answers.shift() ?? new Promise(() => undefined)) : Promise.resolve();
          },
      },
    ),
}));

beforeEach(() => {
  jest.useFakeTimers();
  FakeWorker.all = [];
  calls.length = 0;
  answers = [];
  global.Worker = FakeWorker as never;
  global.URL = class extends URL {
    constructor(path: string) {
      super(path, 'http://localhost/');
    }
  } as never;
});
afterEach(() => jest.useRealTimers());

const worker = () => FakeWorker.all.at(-1)!;

test('a crash ends the worker, starts another with the scene, and tells the step that was at work', async () => {
  const restarted = jest.fn();
  const engine = new Engine(restarted);
  engine.load(newScene('Reef'));
  const waiting = engine.evaluate(5);
  const first = worker();
  first.emit('message', { data: { news: 'stage', growth: 'g', step: 's' } });
  first.emit('error', new Error('out of memory'));
  const error = await waiting.catch((reason: unknown) => reason);
  expect(error).toBeInstanceOf(EngineLost);
  expect((error as EngineLost).stage).toEqual({ growth: 'g', step: 's' });
  expect(first.ended).toBe(true);
  expect(FakeWorker.all).toHaveLength(2);
  expect(restarted).toHaveBeenCalledTimes(1);
  expect(calls.filter(([name]) => name === 'load')).toHaveLength(2);
});

test('what an engine may keep is told to each of its workers, before the scene', () => {
  const engine = new Engine(undefined, 5000);
  engine.load(newScene('Reef'));
  worker().emit('message', { data: {} });
  worker().emit('error', new Error('out of memory'));
  expect(calls.map(([name, value]) => (name === 'limit' ? value : name))).toEqual([
    5000,
    'load',
    'release',
    5000,
    'load',
  ]);
});

test('silence counts as loss, signs of life do not', async () => {
  const engine = new Engine();
  const waiting = engine.evaluate(1).catch((reason: unknown) => reason);
  for (let i = 0; i < 20; i++) {
    await jest.advanceTimersByTimeAsync(1000);
    worker().emit('message', { data: { news: 'alive' } });
  }
  expect(FakeWorker.all).toHaveLength(1);
  await jest.advanceTimersByTimeAsync(10_000);
  expect(calls.filter(([name]) => name === 'ping')).toHaveLength(1);
  expect(FakeWorker.all).toHaveLength(1);
  await jest.advanceTimersByTimeAsync(10_000);
  const lost = (await waiting) as EngineLost;
  expect(lost).toBeInstanceOf(EngineLost);
  expect(lost.silence).toBeGreaterThan(16_000);
  expect(FakeWorker.all).toHaveLength(2);
});

test('a worker that answers when it is asked goes on, and so does one whose page stood still itself', async () => {
  const engine = new Engine();
  void engine.evaluate(1).catch(() => undefined);
  await jest.advanceTimersByTimeAsync(9000);
  worker().emit('message', { data: { type: 'answer' } });
  await jest.advanceTimersByTimeAsync(9000);
  expect(FakeWorker.all).toHaveLength(1);
  worker().emit('message', { data: { type: 'answer' } });
  // The whole machine paused: the clock has gone on, and no timer has come.
  const now = performance.now();
  const clock = jest.spyOn(performance, 'now').mockImplementation(() => now + 60_000);
  jest.advanceTimersByTime(500);
  clock.mockRestore();
  expect(FakeWorker.all).toHaveLength(1);
});

test('a worker that never says a word is started again a few times, later each time, and then no more', async () => {
  const engine = new Engine();
  engine.load(newScene('Reef'));
  const outcomes: unknown[] = [];
  for (let i = 0; i < 40; i++) {
    void engine.evaluate(1).catch((error: EngineLost) => outcomes.push(error.dead));
    worker().emit('error', new Error('it cannot be loaded'));
    await jest.advanceTimersByTimeAsync(1000);
  }
  expect(FakeWorker.all).toHaveLength(4);
  expect(FakeWorker.all.every(({ ended }) => ended)).toBe(true);
  expect(outcomes.slice(0, 3)).toEqual([false, false, false]);
  expect(outcomes.at(-1)).toBe(true);
});

test('a worker that has spoken is followed by another at once, however often', async () => {
  const engine = new Engine();
  for (let i = 0; i < 20; i++) {
    void engine.evaluate(1).catch(() => undefined);
    worker().emit('message', { data: { news: 'alive' } });
    worker().emit('error', new Error('out of memory'));
  }
  expect(FakeWorker.all).toHaveLength(21);
});

test('two requests at a time are watched each by itself, and nothing is left when they end', async () => {
  const engine = new Engine();
  const both = [engine.evaluate(1), engine.evaluate(2)].map((one) => one.catch((reason: unknown) => reason));
  await jest.advanceTimersByTimeAsync(20_000);
  expect((await Promise.all(both)).every((reason) => reason instanceof EngineLost)).toBe(true);
  expect(jest.getTimerCount()).toBeLessThanOrEqual(1);
});

test('disposing lets go of the worker and of whoever waits', async () => {
  const engine = new Engine();
  const waiting = engine.evaluate(1);
  engine.dispose();
  expect(await waiting).toBeNull();
  expect(calls).toContainEqual(['release']);
  expect(worker().ended).toBe(true);
  expect(jest.getTimerCount()).toBe(0);
  expect(await engine.evaluate(2)).toBeNull();
});

test('what is cancelled is the request at work', () => {
  const engine = new Engine();
  void engine.evaluate(1).catch(() => undefined);
  void engine.evaluate(2).catch(() => undefined);
  engine.cancel();
  expect(calls).toEqual([
    ['evaluate', 1, 1],
    ['evaluate', 2, 2],
    ['cancel', 2],
  ]);
  engine.dispose();
  expect(worker().ended).toBe(true);
});

describe('frames arrive with all their arrays', () => {
  const faces = Uint32Array.of(0, 1, 2);
  const frame = (key: string, values: Uint32Array | null, item?: string) =>
    Promise.resolve({
      frame: 1,
      milliseconds: 1,
      growths: [{ id: 'kelp', key, shown: { mesh: { indices: { column: 0, values } } } }],
      items: item ? [{ key: item, shown: { mesh: { indices: { column: 0, values: null } } } }] : [],
    });
  const arraysOf = (payload: unknown) => {
    const { growths, items } = payload as Record<string, { shown: { mesh: { indices: Uint32Array } } }[]>;
    return [...growths, ...items].map(({ shown }) => shown.mesh.indices);
  };

  test('those of frames before, and of growths before items, too', async () => {
    const engine = new Engine();
    answers = [frame('a', faces), frame('b', null, 'bud')];
    expect(arraysOf(await engine.evaluate(1))).toEqual([faces]);
    expect(arraysOf(await engine.evaluate(2))).toEqual([faces, faces]);
    engine.forget(['a']);
    answers = [frame('c', null)];
    expect(arraysOf(await engine.evaluate(3))).toEqual([faces]);
    expect(calls.filter(([name]) => name === 'forget')).toEqual([['forget', ['a']]]);
    // What nothing holds any more is not kept.
    engine.forget(['b', 'bud', 'c']);
    const anew = Uint32Array.of(0, 1, 2);
    answers = [frame('d', anew)];
    expect(arraysOf(await engine.evaluate(4))[0]).toBe(anew);
    engine.dispose();
  });

  test('a new worker counts them from the beginning', async () => {
    const engine = new Engine();
    answers = [frame('a', faces)];
    await engine.evaluate(1);
    worker().emit('message', { data: { news: 'alive' } });
    engine.abandon();
    const others = Uint32Array.of(0, 2, 1);
    answers = [frame('a', others)];
    expect(arraysOf(await engine.evaluate(1))).toEqual([others]);
    engine.dispose();
  });

  test('where an array is missing that neither side has, another worker takes over', async () => {
    const restarted = jest.fn();
    const engine = new Engine(restarted);
    const first = worker();
    first.emit('message', { data: { news: 'alive' } });
    answers = [frame('a', null)];
    await expect(engine.evaluate(1)).rejects.toBeInstanceOf(EngineLost);
    expect(first.ended).toBe(true);
    expect(restarted).toHaveBeenCalledTimes(1);
    answers = [frame('a', faces)];
    expect(arraysOf(await engine.evaluate(1))).toEqual([faces]);
    engine.dispose();
  });
});
