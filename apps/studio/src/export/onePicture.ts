import type { Scene } from '@uvrex/core';
import { PictureMaker } from './pictureMaker';

/** Width and height of small pictures that are kept. */
const SIZE = { width: 320, height: 200 } as const;

/**
 * A small picture of a scene from where everything of it is to be seen.
 * @returns null where the browser cannot write it
 * @throws Error that names the growth when one has a problem
 */
export async function onePicture(scene: Scene, frame: number): Promise<Blob | null> {
  const maker = new PictureMaker(scene, { ...SIZE, quality: 'draft' });
  try {
    await maker.draw(frame, 'afar');
    return await maker.blob();
  } finally {
    maker.dispose();
  }
}
