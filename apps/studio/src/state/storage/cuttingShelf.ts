import { type Clip, LIMITS, newId, Problem, readClip, unusedName, writeClip } from '@uvrex/core';
import { save } from '@/state/storage/saveToDisk';
import { say, sayProblem, withProgress } from '../toasts';
import { db, type StoredCutting } from '../../store/db';
import { runFileTask } from '@/worker/runFileTask';
import { keepFiles } from './files';

/** One's own cuttings, the last kept first; none where the store cannot be read. */
export const ownCuttings = (): Promise<StoredCutting[]> =>
  db.cuttings
    .orderBy('made')
    .reverse()
    .toArray()
    .catch(() => []);

/** A name that no cutting has yet. */
export async function freeCuttingName(base: string): Promise<string> {
  const taken = await db.cuttings.toArray();
  return unusedName(base.slice(0, LIMITS.name), new Set(taken.map(({ name }) => name)));
}

export const renameCutting = async ({ id }: StoredCutting, name: string): Promise<void> => {
  await db.cuttings.update(id, { name });
};

/** Deletes a cutting. @returns what brings it back */
export async function deleteCutting(stored: StoredCutting): Promise<() => Promise<void>> {
  await db.cuttings.delete(stored.id);
  return async () => void (await db.cuttings.put(stored));
}

/**
 * Hands a cutting out as a file, with the files that it uses.
 * @throws Problem for a file that is not on this device
 */
export async function exportCutting({ name, text }: StoredCutting, signal?: AbortSignal): Promise<void> {
  const clip = readClip(text);
  if (!clip) return;
  const { bytes, ending } = await runFileTask('writeCutting', { ...clip, scene: { ...clip.scene, name } }, signal);
  const file = name.replace(/[^\p{L}\p{N} _-]/gu, '').trim() || 'Cutting';
  const type = `application/${ending}`;
  save({ name: `${file}.cutting.${ending}`, blob: new Blob([bytes as Uint8Array<ArrayBuffer>], { type }) });
}

/** The same from a menu: it shows progress and problems. */
export const exportOwn = (cutting: StoredCutting): void =>
  void withProgress(`Packing “${cutting.name}” …`, (signal) => exportCutting(cutting, signal)).catch(sayProblem);

/** Takes a cutting in from a file. @throws Problem for a file that holds none */
export async function importCutting(file: File, signal?: AbortSignal): Promise<void> {
  const read = await runFileTask('readCutting', file, signal);
  const of = read?.clip.of;
  if (!read || (of !== 'growths' && of !== 'steps'))
    throw new Problem(`“${file.name}” is no cutting.`, 'Choose a file that was exported from your cuttings.');
  const { clip, files } = read;
  const name = await freeCuttingName(clip.scene.name || 'Cutting');
  await keepFiles(files);
  await db.cuttings.add({
    id: newId(),
    name,
    made: Date.now(),
    of,
    text: writeClip(clip),
    picture: await pictureOf(clip),
  });
  say({ tone: 'success', text: `“${name}” is among your cuttings now.` });
}

/** A small picture of what came in, as it has grown at the end, steps on something that they fit; null where none can be drawn. */
async function pictureOf({ of, own = 1, scene }: Clip): Promise<Blob | null> {
  if (typeof document === 'undefined') return null;
  try {
    const { onePicture } = await import('@/export/onePicture');
    if (of === 'steps') {
      const { stepsShown } = await import('@uvrex/core/cuttings');
      return await onePicture(stepsShown(scene), scene.range[1]);
    }
    const growths = scene.growths.map((growth, i) => ({
      ...growth,
      visible: i < own && (own === 1 || growth.visible),
    }));
    return await onePicture({ ...scene, growths }, scene.range[1]);
  } catch {
    return null;
  }
}
