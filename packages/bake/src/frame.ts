import { mkdir, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Evaluator, type Files, Problem, type Scene } from '@uvrex/core';
import { glbBytes, objText } from '@uvrex/formats';
import { type BakeFormat } from './args';
import { measureRow } from './measure';
import { shipped } from './shipped';

export interface FrameJob {
  frame: number;
  format: BakeFormat;
  out: string;
  /** Id of the one growth wanted, or null for all visible ones. */
  growth: string | null;
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
   * Bakes one frame.
   * @returns lines of the growth table; empty for formats that write a file a frame
   * @throws Problem when a step of a wanted growth fails
   */
  async bake({ frame, format, out, growth }: FrameJob): Promise<string[]> {
    const { growths } = await this.#evaluator.evaluate(
      this.scene,
      frame,
      undefined,
      growth ? new Set([growth]) : undefined,
    );
    const parts = growths.map((result) => {
      const { name } = this.scene.growths.find(({ id }) => id === result.id)!;
      const notice = result.notices.find(({ level }) => level === 'error');
      if (!result.form)
        throw new Problem(
          `Frame ${frame}, growth “${name}”: ${notice?.what ?? 'it has no result.'}`,
          notice?.advice ?? '',
          notice?.place,
        );
      const milliseconds = result.costs.reduce((sum, cost) => sum + cost.milliseconds, 0);
      return { ...result.form, name, share: result.share, milliseconds, form: result.form };
    });
    if (format === 'csv')
      return parts.map((part) => measureRow(frame, part.name, part.form, part.share, part.milliseconds));
    await mkdir(out, { recursive: true });
    const file = join(out, `frame_${String(frame).padStart(4, '0')}.${format}`);
    // Whole or not at all: a bake that is broken off leaves no half file under a frame's name.
    const unfinished = `${file}.part`;
    await writeFile(unfinished, format === 'obj' ? objText(parts) : await glbBytes(parts, this.scene.name));
    await rename(unfinished, file);
    return [];
  }
}
