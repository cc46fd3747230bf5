import { type Asset, digest, Problem } from '@uvrex/core';
import { edit, useDocument } from './document';

/** What a file of each kind may be called, and how large it may be in megabytes. */
export const ASSET_FILES: Record<Asset['kind'], { accept: string; most: number; word: string }> = {
  svg: { accept: '.svg,image/svg+xml', most: 20, word: 'SVG' },
  font: { accept: '.ttf,.otf,.woff,font/ttf,font/otf,font/woff', most: 32, word: 'font' },
  sound: { accept: '.wav,audio/wav,audio/x-wav', most: 32, word: 'WAV' },
};

/**
 * Takes a file into the scene. The same file taken twice is kept once.
 * @returns the id by which steps refer to it
 * @throws Problem when the file is too large
 */
export async function takeFile(kind: Asset['kind'], file: File): Promise<string> {
  const { most, word } = ASSET_FILES[kind];
  if (file.size > most * 1e6)
    throw new Problem(
      `“${file.name}” is of ${(file.size / 1e6).toFixed(1)} MB; ${most} MB is the most for a ${word} file.`,
      'Choose a smaller one.',
    );
  const data = await base64Of(file);
  const id = `${kind}-${digest(data)}`;
  if (!useDocument.getState().scene.assets.some((asset) => asset.id === id))
    edit(`Take in ${file.name}`, (draft) => {
      draft.assets.push({ id, name: file.name.slice(0, 120) || word, kind, data });
    });
  return id;
}

function base64Of(file: File): Promise<string> {
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve((reader.result as string).replace(/^[^,]*,/, ''));
    reader.onerror = () => reject(new Problem(`“${file.name}” could not be read.`, 'Choose it again.'));
    reader.readAsDataURL(file);
  });
}
