import { type Files, FORM_ACCEPT, Problem, type Scene, type SceneFile } from '@uvrex/core';
import { db, type StoredFile } from '../../store/db';
import { edit, sceneNow } from '../document/document';

/** What a file of each kind may be called, and how large it may be in megabytes. */
export const FILE_KINDS: Record<SceneFile['kind'], { accept: string; most: number; word: string }> = {
  svg: { accept: '.svg,image/svg+xml', most: 20, word: 'an SVG' },
  font: { accept: '.ttf,.otf,.woff,font/ttf,font/otf,font/woff', most: 32, word: 'a font' },
  sound: { accept: '.wav,audio/wav,audio/x-wav', most: 32, word: 'a WAV' },
  table: { accept: '.csv,.tsv,text/csv,text/tab-separated-values', most: 20, word: 'a table' },
  picture: { accept: '.png,.jpg,.jpeg,image/png,image/jpeg', most: 64, word: 'a picture' },
  form: { accept: FORM_ACCEPT, most: 128, word: 'a form' },
};

/** Keeps files on this device, each once. */
export async function keepFiles(files: Files): Promise<void> {
  const taken = Date.now();
  await db.files.bulkPut([...files].map(([id, bytes]): StoredFile => ({ id, bytes, taken })));
}

/**
 * Takes a file into the scene. The same file taken twice is kept once.
 * @returns the id by which steps refer to it
 * @throws Problem when the file is too large, or cannot be read or kept
 */
export async function takeFile(kind: SceneFile['kind'], file: File): Promise<string> {
  const { id, add } = await storeFile(kind, file);
  add();
  return id;
}

/**
 * Keeps a file on this device.
 * @returns the id by which steps refer to it, and what adds it to the scene, where it is not there yet
 * @throws Problem when the file is too large, or cannot be read or kept
 */
export async function storeFile(kind: SceneFile['kind'], file: File): Promise<{ id: string; add: () => void }> {
  const { most, word } = FILE_KINDS[kind];
  if (file.size > most * 1e6)
    throw new Problem(
      `“${file.name}” is of ${(file.size / 1e6).toFixed(1)} MB; ${most} MB is the most for ${word} file.`,
      'Choose a smaller one.',
    );
  const bytes = await file.arrayBuffer().then(
    (buffer) => new Uint8Array(buffer),
    () => {
      throw new Problem(`“${file.name}” could not be read.`, 'Choose it again.');
    },
  );
  const { fileId } = await import('@uvrex/core/files');
  const id = fileId(bytes);
  await keepFiles(new Map([[id, bytes]]));
  const add = (): void => {
    if (sceneNow().files.some((entry) => entry.id === id)) return;
    edit(`Take in ${file.name}`, (draft) => {
      draft.files.push({ id, name: file.name.slice(0, 120) || word, kind });
    });
  };
  return { id, add };
}

/** Files that nothing uses stay for so long: a deletion or a change may still be taken back, milliseconds. */
const GRACE = 24 * 3600 * 1000;

/** Removes files that no scene, no version and no cutting on this device uses any more. */
export async function dropUnusedFiles(now = Date.now()): Promise<void> {
  await db.transaction('rw', db.scenes, db.files, db.cuttings, db.versions, async () => {
    const used = new Set<string>();
    const use = ({ scene }: { scene?: Scene }): void => {
      for (const { id } of scene?.files ?? []) used.add(id);
    };
    await db.scenes.each(use);
    await db.versions.each(use);
    const kept = (await db.cuttings.toArray()).map(({ text }) => text).join();
    const old = await db.files
      .filter(({ id, taken }) => !used.has(id) && !kept.includes(id) && now - taken > GRACE)
      .primaryKeys();
    await db.files.bulkDelete(old);
  });
}
