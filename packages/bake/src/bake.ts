import { mkdir, readFile, stat } from 'node:fs/promises';
import { availableParallelism } from 'node:os';
import { dirname, join, resolve } from 'node:path';
import { Piscina } from 'piscina';
import { Problem, type PackedScene, type Scene } from '@uvrex/core';
import { readSceneFile } from '@uvrex/core/files';
import { geometryFormat, partNames } from '@uvrex/formats';
import type { BakeOptions } from './args';
import { type FrameDone, type FrameJob, writeProblem, writeWhole } from './frame';
import { earlierManifest, emptyManifest, writeManifest } from './manifest';

/** Milliseconds after which the manifest is written again while frames come in. */
const NOTE = 2000;

/**
 * Bakes a range of frames, spread over all cores. A manifest beside frame files tells which are done, so that a bake that was
 * broken off can be resumed.
 * @param thread the file, as a URL, whose default export bakes a frame ({@link FrameJob}) in a thread
 * @param progress told after each frame
 * @returns the files of all frames, or the one table
 * @throws Problem on a scene that cannot be read, a growth that is not there, or a step that fails
 */
export async function bake(
  options: BakeOptions,
  thread: string,
  progress: (done: number, total: number) => void = () => {},
): Promise<string[]> {
  const packed = await sceneFrom(options.scene);
  const { scene } = packed;
  const growth = growthId(scene, options.growth);
  const format = geometryFormat(options.format);
  const [first, last] = options.frames;
  const frames = Array.from({ length: last - first + 1 }, (_, i) => first + i);
  await makeFolder(resolve(options.out));
  const fresh = emptyManifest(packed, options, growth);
  // A table is one file: it is made as a whole.
  const manifest = options.resume && format.takes === 'frame' ? await earlierManifest(options.out, fresh) : fresh;
  const left = frames.filter((frame) => !(frame in manifest.frames));
  let done = frames.length - left.length;
  if (done > 0) progress(done, frames.length);

  const threads = Math.max(1, Math.min(options.cores ?? availableParallelism(), left.length));
  const pool = new Piscina<FrameJob, FrameDone | { problem: string; advice: string }>({
    filename: thread,
    workerData: packed,
    minThreads: threads,
    maxThreads: threads,
  });
  const note = notes(() => writeManifest(options.out, manifest));
  try {
    const pieces = await Promise.all(
      left.map(async (frame) => {
        const result = await pool.run({ frame, format: options.format, out: options.out, growth });
        if ('problem' in result) throw new Problem(result.problem, result.advice);
        const { file, piece } = result;
        if (file) manifest.frames[frame] = { file: file.name, bytes: file.bytes };
        if (file) await note();
        progress(++done, frames.length);
        return piece ?? new Uint8Array(0);
      }),
    );
    if (format.takes === 'frame') return frames.map((frame) => join(options.out, manifest.frames[frame].file));
    const table = join(options.out, `growth.${format.ending}`);
    await writeWhole(table, Buffer.concat([await format.open(scene), ...pieces, await format.close(scene)]));
    return [table];
  } finally {
    await pool.destroy();
    // What has gone wrong with the frames is what counts.
    if (format.takes === 'frame') await writeManifest(options.out, manifest).catch(() => undefined);
  }
}

/** Writes now and then, never twice at once. */
function notes(write: () => Promise<void>): () => Promise<void> {
  let last = performance.now();
  return async () => {
    if (performance.now() - last < NOTE) return;
    last = Infinity;
    await write();
    last = performance.now();
  };
}

/** Makes a folder and those that it lies in, one after another: made at once, some places never answer. */
async function makeFolder(folder: string): Promise<void> {
  if (
    await stat(folder).then(
      (there) => there.isDirectory(),
      () => false,
    )
  )
    return;
  if (dirname(folder) !== folder) await makeFolder(dirname(folder));
  await mkdir(folder).catch((error: unknown) => {
    throw writeProblem(folder, error);
  });
}

async function sceneFrom(file: string): Promise<PackedScene> {
  const there = await stat(file).catch(() => null);
  if (there && !there.isFile()) throw new Problem(`${file} is no file.`, 'Name a scene file that Uvrex saved.');
  let bytes: Uint8Array;
  try {
    bytes = await readFile(file);
  } catch {
    throw new Problem(`The scene file ${file} cannot be read.`, 'Check its name and place.');
  }
  return readSceneFile(bytes);
}

function growthId(scene: Scene, name: string | undefined): string | null {
  if (name === undefined) return null;
  const names = partNames(scene);
  const found = [...names].find(([, called]) => called === name);
  if (found) return found[0];
  const known = [...names.values()].map((called) => `“${called}”`).join(', ');
  throw new Problem(`The scene has no growth named “${name}”.`, `It has ${known || 'none at all'}.`);
}
