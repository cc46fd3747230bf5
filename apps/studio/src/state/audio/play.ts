import { useDocument } from '../document/document';
import { useResults } from '../director/results';
import { setView, useView } from '../document/view';

/**
 * Moves the playhead in real time while playing. A frame that is not ready holds the playhead rather than being
 * skipped, so the first pass shows every frame; from then on it keeps the scene's rate.
 */
export function startPlaying(): () => void {
  let handle = 0;
  let started = 0;
  let origin = 0;
  const restart = (frame: number): void => {
    started = performance.now();
    origin = frame;
  };
  const tick = (): void => {
    const { playing, frame } = useView.getState();
    if (!playing) return;
    handle = requestAnimationFrame(tick);
    const { scene } = useDocument.getState();
    const [first, last] = scene.range;
    // What is wanted must be on screen before the next is asked for.
    const { record, lost } = useResults.getState();
    if (record?.frame !== frame) {
      // What lost the engine is not tried again by itself.
      if (lost) setView({ playing: false });
      restart(frame);
      return;
    }
    const target = origin + Math.floor(((performance.now() - started) / 1000) * scene.fps);
    if (target <= frame) return;
    const { ready } = useResults.getState();
    let next = frame;
    while (next < target && next < last && ready.has(next + 1)) next++;
    if (next === frame && next < last) next = frame + 1;
    if (target > last) {
      if (!scene.loop) {
        setView({ frame: last, playing: false });
        return;
      }
      next = first;
      restart(first);
    } else if (next < target) restart(next);
    setView({ frame: next });
  };
  const stop = useView.subscribe((now, before) => {
    if (now.playing === before.playing) return;
    cancelAnimationFrame(handle);
    if (!now.playing) return;
    const [first, last] = useDocument.getState().scene.range;
    const frame = now.frame >= last || now.frame < first ? first : Math.round(now.frame);
    restart(frame);
    if (frame !== now.frame) setView({ frame });
    handle = requestAnimationFrame(tick);
  });
  return () => {
    stop();
    cancelAnimationFrame(handle);
  };
}
