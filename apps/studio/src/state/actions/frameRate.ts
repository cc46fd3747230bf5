import type { Scene } from '@uvrex/core';
import { say, sayProblem } from '../../ui/Toasts';
import { edit, endEdit, useDocument } from '../document/document';

/**
 * Changes the frames per second. Keys keep their frames; one click gives them their seconds back.
 * @param live whether it is still being dragged
 */
export function changeFrameRate(next: number, live = false): void {
  before ??= useDocument.getState().scene;
  edit('Change frames per second', (scene) => void (scene.fps = next), 'scene:fps');
  if (live) return;
  endEdit();
  const then = before;
  before = null;
  if (then.fps === next) return;
  say({
    tone: 'info',
    text: `${then.fps} to ${next} frames per second: all keys keep their frames, so that motion is ${next > then.fps ? 'faster' : 'slower'}.`,
    action: { label: 'Keep the seconds', run: () => void keepSeconds(then, next) },
  });
}

/** The scene before the change that is under way. */
let before: Scene | null = null;

async function keepSeconds(then: Scene, fps: number): Promise<void> {
  try {
    const { retimed } = await import('@uvrex/core/page');
    const now = useDocument.getState().scene;
    const anew = retimed({ ...now, fps: then.fps }, fps);
    edit('Keep the seconds of all keys', (scene) => void Object.assign(scene, anew));
    endEdit();
  } catch (error) {
    sayProblem(error);
  }
}
