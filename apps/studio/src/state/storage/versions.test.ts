import 'fake-indexeddb/auto';
import { newGrowth, newScene, newStep, Problem } from '@uvrex/core';
import { fileId } from '@uvrex/core/files';
import { addGrowth, changeGrowth } from '../actions/growthActions';
import { db } from '../../store/db';
import { edit, openScene, travel, useDocument } from '../document/document';
import { dropUnusedFiles, keepFiles } from './files';
import { deleteVersion, goBackTo, keepVersion, renameVersion, versionsOf } from './versions';

jest.mock('../toasts', () => ({ say: jest.fn(), sayProblem: jest.fn() }));

const scene = () => useDocument.getState().scene;

beforeEach(async () => {
  await db.versions.clear();
  openScene('reef', newScene('Reef'));
  addGrowth({ ...newGrowth('Kelp', 0, [newStep('line')]), id: 'kelp' });
});

test('a version keeps the whole scene; going back is one change that undo takes back', async () => {
  await keepVersion();
  const kept = scene();
  changeGrowth('kelp', 'Rename', { name: 'Weed' });
  edit('More', (draft) => {
    draft.range = [1, 48];
    draft.light = { ...draft.light, strength: 2 };
    draft.name = 'Reef at night';
  });
  const later = scene();
  const [version] = await versionsOf('reef');
  goBackTo(version);
  expect(scene()).toEqual({ ...kept, name: 'Reef at night' });
  travel('undo');
  expect(scene()).toEqual(later);
  travel('redo');
  expect(scene().growths[0].name).toBe('Kelp');
});

test('one goes back past what has been locked since', async () => {
  await keepVersion();
  edit('Change', (draft) => void (draft.growths[0].seed = 99));
  changeGrowth('kelp', 'Lock', { locked: true });
  goBackTo((await versionsOf('reef'))[0]);
  expect(scene().growths[0].locked).toBe(false);
  expect(scene().growths[0].seed).not.toBe(99);
});

test('versions have names of their own, are renamed, deleted and brought back, each scene its own', async () => {
  await keepVersion();
  await keepVersion();
  await db.versions.add({ id: 'x', of: 'other', name: 'Other', made: 1, scene: scene(), picture: null });
  expect((await versionsOf('reef')).map(({ name }) => name).sort()).toEqual(['Version 1', 'Version 2']);
  const [last] = await versionsOf('reef');
  await renameVersion(last, 'Calm');
  const bringBack = await deleteVersion({ ...last, name: 'Calm' });
  expect(await versionsOf('reef')).toHaveLength(1);
  await bringBack();
  expect((await versionsOf('reef')).map(({ name }) => name)).toContain('Calm');
  await deleteVersion((await versionsOf('reef')).find(({ name }) => name === 'Version 1')!);
  await keepVersion();
  expect(new Set((await versionsOf('reef')).map(({ name }) => name)).size).toBe(2);
});

test('a version that cannot be read says so and changes nothing', async () => {
  const before = scene();
  const broken = { ...before, fps: -1 };
  expect(() => goBackTo({ id: 'v', of: 'reef', name: 'Broken', made: 1, scene: broken, picture: null })).toThrow(
    Problem,
  );
  expect(scene()).toBe(before);
});

test('files that only a version uses are not cleared away', async () => {
  const bytes = new Uint8Array([4, 5, 6]);
  const id = fileId(bytes);
  await keepFiles(new Map([[id, bytes]]));
  const file = { id, name: 'Drawing', kind: 'svg' as const };
  await db.versions.add({
    ...{ id: 'v', of: 'reef', name: 'Drawn', made: 1, picture: null },
    scene: { ...scene(), files: [file] },
  });
  await dropUnusedFiles(Date.now() + 1e12);
  expect(await db.files.get(id)).toBeDefined();
  await db.versions.clear();
  await dropUnusedFiles(Date.now() + 1e12);
  expect(await db.files.get(id)).toBeUndefined();
});
