import type { Scene } from '@uvrex/core';
import { PictureMaker } from '@/export/pictureMaker';
import { drawnBySoftware } from '@/viewport/rendering';

export const FILM = { width: 480, height: 270 } as const;
/** The most pictures of a film: half a megabyte each. */
const MOST = 72;

/** The frames that stand for a range: all of them, or every second, third … */
export function momentsOf([first, last]: readonly [number, number]): number[] {
  const step = Math.ceil((last - first + 1) / MOST);
  return Array.from({ length: Math.floor((last - first) / step) + 1 }, (_, i) => first + i * step);
}

/**
 * Makes small pictures of scenes, the same frames of each in turn.
 * @param take is given each picture as it is made, with which scene it is of
 * @throws Error that names the growth where one has a problem
 */
export async function makeFilms(
  scenes: readonly Scene[],
  frames: readonly number[],
  signal: AbortSignal,
  take: (scene: number, frame: number, picture: ImageBitmap) => void,
): Promise<void> {
  const quality = drawnBySoftware() ? 'draft' : 'standard';
  const makers = scenes.map((scene) => new PictureMaker(scene, { ...FILM, quality }));
  try {
    for (const frame of frames)
      for (let i = 0; i < makers.length; i++) {
        await makers[i].draw(frame);
        if (signal.aborted) return;
        take(i, frame, await createImageBitmap(makers[i].canvas));
      }
  } finally {
    for (const maker of makers) maker.dispose();
  }
}
