import 'fake-indexeddb/auto';
import { strToU8, zipSync } from 'fflate';
import { newGrowth, newScene, newStep, Problem, writeScene } from '@uvrex/core';
import { fileId } from '@uvrex/core/files';
import { db, type StoredScene } from '@/store/db';
import { keepFiles } from '@/state/storage/files';
import {
  createScene,
  deleteScene,
  deleteScenes,
  duplicateScene,
  importFile,
  moveToFolder,
  renameScene,
  zipOf,
} from './scenes';

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
  const [id] = await importFile(fileOf(writeScene(scene)));
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

test('several scenes go out in one zip and come in again, each once, with their files', async () => {
  const bytes = new Uint8Array([1, 2, 3]);
  const file = fileId(bytes);
  await keepFiles(new Map([[file, bytes]]));
  const [first, second] = [await createScene(), await createScene()];
  await db.scenes
    .where('id')
    .equals(first)
    .modify((entry) => {
      entry.scene = {
        ...entry.scene,
        files: [{ id: file, name: 'Drawing', kind: 'svg' }],
        growths: [newGrowth('Drawn', 0, [newStep('vector', { drawing: file })])],
      };
    });
  const zip = await zipOf([await stored(first), await stored(second)]);
  await db.scenes.clear();
  await db.files.clear();
  const ids = await importFile(new File([zip as Uint8Array<ArrayBuffer>], 'scenes.zip'));
  expect(ids).toHaveLength(2);
  expect((await db.scenes.toArray()).map(({ name }) => name).sort()).toEqual(['Untitled reef', 'Untitled reef 2']);
  expect((await db.files.get(file))?.bytes).toEqual(bytes);
});

test('a zip with one scene that is not sound says which, and stores nothing', async () => {
  const zip = zipSync({
    'Reef.json': strToU8(writeScene(newScene('Reef'))),
    'Wreck.json': strToU8('{"format":"uvrex-scene","version":1}'),
  });
  await expect(importFile(new File([zip as Uint8Array<ArrayBuffer>], 'scenes.zip'))).rejects.toThrow(/Wreck\.json/);
  expect(await db.scenes.count()).toBe(0);
});

test('a damaged scene is named before a zip is made', async () => {
  const id = await createScene();
  await db.scenes.update(id, { scene: { ...(await stored(id)).scene, fps: 0 } });
  await expect(zipOf([await stored(id)])).rejects.toThrow(/“Untitled reef” is damaged/);
});

test('scenes are put into folders and taken out, and deleted together with their versions until brought back', async () => {
  const [first, second] = [await createScene(), await createScene()];
  await moveToFolder([first, second], ' Opening ');
  await moveToFolder([second], '');
  expect([(await stored(first)).folder, (await stored(second)).folder]).toEqual(['Opening', undefined]);
  const { scene } = await stored(first);
  await db.versions.add({ id: 'v', of: first, name: 'Version 1', made: 1, scene, picture: null });
  const bringBack = await deleteScenes([await stored(first), await stored(second)]);
  expect([await db.scenes.count(), await db.versions.count()]).toEqual([0, 0]);
  await bringBack();
  expect([await db.scenes.count(), await db.versions.count()]).toEqual([2, 1]);
  expect((await stored(first)).folder).toBe('Opening');
});
