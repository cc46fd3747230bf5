import { checkScene, LIMITS, newId, newScene, Problem, readClip, type Scene, unusedName } from '@uvrex/core';
import type { Starter } from '@uvrex/examples';
import { importCutting } from '@/state/storage/cuttingShelf';
import { db, type StoredCutting, type StoredScene } from '@/store/db';
import { keepFiles } from '@/state/storage/files';
import { tellTabs } from '@/state/storage/sceneLocks';
import { chosenQuality, firstView } from '@/state/document/view';
import { runFileTask } from '@/worker/runFileTask';

/** All scenes on this device, the last changed first: the damaged ones among them. */
export const storedScenes = async (): Promise<StoredScene[]> =>
  (await db.scenes.toArray()).sort((a, b) => (Number(b.changed) || 0) - (Number(a.changed) || 0));

/** Puts a scene into the store under a new id. */
export async function keep(scene: Scene, picture: Blob | null = null): Promise<string> {
  const id = newId();
  await db.scenes.add({ id, name: scene.name, changed: Date.now(), scene, picture });
  return id;
}

/** Puts the mended copy of a scene beside it; the scene itself stays as it is. */
export async function keepMended({ name, picture }: StoredScene, scene: Scene): Promise<string> {
  const base = typeof name === 'string' && name !== '' ? name : scene.name;
  return keep({ ...scene, name: await freeName(`${base.slice(0, LIMITS.name - 12)}, mended`) }, picture ?? null);
}

/** Keeps what one tab had not kept when another took its scene over. */
export const keepBeside = async (scene: Scene): Promise<string> =>
  keep({ ...scene, name: await freeName(`${scene.name.slice(0, LIMITS.name - 20)}, other tab`) });

/** A name that no stored scene has yet. */
export async function freeName(base: string): Promise<string> {
  return unusedName(base, new Set((await db.scenes.toArray()).map(({ name }) => name)));
}

export const createScene = async (): Promise<string> => keep(newScene(await freeName('Untitled reef')));

/** A new scene with what a cutting plants, at a frame at which it has grown. @throws Problem for a damaged one */
export async function sceneOfCutting({ name, text, picture }: StoredCutting): Promise<string> {
  const clip = readClip(text);
  const { growths, guides, files, range } = clip?.scene ?? newScene(name);
  const id = await keep({ ...newScene(await freeName(name)), range, growths, guides, files }, picture);
  await db.views.add({ id, ...firstView, quality: chosenQuality(), growth: growths[0]?.id ?? null, frame: range[1] });
  return id;
}

/** A scene of one's own from a starter, opened at the frame that shows it best. */
export async function fromStarter({ scene: load, picture, frame }: Starter): Promise<string> {
  const scene = await load();
  const blob = await fetch(picture.src).then(
    (response) => response.blob(),
    () => null,
  );
  const id = await keep({ ...scene, name: await freeName(scene.name) }, blob);
  await db.views.add({ id, ...firstView, quality: chosenQuality(), growth: scene.growths[0]?.id ?? null, frame });
  return id;
}

/**
 * Takes a scene file, or a zip of several, into the library.
 * @returns the ids of its scenes
 * @throws Problem that names the place in the file; nothing is stored then
 */
export async function importFile(file: File, signal?: AbortSignal): Promise<string[]> {
  const scenes = await runFileTask('readScenes', file, signal);
  const ids: string[] = [];
  for (const { scene, files } of scenes) {
    await keepFiles(files);
    ids.push(await keep({ ...scene, name: await freeName(scene.name) }));
  }
  return ids;
}

/** Takes in whatever file Uvrex has written. @returns the ids of its scenes, or null for a cutting */
export async function takeIn(file: File, signal?: AbortSignal): Promise<string[] | null> {
  if (!/\.cutting\.(json|zip)$/i.test(file.name)) return importFile(file, signal);
  await importCutting(file, signal);
  return null;
}

/**
 * Several scenes as the bytes of one zip of scene files.
 * @throws Problem for a scene that is damaged, or whose files are not here
 */
export async function zipOf(stored: readonly StoredScene[], signal?: AbortSignal): Promise<Uint8Array> {
  return (await runFileTask('writeScenes', stored.map(soundScene), signal)).bytes;
}

function soundScene({ scene, name }: StoredScene): Scene {
  try {
    return checkScene(scene);
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    throw new Problem(`“${name}” is damaged: ${error.message}`, 'Open it to mend it, or leave it out.');
  }
}

/** Puts scenes into a folder; an empty name takes them out of theirs. */
export async function moveToFolder(ids: readonly string[], folder: string): Promise<void> {
  const name = folder.trim().slice(0, LIMITS.name);
  await db.scenes
    .where('id')
    .anyOf([...ids])
    .modify((stored) => {
      if (name === '') delete stored.folder;
      else stored.folder = name;
    });
}

/** Deletes several scenes; returns how to bring them back as they were. */
export async function deleteScenes(scenes: readonly StoredScene[]): Promise<() => Promise<void>> {
  const back: (() => Promise<void>)[] = [];
  for (const stored of scenes) back.push(await deleteScene(stored));
  return async () => {
    for (const bringBack of back) await bringBack();
  };
}

export async function duplicateScene(stored: StoredScene): Promise<void> {
  const { picture } = stored;
  const scene = checkScene(stored.scene);
  await keep({ ...scene, name: await freeName(scene.name) }, picture);
}

export async function renameScene({ id }: StoredScene, name: string): Promise<void> {
  await db.scenes
    .where('id')
    .equals(id)
    .modify((stored) => {
      stored.name = name;
      stored.changed = Date.now();
      stored.scene = { ...stored.scene, name };
    });
  tellTabs({ news: 'renamed', id, name });
}

/** Deletes a scene and its versions; returns how to bring it back as it was. */
export async function deleteScene(stored: StoredScene): Promise<() => Promise<void>> {
  const view = await db.views.get(stored.id);
  const versions = await db.versions.where('of').equals(stored.id).toArray();
  await db.transaction('rw', db.scenes, db.views, db.versions, db.holds, async () => {
    await db.holds.delete(stored.id);
    await db.scenes.delete(stored.id);
    await db.views.delete(stored.id);
    await db.versions.bulkDelete(versions.map(({ id }) => id));
  });
  tellTabs({ news: 'deleted', id: stored.id });
  return async () => {
    await db.transaction('rw', db.scenes, db.views, db.versions, async () => {
      await db.scenes.put(stored);
      if (view) await db.views.put(view);
      await db.versions.bulkPut(versions);
    });
  };
}
