import 'fake-indexeddb/auto';
import { newScene } from '@uvrex/core';
import { startAutosave, useSaving } from './autosave';
import { db } from './db';
import { edit, openScene } from './document';
import { firstView, setView } from './view';

let stop: () => void;
const wait = (milliseconds: number): Promise<void> => new Promise((done) => setTimeout(done, milliseconds));

beforeEach(async () => {
  global.window = { addEventListener: () => undefined, removeEventListener: () => undefined } as never;
  await db.scenes.clear();
  await db.views.clear();
  const scene = newScene('Reef');
  await db.scenes.add({ id: 'one', name: scene.name, changed: 1, scene, picture: null });
  openScene('one', scene);
  setView({ ...firstView, playing: false });
  stop = startAutosave('one');
});
afterEach(() => stop());

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

test('leaving keeps what was not kept yet', async () => {
  edit('Rename', (scene) => void (scene.name = 'Last words'));
  stop();
  await wait(200);
  expect((await db.scenes.get('one'))!.name).toBe('Last words');
});
