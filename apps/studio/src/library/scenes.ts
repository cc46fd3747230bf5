import { newId, newScene, readScene, type Scene } from '@uvrex/core';
import { type Starter } from '@uvrex/examples';
import { db, type StoredScene } from '@/state/db';
import { firstView } from '@/state/view';

/** Puts a scene into the store under a new id. */
async function keep(scene: Scene, picture: Blob | null = null): Promise<string> {
  const id = newId();
  await db.scenes.add({ id, name: scene.name, changed: Date.now(), scene, picture });
  return id;
}

/** A name that no stored scene has yet. */
async function freeName(base: string): Promise<string> {
  const taken = new Set((await db.scenes.toArray()).map(({ name }) => name));
  for (let i = 1; ; i++) {
    const name = i === 1 ? base : `${base} ${i}`;
    if (!taken.has(name)) return name;
  }
}

export const createScene = async (): Promise<string> => keep(newScene(await freeName('Untitled reef')));

/** A scene of one's own from a starter, opened at the frame that shows it best. */
export async function fromStarter({ scene, picture, frame }: Starter): Promise<string> {
  const blob = await fetch(picture.src).then(
    (response) => response.blob(),
    () => null,
  );
  const id = await keep({ ...structuredClone(scene), name: await freeName(scene.name) }, blob);
  await db.views.add({ id, ...firstView, growth: scene.growths[0]?.id ?? null, frame });
  return id;
}

/**
 * Takes a scene file into the library.
 * @throws Problem that names the place in the file; nothing is stored then
 */
export async function importFile(file: File): Promise<string> {
  const scene = readScene(await file.text());
  return keep({ ...scene, name: await freeName(scene.name) });
}

export async function duplicateScene({ scene, picture }: StoredScene): Promise<void> {
  const name = await freeName(scene.name);
  await keep({ ...scene, name }, picture);
}

export async function renameScene({ id, scene }: StoredScene, name: string): Promise<void> {
  await db.scenes.update(id, { name, scene: { ...scene, name }, changed: Date.now() });
}

/** Deletes a scene; returns how to bring it back as it was. */
export async function deleteScene(stored: StoredScene): Promise<() => Promise<void>> {
  const view = await db.views.get(stored.id);
  await db.transaction('rw', db.scenes, db.views, async () => {
    await db.scenes.delete(stored.id);
    await db.views.delete(stored.id);
  });
  return async () => {
    await db.transaction('rw', db.scenes, db.views, async () => {
      await db.scenes.put(stored);
      if (view) await db.views.put(view);
    });
  };
}
