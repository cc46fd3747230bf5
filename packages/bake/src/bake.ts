import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { Piscina } from 'piscina';
import { Problem, type PackedScene, type Scene } from '@uvrex/core';
import { readSceneFile } from '@uvrex/core/files';
import { type BakeOptions } from './args';
import { type FrameJob } from './frame';
import { COLUMNS } from './measure';

/**
 * Bakes a range of frames, spread over all cores.
 * @param progress told after each frame
 * @returns the files written, or the one table
 * @throws Problem on a scene that cannot be read, a growth that is not there, or a step that fails
 */
export async function bake(
  options: BakeOptions,
  progress: (done: number, total: number) => void = () => {},
): Promise<string[]> {
  const { scene, files } = await sceneFrom(options.scene);
  const growth = growthId(scene, options.growth);
  const [first, last] = options.frames;
  const frames = Array.from({ length: last - first + 1 }, (_, i) => first + i);
  try {
    await mkdir(options.out, { recursive: true });
  } catch (error) {
    throw new Problem(
      `The folder ${options.out} cannot be made: ${(error as Error).message}.`,
      'Let --out name a folder, or one that can be made.',
    );
  }

  const threads = Math.min(options.cores ?? availableParallelism(), frames.length);
  const pool = new Piscina<FrameJob, { rows: string[] } | { problem: string; advice: string }>({
    filename: new URL('./thread.mjs', import.meta.url).href,
    workerData: { scene, files },
    minThreads: threads,
    maxThreads: threads,
  });
  try {
    let done = 0;
    const rows = await Promise.all(
      frames.map(async (frame) => {
        const result = await pool.run({ frame, format: options.format, out: options.out, growth });
        if ('problem' in result) throw new Problem(result.problem, result.advice);
        progress(++done, frames.length);
        return result.rows;
      }),
    );
    if (options.format !== 'csv')
      return frames.map((frame) => join(options.out, `frame_${String(frame).padStart(4, '0')}.${options.format}`));
    const table = join(options.out, 'growth.csv');
    await writeFile(`${table}.part`, `${[COLUMNS.join(','), ...rows.flat()].join('\r\n')}\r\n`);
    await rename(`${table}.part`, table);
    return [table];
  } finally {
    await pool.destroy();
  }
}

async function sceneFrom(file: string): Promise<PackedScene> {
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
  const found = scene.growths.find((growth) => growth.name === name);
  if (found) return found.id;
  const names = scene.growths.map((growth) => `“${growth.name}”`).join(', ');
  throw new Problem(`The scene has no growth named “${name}”.`, `It has ${names || 'none at all'}.`);
}
