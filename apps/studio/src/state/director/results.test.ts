import { newGrowth, newScene, newStep, type Scene } from '@uvrex/core';
import { EngineLost } from '@/worker/engine';
import type { FramePayload, GrowthPayload } from '@/worker/protocol';
import { edit, openScene } from '../document/document';
import { isCurrent, startDirector, useResults, wholeOf } from './results';
import { setView } from '../document/view';
import { shownPath } from './testing';

/** An engine that answers when the test says so. */
class FakeEngine {
  static current: FakeEngine;
  /** Engines in the background. */
  static others: FakeEngine[] = [];
  /** What the next one that is made is for: the director's own comes first. */
  static next: 'hand' | 'helper' = 'hand';
  asked: number[] = [];
  forgotten: string[] = [];
  cancelled = 0;
  /** Evaluations that took too long. */
  cut = 0;
  loaded: Scene[] = [];
  stage = null;
  #answer: ((payload: FramePayload | null) => void) | null = null;
  #fail: ((error: Error) => void) | null = null;

  constructor(readonly restarted: () => void) {
    if (FakeEngine.next === 'hand') FakeEngine.current = this;
    else FakeEngine.others.push(this);
    FakeEngine.next = 'helper';
  }
  load(scene: Scene): void {
    this.loaded.push(scene);
  }
  evaluate(frame: number, limit?: number): Promise<FramePayload | null> {
    this.asked.push(frame);
    return new Promise((answer, fail) => {
      if (limit)
        setTimeout(() => {
          if (answer !== this.#answer) return;
          this.cut++;
          answer(null);
        }, limit);
      this.#answer = answer;
      this.#fail = fail;
    });
  }
  cancel(): void {
    this.cancelled++;
    this.#answer?.(null);
  }
  forget(keys: string[]): void {
    this.forgotten.push(...keys);
  }
  dispose(): void {}

  /** Answers the running request. */
  async answer(growths: Partial<GrowthPayload>[], items: FramePayload['items'] = [], wait = 200): Promise<void> {
    const full = growths.map((growth): GrowthPayload => ({
      id: 'g',
      key: 'k',
      share: 0.5,
      length: 1,
      notices: [],
      costs: [],
      counts: { points: 2, faces: 0, copies: 0 },
      bounds: null,
      size: null,
      whole: null,
      ahead: [],
      failed: false,
      items: [],
      shown: something(),
      ...growth,
    }));
    this.#answer?.({ frame: this.asked.at(-1)!, milliseconds: 1, growths: full, items });
    await settle(wait);
  }
  async lose(stage: { growth: string; step: string } | null): Promise<void> {
    this.restarted();
    this.#fail?.(new EngineLost(stage));
    await settle();
  }
}

jest.mock('@/worker/engine', () => ({
  EngineLost: class EngineLost extends Error {
    constructor(readonly stage: unknown) {
      super();
    }
  },
  get Engine() {
    return FakeEngine;
  },
}));

let helpers = 0;
jest.mock('./device', () => ({
  deviceRoom: () => ({ helpers, cacheBytes: 2 ** 28, pictureBytes: 2 ** 29 }),
}));

const something = () => shownPath(6);

/** Lets promises and the short timers of the background run. */
const settle = async (milliseconds = 200): Promise<void> => {
  for (let i = 0; i < 6; i++) await Promise.resolve();
  jest.advanceTimersByTime(milliseconds);
  for (let i = 0; i < 6; i++) await Promise.resolve();
};

let stop: () => void;
const engine = () => FakeEngine.current;

beforeEach(async () => {
  jest.useFakeTimers();
  helpers = 0;
  await begin();
});

async function begin(): Promise<void> {
  FakeEngine.others = [];
  FakeEngine.next = 'hand';
  const scene = newScene('Reef');
  scene.range = [1, 5];
  scene.growths = [{ ...newGrowth('Stem', 0, [newStep('line')]), id: 'g' }];
  openScene('test', scene);
  setView({ frame: 3, ahead: true });
  stop = startDirector();
  await settle();
}
afterEach(() => {
  stop();
  jest.useRealTimers();
});

test('asks for the frame at the playhead first, then for the rest of the range from there on and round', async () => {
  for (const key of ['3', '4', '5', '1', '2']) await engine().answer([{ key }]);
  expect(engine().asked).toEqual([3, 4, 5, 1, 2]);
  expect(useResults.getState().ready.size).toBe(5);
  expect([...useResults.getState().shares.get('g')!]).toEqual([0.5, 0.5, 0.5, 0.5, 0.5]);
});

test('what is measured anew and comes out the same is the same list again: its band is not drawn anew', async () => {
  for (const key of ['3', '4', '5', '1', '2']) await engine().answer([{ key }]);
  const before = useResults.getState().shares.get('g')!;
  edit('Size', (scene) => void (scene.growths[0].steps[0].params.toY = 1.4));
  await settle();
  expect(useResults.getState().ready.size).toBe(0);
  for (let k = 0; k < 12 && useResults.getState().ready.size < 5; k++) await engine().answer([{ key: `later ${k}` }]);
  expect(useResults.getState().ready.size).toBe(5);
  expect(useResults.getState().shares.get('g')).toBe(before);
});

test('where frames are not made ahead, only those shown are asked for; asked to, it makes the others too', async () => {
  setView({ ahead: false });
  await engine().answer([{ key: 'three' }]);
  await settle();
  expect(engine().asked).toEqual([3]);
  setView({ frame: 5 });
  await settle();
  await engine().answer([{ key: 'five' }]);
  await settle();
  expect(engine().asked).toEqual([3, 5]);
  setView({ ahead: true });
  await settle();
  for (const key of ['1', '2', '4']) await engine().answer([{ key }]);
  expect(engine().asked).toEqual([3, 5, 1, 2, 4]);
  expect(useResults.getState().ready.size).toBe(5);
});

test('only the frame at the playhead goes on screen; a frame that is ready is shown without asking again', async () => {
  await engine().answer([{ key: 'three' }]);
  await engine().answer([{ key: 'four' }]);
  expect(useResults.getState().record!.frame).toBe(3);
  setView({ frame: 4 });
  await settle();
  expect(useResults.getState().onScreen.map(({ key }) => key)).toEqual(['four']);
  expect(engine().asked.filter((frame) => frame === 4)).toHaveLength(1);
});

test('a change of the scene gives up what is at work and asks anew; a change of its light does not', async () => {
  await engine().answer([{ key: 'a' }]);
  const { asked } = engine();
  edit('Light', (scene) => void (scene.light.turn = 90));
  await settle();
  expect(engine().cancelled).toBe(0);
  edit('Seed', (scene) => void (scene.seed = 1));
  await settle();
  expect(engine().cancelled).toBe(1);
  expect(asked.at(-1)).toBe(3);
  expect(useResults.getState().ready.size).toBe(0);
});

test('of changes that follow one another each picture that was at work is finished and shown, and none is taken for the last', async () => {
  await engine().answer([{ key: 'before' }]);
  const seeds = async (seed: number): Promise<void> => {
    edit('Seed', (scene) => void (scene.seed = seed));
    for (let i = 0; i < 6; i++) await Promise.resolve();
    jest.advanceTimersByTime(40);
  };
  await seeds(1);
  const { cancelled } = engine();
  await seeds(2);
  await seeds(3);
  expect(engine().cancelled).toBe(cancelled);
  await engine().answer([{ key: 'one' }]);
  expect(useResults.getState().onScreen.map(({ key }) => key)).toEqual(['one']);
  expect(useResults.getState().ready.size).toBe(0);
  expect(isCurrent()).toBe(false);
  // The next is of the scene as it is by then.
  expect(engine().loaded.at(-1)!.seed).toBe(3);
  // What takes long is given up for what is newer.
  await seeds(4);
  jest.advanceTimersByTime(380);
  await seeds(5);
  expect(engine().cancelled).toBe(cancelled + 1);
  await engine().answer([{ key: 'last' }]);
  expect(useResults.getState().ready.has(3)).toBe(true);
  expect(isCurrent()).toBe(true);
});

test('a growth that goes while its picture is on the way does not come back with it', async () => {
  await engine().answer([{ key: 'before' }]);
  edit('Seed', (scene) => void (scene.seed = 1));
  for (let i = 0; i < 6; i++) await Promise.resolve();
  edit('Hide', (scene) => void (scene.growths[0].visible = false));
  await engine().answer([{ key: 'late' }]);
  expect(useResults.getState().onScreen).toHaveLength(0);
});

test('after a failure the last good picture of the growth stays', async () => {
  await engine().answer([{ key: 'good' }]);
  edit('Seed', (scene) => void (scene.seed = 1));
  await settle();
  await engine().answer([
    {
      key: 'error:x',
      failed: true,
      shown: null,
      notices: [{ level: 'error', what: 'Too many.', advice: 'Lower it.', place: {} }],
    },
  ]);
  expect(useResults.getState().onScreen.map(({ key }) => key)).toEqual(['good']);
  expect(useResults.getState().record!.growths[0].notices[0].what).toBe('Too many.');
});

test('after a lost engine the frame is tried once more by itself, and a good picture takes the notice away', async () => {
  await engine().answer([{ key: 'good' }]);
  edit('Seed', (scene) => void (scene.seed = 2));
  await settle();
  const { length } = engine().asked;
  await engine().lose(null);
  expect(useResults.getState().lost).toMatchObject({ what: 'The engine stopped and was started again.' });
  expect(useResults.getState().lost!.advice).not.toMatch(/number/);
  await settle();
  expect(engine().asked).toHaveLength(length + 1);
  await engine().answer([{ key: 'better' }]);
  expect(useResults.getState().lost).toBeNull();
  expect(useResults.getState().onScreen.map(({ key }) => key)).toEqual(['better']);
});

test('an engine lost twice at a frame is named with its step and not asked again until something changes', async () => {
  await engine().answer([{ key: 'good' }]);
  edit('Seed', (scene) => void (scene.seed = 2));
  await settle();
  const [growth] = engine().loaded.at(-1)!.growths;
  await engine().lose({ growth: 'g', step: growth.steps[0].id });
  await settle();
  await engine().lose({ growth: 'g', step: growth.steps[0].id });
  expect(useResults.getState().lost!.what).toMatch(/in step line of “Stem”/);
  expect(useResults.getState().onScreen).toHaveLength(1);
  const { length } = engine().asked;
  await settle();
  expect(engine().asked).toHaveLength(length);
  setView({ frame: 2 });
  await settle();
  expect(engine().asked.at(-1)).toBe(2);
});

test('a key that the engine takes for held and the screen has dropped is asked for again', async () => {
  await engine().answer([{ key: 'unknown', shown: null }]);
  expect(engine().forgotten).toEqual(['unknown']);
  expect(engine().asked).toEqual([3, 3]);
});

test('a hidden growth leaves the screen at once', async () => {
  await engine().answer([{ key: 'a' }]);
  edit('Hide', (scene) => void (scene.growths[0].visible = false));
  expect(useResults.getState().onScreen).toHaveLength(0);
});

test('items of copies are held by key; a frame whose item is not there is asked for again', async () => {
  await engine().answer([{ key: 'chain', items: ['item:link'] }], [{ key: 'item:link', shown: something() }]);
  expect(useResults.getState().onScreen[0].items.has('item:link')).toBe(true);
  const asked = engine().asked.length;
  setView({ frame: 9 });
  await settle();
  await engine().answer([{ key: 'chain 2', items: ['item:lost'] }]);
  expect(engine().forgotten).toContain('item:lost');
  expect(engine().asked.length).toBeGreaterThan(asked);
});

describe('what takes long after a change', () => {
  const frill = newStep('frill', { piece: 0.02 });
  const costs = (milliseconds: number) => [{ step: frill.id, milliseconds, kept: false }];
  const raise = (height: number): boolean =>
    edit('Height', (scene) => void (scene.growths[0].steps[0].params.height = height));
  const pieceAsked = (): unknown => engine().loaded.at(-1)!.growths[0].steps[0].params.piece;
  beforeEach(() => setView({ ahead: false }));

  async function opened(milliseconds: number): Promise<void> {
    edit('Frill', (scene) => void (scene.growths[0].steps = [frill]));
    await settle(1000);
    await engine().answer([{ key: 'first', costs: costs(milliseconds) }]);
    await settle(1000);
  }

  test('is given up and shown coarsely first, then whole', async () => {
    await opened(900);
    raise(0.7);
    await settle(100);
    expect([engine().cut, pieceAsked()]).toEqual([0, 0.02]);
    await settle(60);
    expect(engine().cut).toBe(1);
    expect(pieceAsked()).toBeCloseTo(0.06, 9);
    await engine().answer([{ key: 'coarse', costs: costs(60) }]);
    expect(useResults.getState().record!.coarse).toBe(true);
    expect(useResults.getState().onScreen.map(({ key }) => key)).toEqual(['coarse']);
    expect([isCurrent(), useResults.getState().ready.size]).toEqual([false, 0]);
    expect(pieceAsked()).toBe(0.02);
    await engine().answer([{ key: 'whole', costs: costs(900) }]);
    expect([useResults.getState().record!.coarse, isCurrent()]).toEqual([false, true]);
  });

  test('is shown coarsely all along a drag, and whole when that has come to rest', async () => {
    await opened(900);
    raise(0.5);
    await settle(160);
    for (const height of [0.52, 0.54, 0.56]) {
      raise(height);
      await settle(20);
      expect(pieceAsked()).toBeCloseTo(0.06, 9);
      await engine().answer([{ key: `coarse ${height}`, costs: costs(60) }], [], 30);
    }
    expect(engine().loaded.at(-1)!.growths[0].steps[0].params.height).toBe(0.56);
    await engine().answer([{ key: 'last', costs: costs(60) }], [], 10);
    expect(pieceAsked()).toBeCloseTo(0.06, 9);
    await settle(300);
    expect(pieceAsked()).toBe(0.02);
    // Whoever goes on does not wait for the whole.
    const { cancelled } = engine();
    raise(0.58);
    await settle(0);
    expect(engine().cancelled).toBe(cancelled + 1);
    expect(pieceAsked()).toBeCloseTo(0.06, 9);
  });

  test('is waited for where no step is known to be slow, and at first', async () => {
    edit('Frill', (scene) => void (scene.growths[0].steps = [frill]));
    await settle(1000);
    await settle(5000);
    await engine().answer([{ key: 'first', costs: costs(20) }]);
    raise(0.7);
    await settle(5000);
    expect([engine().cut, pieceAsked()]).toEqual([0, 0.02]);
  });

  test('stays whole while it plays', async () => {
    await opened(900);
    setView({ playing: true });
    await settle(0);
    raise(0.7);
    await settle(1000);
    expect([engine().cut, pieceAsked()]).toEqual([0, 0.02]);
    setView({ playing: false });
  });
});

test('what is framed is the box round all frames that are known, of what is shown, or of one growth', async () => {
  const box = (x: number) => ({
    min: [x, 0, 0] as [number, number, number],
    max: [x + 1, 1, 1] as [number, number, number],
  });
  for (const key of ['3', '4', '5', '1', '2']) await engine().answer([{ key, whole: box(Number(key)) }]);
  expect(wholeOf(null)).toEqual({ min: [1, 0, 0], max: [6, 1, 1] });
  // The playhead changes nothing in it.
  setView({ frame: 1 });
  await settle();
  expect(wholeOf(null)).toEqual({ min: [1, 0, 0], max: [6, 1, 1] });
  expect(wholeOf('g')).toEqual(wholeOf(null));
  expect(wholeOf('other')).toBeNull();
  edit('Hide', (scene) => void (scene.growths[0].visible = false));
  expect(wholeOf(null)).toBeNull();
});

test('with room for more engines the others make what is ahead, and the interactive one is free', async () => {
  stop();
  helpers = 2;
  await begin();
  expect(engine().asked).toEqual([3]);
  await engine().answer([{ key: 'at 3' }], [], 800);
  // From the playhead on and round, in one run: there are few.
  const [first] = FakeEngine.others;
  expect(first.asked).toEqual([4]);
  expect(engine().asked).toEqual([3]);
  await first.answer([{ key: 'at 4' }]);
  expect(first.asked).toEqual([4, 5]);
  expect(useResults.getState().ready).toEqual(new Set([3, 4]));
  // What is ready is shown without asking anybody.
  setView({ frame: 4 });
  await settle();
  expect(useResults.getState().record?.frame).toBe(4);
  expect(engine().asked).toEqual([3]);
  edit('Longer', (scene) => void (scene.growths[0].steps[0].params.toY = 5));
  await settle(0);
  expect(first.cancelled).toBe(1);
  expect(useResults.getState().ready.size).toBe(0);
  expect(engine().asked).toEqual([3, 4]);
});

test('frames ahead go on when only the light changes while one is made, by either kind of engine', async () => {
  const brighter = (): boolean => edit('Light', (scene) => void (scene.light.strength = 2));
  await engine().answer([{ key: 'at 3' }], [], 800);
  expect(engine().asked.at(-1)).toBe(4);
  brighter();
  await engine().answer([{ key: 'at 4' }], [], 800);
  expect(engine().asked.at(-1)).toBe(4);
  expect(engine().asked).toHaveLength(3);
  stop();
  helpers = 1;
  await begin();
  await engine().answer([{ key: 'at 3' }], [], 800);
  const [helper] = FakeEngine.others;
  expect(helper.asked).toEqual([4]);
  brighter();
  await helper.answer([{ key: 'at 4' }]);
  expect(helper.asked).toEqual([4, 5]);
});
