import { sayProblem } from '@/ui/Toasts';
import type * as ClipsModule from './clips';

type Clips = typeof ClipsModule;

/** Copying and pasting are loaded once the first picture is there, or when they are first asked for. */
const clips = (): Promise<Clips> => import('./clips');

/** Milliseconds after the studio has opened. */
const SOON = 1500;

/** Does something with what copies and pastes. */
export const withClips = (work: (clips: Clips) => unknown): void => void clips().then(work).catch(sayProblem);

/** Listens to the browser's own copy and paste from soon on. @returns what stops it */
export function startClipboardSoon(): () => void {
  let stop: (() => void) | null = null;
  let gone = false;
  const timer = setTimeout(
    () =>
      withClips(({ startClipboard }) => {
        if (!gone) stop = startClipboard();
      }),
    SOON,
  );
  return () => {
    gone = true;
    clearTimeout(timer);
    stop?.();
  };
}

/** Keeps a growth, or one of its steps, among one's cuttings. */
export const keepAsCutting = (growth: string, step?: string): void =>
  void import('./cuttings').then(({ keepCutting }) => keepCutting(growth, step)).catch(sayProblem);
