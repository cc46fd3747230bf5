import 'fake-indexeddb/auto';
import { newScene, Problem, writeScene } from '@uvrex/core';
import { db, type StoredScene } from '@/state/db';
import { createScene, deleteScene, duplicateScene, importFile, renameScene } from './scenes';

const fileOf = (text: string): File => new File([text], 'scene.json');
const stored = async (id: string): Promise<StoredScene> => (await db.scenes.get(id))!;

beforeEach(async () => {
  await db.scenes.clear();
  await db.views.clear();
});

test('new scenes get names of their own', async () => {
  const ids = [await createScene(), await createScene(), await createScene()];
  const names = await Promise.all(ids.map(async (id) => (await stored(id)).name));
  expect(names).toEqual(['Untitled reef', 'Untitled reef 2', 'Untitled reef 3']);
});

test('an imported file is kept as it is, under a free name', async () => {
  const scene = newScene('Reef');
  await importFile(fileOf(writeScene(scene)));
  const id = await importFile(fileOf(writeScene(scene)));
  expect((await stored(id)).scene).toEqual({ ...scene, name: 'Reef 2' });
});

test('a broken file stores nothing', async () => {
  await expect(importFile(fileOf('{"format":"uvrex-scene","version":1}'))).rejects.toBeInstanceOf(Problem);
  expect(await db.scenes.count()).toBe(0);
});

test('a rename reaches the scene itself, and a duplicate is independent', async () => {
  const id = await createScene();
  await renameScene(await stored(id), 'Opening');
  await duplicateScene(await stored(id));
  expect((await db.scenes.toArray()).map(({ scene }) => scene.name).sort()).toEqual(['Opening', 'Opening 2']);
});

test('a deleted scene comes back as it was, its view too', async () => {
  const id = await createScene();
  const before = await stored(id);
  await db.views.put({ id, frame: 33 } as never);
  const bringBack = await deleteScene(before);
  expect([await db.scenes.count(), await db.views.count()]).toEqual([0, 0]);
  await bringBack();
  expect(await stored(id)).toEqual(before);
  expect((await db.views.get(id))?.frame).toBe(33);
});
