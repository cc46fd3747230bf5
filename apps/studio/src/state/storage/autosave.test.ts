import 'fake-indexeddb/auto';
import { newScene } from '@uvrex/core';
import { type Autosave, claimScene, setPictureTaker, startAutosave, useSaving } from './autosave';
import { db } from '../../store/db';
import { edit, openScene, useDocument } from '../document/document';
import { readLastWords } from './unloadBackup';
import { firstView, setView } from '../document/view';

let autosave: Autosave;
const words = new Map<string, string>();
const listeners = new Map<string, (event: unknown) => void>();
const wait = (milliseconds: number): Promise<void> => new Promise((done) => setTimeout(done, milliseconds));

beforeEach(async () => {
  listeners.clear();
  words.clear();
  const target = {
    addEventListener: (type: string, listener: never) => listeners.set(type, listener),
    removeEventListener: (type: string) => listeners.delete(type),
  };
  global.window = target as never;
  global.document = target as never;
  global.localStorage = {
    getItem: (name: string) => words.get(name) ?? null,
    setItem: (name: string, text: string) => void words.set(name, text),
    removeItem: (name: string) => void words.delete(name),
  } as never;
  await db.scenes.clear();
  await db.views.clear();
  await db.holds.clear();
  const scene = newScene('Reef');
  await db.scenes.add({ id: 'one', name: scene.name, changed: 1, scene, picture: null });
  openScene('one', scene);
  setView({ ...firstView, playing: false });
  autosave = startAutosave('one', 'tab');
});
afterEach(() => {
  jest.restoreAllMocks();
  autosave.stop(true);
});

test("a change is kept within a second, with the scene's new name and time", async () => {
  edit('Rename', (scene) => void (scene.name = 'Opening'));
  expect(useSaving.getState().state).toBe('saving');
  await wait(900);
  expect(useSaving.getState().state).toBe('saved');
  const stored = (await db.scenes.get('one'))!;
  expect(stored).toMatchObject({ name: 'Opening', scene: { name: 'Opening' } });
  expect(stored.changed).toBeGreaterThan(1);
});

test('how it is looked at is kept too, but not while it plays', async () => {
  setView({ frame: 33, look: 'paths' });
  await wait(600);
  expect(await db.views.get('one')).toMatchObject({ frame: 33, look: 'paths' });
  setView({ playing: true, frame: 50 });
  await wait(600);
  expect((await db.views.get('one'))!.frame).toBe(33);
});

test('once the scene is left no picture is taken of what stands there then', async () => {
  const take = jest.fn(() => Promise.resolve(new Blob(['other'])));
  setPictureTaker(take);
  setView({ frame: 12 });
  autosave.stop(true);
  await autosave.flush();
  await wait(1800);
  setPictureTaker(null);
  expect(take).not.toHaveBeenCalled();
  expect((await db.scenes.get('one'))!.picture).toBeNull();
});

test('a picture that is due waits while changes go on', async () => {
  const take = jest.fn(() => Promise.resolve(new Blob(['picture'])));
  setPictureTaker(take);
  edit('Rename', (scene) => void (scene.name = 'First'));
  await wait(1600);
  // About to be taken; what is changed now is not written before it would be.
  edit('Rename', (scene) => void (scene.name = 'Second'));
  await wait(380);
  setView({ frame: 7 });
  await wait(250);
  expect(take).not.toHaveBeenCalled();
  await wait(1900);
  setPictureTaker(null);
  expect(take).toHaveBeenCalledTimes(1);
});

test('no picture is taken while attributes are shown as colours, and one when they are gone', async () => {
  const take = jest.fn(() => Promise.resolve(new Blob(['picture'])));
  setPictureTaker(take);
  setView({ frame: 9, shade: { growth: 'rock', of: 'vertices', name: 'front', part: null, range: null } });
  await wait(2400);
  expect(take).not.toHaveBeenCalled();
  setView({ shade: null });
  await wait(1700);
  setPictureTaker(null);
  expect(take).toHaveBeenCalledTimes(1);
});

test('leaving keeps what was not kept yet', async () => {
  edit('Rename', (scene) => void (scene.name = 'Last words'));
  autosave.stop();
  await wait(200);
  expect((await db.scenes.get('one'))!.name).toBe('Last words');
});

