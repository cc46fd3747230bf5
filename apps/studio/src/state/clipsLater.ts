import { sayProblem } from '@/ui/Toasts';
import { afterFirstPicture } from '@/viewport/afterPicture';
import type * as ClipsModule from './clips';

type Clips = typeof ClipsModule;

/** Copying and pasting are loaded once the first picture is there, or when they are first asked for. */
const clips = (): Promise<Clips> => import('./clips');

/** Milliseconds after the first picture. */
const SOON = 900;

/** Does something with what copies and pastes. */
export const withClips = (work: (clips: Clips) => unknown): void => void clips().then(work).catch(sayProblem);

/** Listens to the browser's own copy and paste from soon on. @returns what stops it */
export function startClipboardSoon(): () => void {
  let stop: (() => void) | null = null;
  let gone = false;
  const callOff = afterFirstPicture(
    () =>
      withClips(({ startClipboard }) => {
        if (!gone) stop = startClipboard();
      }),
    SOON,
  );
  return () => {
    gone = true;
    callOff();
    stop?.();
  };
}
