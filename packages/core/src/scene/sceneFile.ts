import { blake3 } from '@noble/hashes/blake3.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { strFromU8, strToU8 } from 'fflate';
import { Problem } from '../problem';
import { base64Bytes } from './bytes';
import { isObject } from './faults';
import { LIMITS } from './limits';
import { unusedName } from './make';
import { checkScene, parseJson, writeScene } from './read';
import type { Scene } from './schema';
import { isZip, unzipFiles, zipFiles } from './zip';

/** Files under the hashes of their bytes. */
export type Files = ReadonlyMap<string, Uint8Array>;

/** A scene with the files that it uses. */
export interface PackedScene {
  scene: Scene;
  files: Files;
}

/** The id of a file: BLAKE3 over its bytes, 128 bits in hexadecimal. */
export const fileId = (bytes: Uint8Array): string => bytesToHex(blake3(bytes, { dkLen: 16 }));

/**
 * Takes the bytes out of a document of version 1 to 3, which kept files in base64 inside it, and puts the hash of each where
 * its old id stood. Other documents stay as they are.
 */
export function unpackScene(document: unknown): { document: unknown; files: Map<string, Uint8Array> } {
  const files = new Map<string, Uint8Array>();
  if (!isObject(document) || !Array.isArray(document.assets)) return { document, files };
  const renamed = new Map<string, string>();
  const assets = (document.assets as unknown[]).map((asset) => {
    if (!isObject(asset) || typeof asset.data !== 'string' || typeof asset.id !== 'string') return asset;
    let bytes: Uint8Array;
    try {
      bytes = base64Bytes(asset.data);
    } catch {
      throw new Problem(`The file “${String(asset.name)}” inside the scene is damaged.`, 'Load that file again.', {
        path: 'assets',
      });
    }
    const id = fileId(bytes);
    files.set(id, bytes);
    renamed.set(asset.id, id);
    return { id, name: asset.name, kind: asset.kind };
  });
  const once = assets.filter(
    (asset, i) => !isObject(asset) || assets.findIndex((other) => isObject(other) && other.id === asset.id) === i,
  );
  return { document: { ...document, assets: once, growths: pointed(document.growths, renamed) }, files };
}

/** Growths whose steps name files by their new ids. */
function pointed(growths: unknown, renamed: ReadonlyMap<string, string>): unknown {
  if (!Array.isArray(growths) || renamed.size === 0) return growths;
  const value = (entry: unknown): unknown => (typeof entry === 'string' ? (renamed.get(entry) ?? entry) : entry);
  const step = (entry: unknown): unknown =>
    isObject(entry) && isObject(entry.params)
      ? { ...entry, params: Object.fromEntries(Object.entries(entry.params).map(([name, one]) => [name, value(one)])) }
      : entry;
  return (growths as unknown[]).map((growth) =>
    isObject(growth) && Array.isArray(growth.steps)
      ? { ...growth, steps: (growth.steps as unknown[]).map(step) }
      : growth,
  );
}

/**
 * Reads a scene file of any version: JSON, or a zip of `scene.json` and `files/`.
 * @throws Problem that names the place in the file and the reason, for anything that is not a sound scene
 */
export async function readSceneFile(bytes: Uint8Array): Promise<PackedScene> {
  if (isZip(bytes)) return readZip(bytes);
  if (bytes.length > LIMITS.fileText) throw tooLarge(bytes.length, LIMITS.fileText);
  const { document, files } = unpackScene(parseJson(strFromU8(bytes)));
  return { scene: checkScene(document), files };
}

/**
 * Reads all scenes of a file: a scene file, or a zip of scene files as `packScenes` makes them.
 * @throws Problem that names the scene, the place in it and the reason
 */
export async function readSceneFiles(bytes: Uint8Array): Promise<PackedScene[]> {
  if (!isZip(bytes)) return [await readSceneFile(bytes)];
  const many = (name: string): boolean => /^[^/]+\.(json|zip)$/.test(name);
  const entries = unzipFiles(bytes, (name) => name === 'scene.json' || name.startsWith('files/') || many(name));
  if (entries['scene.json']) return [await readSceneFile(bytes)];
  const names = Object.keys(entries).filter(many);
  checkCount(names.length);
  // Says what it is that is missing.
  if (names.length === 0) return [await readSceneFile(bytes)];
  const scenes: PackedScene[] = [];
  for (const name of names) {
    try {
      scenes.push(await readSceneFile(entries[name]));
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      throw new Problem(`“${name}” in the zip: ${error.message}`, error.advice, error.place);
    }
  }
  return scenes;
}

/**
 * The bytes of a zip of scene files, each called after its scene.
 * @param bytesOf gives a file's bytes by its id
 */
