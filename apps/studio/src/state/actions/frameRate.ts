import { say, sayProblem } from '../toasts';
import { edit, endEdit, useDocument } from '../document/document';
import { setView } from '../document/view';

/**
 * Changes the frames per second. Keys keep their frames; one click gives them their seconds back.
 * @param live whether it is still being dragged
 */
export function changeFrameRate(next: number, live = false): void {
  before ??= useDocument.getState().scene.fps;
  const done = edit('Change frames per second', (scene) => void (scene.fps = next), { merge: 'scene:fps' });
  if (live) return;
  endEdit();
  const then = before;
  before = null;
  // What the scene took may be another number than what was asked for.
  const { fps } = useDocument.getState().scene;
  if (!done || then === fps) return;
  say({
    tone: 'info',
    text: `${then} to ${fps} frames per second: all keys keep their frames, so that motion is ${fps > then ? 'faster' : 'slower'}.`,
    action: { label: 'Keep the seconds', run: () => void keepSeconds(then, fps) },
  });
}

/** Frames per second before the drag that is under way. */
let before: number | null = null;

async function keepSeconds(then: number, fps: number): Promise<void> {
  try {
    const { retimeScene } = await import('@uvrex/core/page');
    const now = useDocument.getState().scene;
    const anew = retimeScene({ ...now, fps: then }, fps);
    if (!edit('Keep the seconds of all keys', (scene) => void Object.assign(scene, anew))) return;
    // The playhead stays at its moment too.
    const [first, last] = anew.range;
    setView(({ frame }) => ({ frame: Math.min(last, Math.round(first + ((frame - first) * fps) / then)) }));
  } catch (error) {
    sayProblem(error);
  }
}
