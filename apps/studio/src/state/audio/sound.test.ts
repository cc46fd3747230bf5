import { newGrowth, newScene, newStep, REEF_SOUND } from '@uvrex/core';
import { openScene } from '../document/document';
import { soundOf, startSound } from './sound';
import { setView } from '../document/view';

const bars = (params: Record<string, string | number | boolean>) =>
  newGrowth('Bars', 0, [newStep('line'), newStep('grow', params)]);

test('the sound is that of the first shown growth whose levels follow one', () => {
  const scene = newScene('Reef');
  expect(soundOf(scene)).toBeNull();
  scene.growths = [
    bars({ levels: 1 }),
    bars({ levels: 0, levelsBy: 'sound' }),
    bars({ levels: 0.5, levelsBy: 'sound', repeat: false }),
  ];
  expect(soundOf(scene)).toEqual({ file: REEF_SOUND, repeat: false });
  scene.growths[2].visible = false;
  expect(soundOf(scene)).toBeNull();
  scene.growths[2].visible = true;
  scene.growths[2].steps[1].on = false;
  expect(soundOf(scene)).toBeNull();
});

describe('along with the frames', () => {
  const heard: { to: unknown; from: number; loop: boolean; stopped: boolean }[] = [];
  const OUT = { name: 'loudspeakers' };
  class FakeContext {
    static now: FakeContext;
    currentTime = 0;
    destination = OUT;
    closed = false;
    constructor() {
      FakeContext.now = this;
    }
    decodeAudioData = () => Promise.resolve({ duration: 4 });
    close = () => {
      this.closed = true;
      return Promise.resolve();
    };
  }
  class FakeSource {
    own = { to: null as unknown, from: NaN, loop: false, stopped: false };
    constructor(_: unknown, { loop }: { loop: boolean }) {
      this.own.loop = loop;
      heard.push(this.own);
    }
    connect = (to: unknown) => void (this.own.to = to);
    start = (_: number, from: number) => void (this.own.from = from);
    stop = () => void (this.own.stopped = true);
  }
  const settled = () => new Promise((done) => setTimeout(done, 20));
  let stop: () => void;

  beforeEach(async () => {
    heard.length = 0;
    Object.assign(globalThis, { AudioContext: FakeContext, AudioBufferSourceNode: FakeSource });
    const scene = newScene('Reef');
    scene.growths = [bars({ levels: 0.5, levelsBy: 'sound', repeat: true })];
    openScene('sound', { ...scene, fps: 24, range: [1, 144] });
    setView({ frame: 25, playing: false, muted: false });
    stop = startSound();
    setView({ playing: true });
    await settled();
  });
  afterEach(() => stop());

  test('it is heard from the second of the frame on, and falls silent with the film', () => {
    expect(heard).toEqual([{ to: OUT, from: 1, loop: true, stopped: false }]);
    setView({ playing: false });
    expect(heard[0].stopped).toBe(true);
  });

  test('it is silent while it is switched off', async () => {
    setView({ muted: true });
    expect(heard[0].stopped).toBe(true);
    setView({ muted: false });
    await settled();
    expect(heard).toHaveLength(2);
  });

  test('it goes on by itself while it is near enough, and is set right where the film begins again or falls behind', async () => {
    FakeContext.now.currentTime = 1;
    setView({ frame: 50 });
    await settled();
    expect(heard).toHaveLength(1);
    setView({ frame: 1 });
    await settled();
    expect(heard.at(-1)).toMatchObject({ from: 0 });
    FakeContext.now.currentTime = 2;
    setView({ frame: 13 });
    await settled();
    // Half a second where a second has passed.
    expect(heard.map(({ from }) => from)).toEqual([1, 0, 0.5]);
    expect(heard.map(({ stopped }) => stopped)).toEqual([true, true, false]);
  });

  test('what is left is closed', () => {
    stop();
    expect(heard[0].stopped).toBe(true);
    expect(FakeContext.now.closed).toBe(true);
  });
});