test('while one goes on editing it is kept at least every second', async () => {
  const names = new Set<string>();
  for (let i = 0; i < 24; i++) {
    edit('Rename', (scene) => void (scene.name = `Reef ${i}`));
    await wait(100);
    names.add((await db.scenes.get('one'))!.name);
  }
  // 2.4 seconds without a pause of 0.4: kept twice or more on the way.
  expect([...names].filter((name) => name !== 'Reef').length).toBeGreaterThanOrEqual(2);
});

test('an edit right before the page goes is written down at once, and forgotten when it is kept', async () => {
  edit('Rename', (scene) => void (scene.name = 'At the door'));
  listeners.get('pagehide')!(null);
  expect(readLastWords('one', 1)).toMatchObject({ name: 'At the door' });
  expect(readLastWords('one', Date.now() + 1000)).toBeNull();
  await wait(200);
  expect((await db.scenes.get('one'))!.name).toBe('At the door');
  expect(words.size).toBe(0);
});

test('without room to write it down the browser asks before leaving', () => {
  const preventDefault = jest.fn();
  edit('Rename', (scene) => void (scene.name = 'Large'));
  listeners.get('beforeunload')!({ preventDefault });
  expect(preventDefault).not.toHaveBeenCalled();
  global.localStorage.setItem = () => {
    throw new Error('QuotaExceededError');
  };
  listeners.get('beforeunload')!({ preventDefault });
  expect(preventDefault).toHaveBeenCalled();
});

test('a scene that was deleted is said to be gone, not saved; it can be kept after all', async () => {
  await db.scenes.delete('one');
  edit('Rename', (scene) => void (scene.name = 'Alone'));
  await wait(600);
  expect(useSaving.getState().state).toBe('gone');
  await autosave.keep();
  expect(useSaving.getState().state).toBe('saved');
  expect((await db.scenes.get('one'))!.scene.name).toBe('Alone');
});

test('a failed write is told with what to do, and tried again by itself', async () => {
  const full = Object.assign(new Error('no room'), { name: 'QuotaExceededError' });
  const broken = jest.spyOn(db.scenes, 'update').mockRejectedValue(full as never);
  edit('Rename', (scene) => void (scene.name = 'Full'));
  await wait(700);
  expect(useSaving.getState()).toMatchObject({ state: 'failed', advice: expect.stringContaining('no room left') });
  broken.mockRestore();
  await wait(4300);
  expect(useSaving.getState().state).toBe('saved');
  expect((await db.scenes.get('one'))!.name).toBe('Full');
}, 10_000);

const kept = async (): Promise<string> => (await db.scenes.get('one'))!.scene.name;

test('what a tab still has to write does not come to lie over what another has taken over', async () => {
  await claimScene('one', 'tab');
  edit('Rename', (scene) => void (scene.name = 'Late edit'));
  const { claimed, stored } = await claimScene('one', 'other');
  expect([claimed, stored!.scene.name]).toEqual([true, 'Reef']);
  await autosave.flush();
  expect(await kept()).toBe('Reef');
  // It is known not to be kept: whoever closes the tab keeps it beside.
  expect(useSaving.getState().state).toBe('taken');
});

test('what a tab has begun to write when another takes over is in what that one reads', async () => {
  await claimScene('one', 'tab');
  edit('Rename', (scene) => void (scene.name = 'Begun'));
  const [, { stored }] = await Promise.all([autosave.flush(), claimScene('one', 'other')]);
  expect(stored!.scene.name).toBe(await kept());
});

test('without room a scene opens all the same, for looking and exporting, and can be changed when there is room', async () => {
  autosave.stop(true);
  const full = jest.spyOn(db, 'transaction').mockRejectedValue(new DOMException('too much', 'QuotaExceededError'));
  const { claimed, stored } = await claimScene('one', 'tab');
  expect([claimed, stored!.scene.name]).toEqual([false, 'Reef']);
  useDocument.setState({ readOnly: true });
  autosave = startAutosave('one', 'tab', false);
  expect(useSaving.getState()).toMatchObject({ state: 'failed', advice: expect.stringContaining('no room') });
  expect(edit('Rename', (scene) => void (scene.name = 'Refused'))).toBe(false);
  full.mockRestore();
  await autosave.flush();
  expect(useSaving.getState().state).toBe('saved');
  expect(edit('Rename', (scene) => void (scene.name = 'Taken'))).toBe(true);
  await autosave.flush();
  expect(await kept()).toBe('Taken');
});