export async function packScenes(
  scenes: readonly Scene[],
  bytesOf: (id: string) => Promise<Uint8Array | undefined>,
): Promise<Uint8Array> {
  checkCount(scenes.length);
  const entries: Record<string, Uint8Array> = {};
  const taken = new Set<string>();
  for (const scene of scenes) {
    // What some system does not take in the name of a file is left out.
    const plain = scene.name.replace(/[^\p{L}\p{N} _-]/gu, '').trim() || 'Scene';
    const name = unusedName(plain, taken);
    taken.add(name);
    const { bytes, ending } = await writeSceneFile(scene, bytesOf);
    entries[`${name}.${ending}`] = bytes;
  }
  return zipFiles(entries);
}

function checkCount(scenes: number): void {
  if (scenes > LIMITS.zipScenes)
    throw new Problem(
      `${scenes} scenes are too many for one zip; ${LIMITS.zipScenes} are the most.`,
      'Divide them among several zips.',
    );
}

const tooLarge = (bytes: number, most: number): Problem =>
  new Problem(`The file holds ${Math.round(bytes / 1e6)} MB; ${most / 1e6} MB is the most.`, 'Choose a smaller one.');

async function readZip(bytes: Uint8Array): Promise<PackedScene> {
  const { text, filesOf } = await readWithFiles(bytes, 'scene.json');
  const scene = checkScene(parseJson(text));
  return { scene, files: filesOf(scene.files) };
}

/**
 * Reads a zip of a text and `files/` beside it.
 * @param name the entry that holds the text
 * @returns the text, and what gives the bytes of the files that it names
 * @throws Problem where one is missing or damaged
 */
export async function readWithFiles(
  bytes: Uint8Array,
  name: string,
): Promise<{ text: string; filesOf: (named: Scene['files']) => Map<string, Uint8Array> }> {
  const entries = unzipFiles(bytes, (entry) => entry === name || entry.startsWith('files/'));
  const text = entries[name];
  if (!text) throw new Problem(`The zip holds no ${name}.`, 'Choose a file that Uvrex saved.', { path: name });
  const filesOf = (named: Scene['files']): Map<string, Uint8Array> => {
    const files = new Map<string, Uint8Array>();
    for (const { id, name } of named) {
      const path = Object.keys(entries).find((entry) => entry.startsWith(`files/${id}`));
      if (!path) throw new Problem(`The zip lacks the file “${name}”.`, 'Export it again.', { path: `files/${id}` });
      if (fileId(entries[path]) !== id)
        throw new Problem(`The file “${name}” in the zip is damaged.`, 'Export it again.', { path });
      files.set(id, entries[path]);
    }
    return files;
  };
  return { text: strFromU8(text), filesOf };
}

const ENDINGS = { svg: 'svg', font: 'font', sound: 'wav', form: 'form', table: 'csv', picture: 'png' } as const;

/** How the name of a file in a zip ends: of a picture by what it is (a JPEG begins with FF). */
const endingOf = (kind: keyof typeof ENDINGS, bytes: Uint8Array): string =>
  kind === 'picture' && bytes[0] === 0xff ? 'jpg' : ENDINGS[kind];

/**
 * The bytes of a scene file: plain JSON without files, a zip of `scene.json` and `files/` with them. Files that no step
 * uses stay behind.
 * @param bytesOf gives a file's bytes by its id
 */
export async function writeSceneFile(
  scene: Scene,
  bytesOf: (id: string) => Promise<Uint8Array | undefined>,
): Promise<{ bytes: Uint8Array; ending: 'json' | 'zip' }> {
  const text = writeScene(scene);
  const { files } = JSON.parse(text) as Pick<Scene, 'files'>;
  return writeWithFiles('scene.json', text, files, bytesOf);
}

/** The bytes of a text with the files that it names: the text alone without any, a zip of it and `files/` with them. */
export async function writeWithFiles(
  entry: string,
  text: string,
  files: Scene['files'],
  bytesOf: (id: string) => Promise<Uint8Array | undefined>,
): Promise<{ bytes: Uint8Array; ending: 'json' | 'zip' }> {
  if (files.length === 0) return { bytes: strToU8(text), ending: 'json' };
  const entries: Record<string, Uint8Array> = { [entry]: strToU8(text) };
  for (const { id, name, kind } of files) {
    const bytes = await bytesOf(id);
    if (!bytes) throw new Problem(`The file “${name}” is not on this device.`, 'Load it again, or take its step out.');
    entries[`files/${id}.${endingOf(kind, bytes)}`] = bytes;
  }
  return { bytes: zipFiles(entries), ending: 'zip' };
}
