import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { Piscina } from 'piscina';
import { Problem, readScene, type Scene } from '@uvrex/core';
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
  const scene = await sceneFrom(options.scene);
  const growth = growthId(scene, options.growth);
  const [first, last] = options.frames;
  const frames = Array.from({ length: last - first + 1 }, (_, i) => first + i);
  await mkdir(options.out, { recursive: true });

  const threads = Math.min(options.cores ?? availableParallelism(), frames.length);
  const pool = new Piscina<FrameJob, { rows: string[] } | { problem: string; advice: string }>({
    filename: new URL('./thread.mjs', import.meta.url).href,
    workerData: { scene },
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
    await writeFile(table, `${[COLUMNS.join(','), ...rows.flat()].join('\r\n')}\r\n`);
    return [table];
  } finally {
    await pool.destroy();
  }
}

async function sceneFrom(file: string): Promise<Scene> {
  let text: string;
  try {
    text = await readFile(file, 'utf8');
  } catch {
    throw new Problem(`The scene file ${file} cannot be read.`, 'Check its name and place.');
  }
  return readScene(text);
}

function growthId(scene: Scene, name: string | undefined): string | null {
  if (name === undefined) return null;
  const found = scene.growths.find((growth) => growth.name === name);
  if (found) return found.id;
  const names = scene.growths.map((growth) => `“${growth.name}”`).join(', ');
  throw new Problem(`The scene has no growth named “${name}”.`, `It has ${names || 'none at all'}.`);
}
