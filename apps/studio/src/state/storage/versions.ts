import { checkScene, LIMITS, newId, type Scene, unusedName } from '@uvrex/core';
import { say } from '../toasts';
import { smallPicture } from './autosave';
import { db, type StoredVersion } from '../../store/db';
import { edit, growthIn, useDocument } from '../document/document';
import { SCENE_ENTRY, setView, useView } from '../document/view';

/** All versions of a scene, the last kept first. */
export const versionsOf = async (scene: string): Promise<StoredVersion[]> =>
  (await db.versions.where('of').equals(scene).toArray()).sort((a, b) => b.made - a.made);

/** The version that is being kept: a second wish for the same waits for it, and makes no other. */
let keeping: Promise<void> | null = null;

/** Keeps the open scene as it is now, under a name that none of its versions has yet. */
export function keepVersion(): Promise<void> {
  keeping ??= keepNow().finally(() => (keeping = null));
  return keeping;
}

async function keepNow(): Promise<void> {
  const { id, scene } = useDocument.getState();
  if (id === null) return;
  const taken = await versionsOf(id);
  const name = unusedName(`Version ${taken.length + 1}`, new Set(taken.map((version) => version.name)));
  await db.versions.add({ id: newId(), of: id, name, made: Date.now(), scene, picture: await smallPicture() });
  const { sheet } = useView.getState();
  if (sheet !== 'versions')
    say({
      tone: 'success',
      text: `Kept as “${name}”.`,
      action: { label: 'Versions', run: () => setView({ sheet: 'versions' }) },
    });
}

export async function renameVersion({ id }: StoredVersion, name: string): Promise<void> {
  await db.versions.update(id, { name: name.slice(0, LIMITS.name) });
}

/** Deletes a version. @returns what brings it back */
export async function deleteVersion(stored: StoredVersion): Promise<() => Promise<void>> {
  await db.versions.delete(stored.id);
  return async () => void (await db.versions.put(stored));
}

/**
 * Makes the open scene what it was in a version, as one change that undo takes back; what it is called stays.
 * @throws Problem for a version that this Uvrex cannot read
 */
export function goBackTo(version: StoredVersion): void {
  const then = checkScene(version.scene);
  const whole = (draft: Scene): void => void Object.assign(draft, { ...then, name: draft.name });
  if (!edit(`Go back to ${version.name}`, whole, { free: true })) return;
  const { growth } = useView.getState();
  const known = growthIn(then, growth) !== undefined || growth === SCENE_ENTRY;
  setView({ keys: [], chosen: [], ...(!known && { growth: then.growths[0]?.id ?? SCENE_ENTRY }) });
  say({ tone: 'success', text: `The scene is as it was in “${version.name}”. Undo takes that back.` });
}
