import { newScene } from '@uvrex/core';
import { openScene, useDocument } from '../document/document';
import { startPlaying } from './play';
import { type FrameRecord, useResults } from '../director/results';
import { setView, useView } from '../document/view';

let now = 0;
let waiting: (() => void) | null = null;
let stop: () => void;

/** Lets so many milliseconds pass, a picture every 10; pictures of frames appear as they are asked for, or not. */
function pass(milliseconds: number, drawn = true): void {
  for (let t = 0; t < milliseconds; t += 10) {
    now += 10;
    const { frame } = useView.getState();
    if (drawn) useResults.setState({ record: { frame } as FrameRecord });
    const tick = waiting;
    waiting = null;
    tick?.();
  }
}

beforeEach(() => {
  now = 0;
  jest.spyOn(performance, 'now').mockImplementation(() => now);
  global.requestAnimationFrame = (tick) => {
    waiting = tick as () => void;
    return 1;
  };
  global.cancelAnimationFrame = () => (waiting = null);
  openScene('test', { ...newScene('Reef'), range: [1, 48] });
  setView({ frame: 1, playing: false });
  useResults.setState({ ready: new Set(Array.from({ length: 48 }, (_, i) => i + 1)), record: null, lost: null });
  stop = startPlaying();
});
afterEach(() => {
  stop();
  jest.restoreAllMocks();
});

test("keeps the scene's rate when frames are ready", () => {
  setView({ playing: true });
  pass(1000);
  expect(Math.abs(useView.getState().frame - 25)).toBeLessThanOrEqual(1);
});

test('once it was stopped, it goes on from where the playhead has been put, at its own pace', () => {
  setView({ playing: true });
  pass(1000);
  setView({ playing: false });
  pass(3000);
  setView({ frame: 10 });
  setView({ playing: true });
  pass(500);
  expect(Math.abs(useView.getState().frame - 22)).toBeLessThanOrEqual(1);
});

test('comes round when it loops, and ends on the last frame when not', () => {
  setView({ playing: true });
  pass(2300);
  expect(useView.getState()).toMatchObject({ playing: true });
  expect(useView.getState().frame).toBeLessThan(12);
  useDocument.setState(({ scene }) => ({ scene: { ...scene, loop: false } }));
  pass(3000);
  expect(useView.getState()).toMatchObject({ playing: false, frame: 48 });
});

test('a frame that is not drawn yet holds the playhead', () => {
  setView({ playing: true });
  pass(200);
  const { frame } = useView.getState();
  pass(2000, false);
  expect(useView.getState().frame).toBeLessThanOrEqual(frame + 1);
});

test('where the engine is lost on a frame, playing ends there, instead of waiting for it for ever', () => {
  setView({ playing: true });
  pass(200);
  pass(50, false);
  useResults.setState({ lost: { level: 'error', what: 'Lost.', advice: '', place: { growth: 'g' } } });
  pass(50, false);
  const { frame, playing } = useView.getState();
  expect(playing).toBe(false);
  // Once it can be drawn again, it goes on from there when asked to.
  useResults.setState({ lost: null });
  setView({ playing: true });
  pass(500);
  expect(useView.getState().frame).toBeGreaterThan(frame + 5);
});

test('frames that are not ready are shown one by one, none skipped', () => {
  useResults.setState({ ready: new Set() });
  const seen: number[] = [];
  const watch = useView.subscribe(({ frame }) => seen.push(frame));
  setView({ playing: true });
  pass(1000);
  watch();
  const changes = seen.filter((frame, i) => i === 0 || frame !== seen[i - 1]);
  for (let i = 1; i < changes.length; i++) expect(changes[i] - changes[i - 1]).toBe(1);
});

test('started at the end it begins anew', () => {
  setView({ frame: 48 });
  setView({ playing: true });
  expect(useView.getState().frame).toBe(1);
});
