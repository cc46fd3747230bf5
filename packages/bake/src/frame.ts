import { rename, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Evaluator, type Files, Problem, type Scene } from '@uvrex/core';
import { frameName, geometryFormat, type GeometryFormatId, partsOf } from '@uvrex/formats';
import { shipped } from './shipped';

export interface FrameJob {
  frame: number;
  format: GeometryFormatId;
  out: string;
  /** Id of the one growth wanted, or null for all visible ones. */
  growth: string | null;
}

/** What baking a frame has come to. */
export interface FrameDone {
  /** Name of the file written, and its bytes; null for formats that make one file of all. */
  file: { name: string; bytes: number } | null;
  /** What the frame adds to that one file. */
  piece: Uint8Array | null;
}

/** Evaluates frames of one scene and writes them; keeps its evaluator from frame to frame. */
export class FrameBaker {
  readonly #evaluator: Evaluator;

  constructor(
    readonly scene: Scene,
    files: Files,
  ) {
    this.#evaluator = new Evaluator({ now: () => performance.now(), shipped, file: async (id) => files.get(id) });
  }

  /**
   * Bakes one frame into the folder, which is there.
   * @throws Problem when a step of a wanted growth fails
   */
  async bake({ frame, format: id, out, growth }: FrameJob): Promise<FrameDone> {
    const { growths } = await this.#evaluator.evaluate(
      this.scene,
      frame,
      undefined,
      growth ? new Set([growth]) : undefined,
    );
    const format = geometryFormat(id);
    const bytes = await format.write(frame, partsOf(this.scene, frame, growths), this.scene, (file) =>
      this.#evaluator.bytesOf(this.scene, file),
    );
    if (format.takes === 'sequence') return { file: null, piece: bytes };
    const name = frameName('frame', frame, format.ending);
    await writeWhole(join(out, name), bytes);
    return { file: { name, bytes: bytes.length }, piece: null };
  }
}

/** Why files cannot be written, by what the system calls it. */
const REASONS: Record<string, string> = {
  ENOSPC: 'there is no room left on that disk',
  EDQUOT: 'there is no room left for you on that disk',
  EROFS: 'that disk can only be read',
  EACCES: 'the folder may not be written to',
  EPERM: 'the folder may not be written to',
  ENOENT: 'the folder is not there, or takes no files',
  ENOTDIR: 'a part of its path is a file',
};

/** What to tell where a file or folder cannot be written. */
export const writeProblem = (file: string, error: unknown): Problem =>
  new Problem(
    `${file} cannot be written: ${REASONS[(error as NodeJS.ErrnoException).code ?? ''] ?? 'the system refuses it'}.`,
    'Make room, or let --out name another folder.',
  );

/** Whole or not at all: a bake that is broken off leaves no half file under a finished one's name. */
export async function writeWhole(file: string, bytes: Uint8Array | string): Promise<void> {
  const unfinished = `${file}.part`;
  try {
    await writeFile(unfinished, bytes);
    await rename(unfinished, file);
  } catch (error) {
    await rm(unfinished, { force: true }).catch(() => undefined);
    throw writeProblem(file, error);
  }
}
