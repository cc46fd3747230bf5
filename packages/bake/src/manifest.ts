import { readFile, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { digest, type PackedScene, writeScene } from '@uvrex/core';
import type { BakeOptions } from './args';
import { writeWhole } from './frame';

/** What stands in `manifest.json` beside baked frames: what they were made of, and which are done. */
export interface Manifest {
  /** Scene, growth and format, as one text: frames of another are not these. */
  of: string;
  scene: string;
  format: string;
  growth: string | null;
  /** Files by their frames, with their sizes in bytes. */
  frames: Record<string, { file: string; bytes: number }>;
}

const NAME = 'manifest.json';

/** A manifest with no frame yet. */
export const emptyManifest = ({ scene }: PackedScene, { format }: BakeOptions, growth: string | null): Manifest => ({
  // Files are named by the hash of their bytes: the scene's text says all.
  of: digest(`${writeScene(scene)} ${format} ${growth ?? ''}`),
  scene: scene.name,
  format,
  growth,
  frames: {},
});

/** The manifest of an earlier bake of the very same into a folder, without frames whose files are gone or of another size. */
export async function earlierManifest(out: string, wanted: Manifest): Promise<Manifest> {
  let found: Partial<Manifest> | null;
  try {
    found = JSON.parse(await readFile(join(out, NAME), 'utf8')) as Partial<Manifest> | null;
  } catch {
    return wanted;
  }
  // One that is damaged counts as none.
  if (found?.of !== wanted.of || typeof found.frames !== 'object') return wanted;
  const frames: Manifest['frames'] = {};
  for (const [frame, entry] of Object.entries(found.frames ?? {})) {
    if (typeof entry?.file !== 'string') continue;
    const size = await stat(join(out, entry.file)).then(
      ({ size: bytes }) => bytes,
      () => -1,
    );
    if (size === entry.bytes) frames[frame] = entry;
  }
  return { ...wanted, frames };
}

export const writeManifest = (out: string, manifest: Manifest): Promise<void> =>
  writeWhole(join(out, NAME), `${JSON.stringify(manifest, null, 2)}\n`);
