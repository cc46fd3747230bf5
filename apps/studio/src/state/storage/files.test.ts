import 'fake-indexeddb/auto';
import { fileId } from '@uvrex/core/files';
import { newScene, newStep, newGrowth } from '@uvrex/core';
import { db, storedBytes } from '../../store/db';
import { openScene, useDocument } from '../document/document';
import { dropUnusedFiles, keepFiles, takeFile } from './files';

const DAY = 24 * 3600 * 1000;
const bytes = new TextEncoder().encode('<svg/>');

beforeEach(async () => {
  await Promise.all([db.scenes.clear(), db.files.clear()]);
  openScene('one', newScene('Reef'));
});

test('a file taken twice is kept once, as it is, and the scene holds its name alone', async () => {
  const file = new File([bytes], 'buoy.svg');
  const id = await takeFile('svg', file);
  expect(await takeFile('svg', file)).toBe(id);
  expect(id).toBe(fileId(bytes));
  expect(await storedBytes(id)).toEqual(bytes);
  expect(await db.files.count()).toBe(1);
  expect(useDocument.getState().scene.files).toEqual([{ id, name: 'buoy.svg', kind: 'svg' }]);
});

test('files go when no scene uses them any more, a day later and not before', async () => {
  const [used, unused] = [new Uint8Array([1]), new Uint8Array([2])];
  await keepFiles(new Map([used, unused].map((file) => [fileId(file), file])));
  const scene = newScene('Reef');
  scene.files = [{ id: fileId(used), name: 'a', kind: 'sound' }];
  await db.scenes.add({ id: 'one', name: 'Reef', changed: 1, scene, picture: null });
  await dropUnusedFiles();
  expect(await db.files.count()).toBe(2);
  await dropUnusedFiles(Date.now() + 2 * DAY);
  expect(await db.files.toCollection().primaryKeys()).toEqual([fileId(used)]);
});

test('scenes stored by the version before this one are taken apart when the store is opened', async () => {
  db.close();
  await db.delete();
  const old = new (await import('dexie')).default('uvrex');
  old.version(1).stores({ scenes: 'id, changed', views: 'id' });
  const { files, ...rest } = newScene('Old');
  const growths = [newGrowth('Buoy', 0, [newStep('vector', { drawing: 'svg-1' })])];
  const data = Buffer.from(bytes).toString('base64');
  const assets = [{ id: 'svg-1', name: 'buoy.svg', kind: 'svg', data }];
  await old
    .table('scenes')
    .add({ id: 'old', name: 'Old', changed: 1, picture: null, scene: { ...rest, version: 3, growths, assets } });
  await old
    .table('scenes')
    .add({ id: 'broken', name: 'Broken', changed: 1, picture: null, scene: { assets: [{ id: 'x', data: '%' }] } });
  old.close();
  await db.open();
  expect(files).toEqual([]);
  expect(await storedBytes(fileId(bytes))).toEqual(bytes);
  const stored = (await db.scenes.get('old'))!.scene as never as typeof rest & {
    assets: { data?: string }[];
    growths: typeof growths;
  };
  expect(stored.assets[0].data).toBeUndefined();
  expect(stored.growths[0].steps[0].params.drawing).toBe(fileId(bytes));
  expect(await db.scenes.count()).toBe(2);
});

test('a file of just as many megabytes as there may be is taken, one byte more is refused with its size', async () => {
  const bytes = new TextEncoder().encode('<svg/>').buffer;
  const sized = (size: number): File => ({ name: 'reef.svg', size, arrayBuffer: async () => bytes }) as never;
  expect(await takeFile('svg', sized(20e6))).toMatch(/\w/);
  await expect(takeFile('svg', sized(20e6 + 1))).rejects.toThrow(
    '“reef.svg” is of 20.0 MB; 20 MB is the most for an SVG file.',
  );
});
