import { CLIP_FORMAT } from '@uvrex/core';
import { sayProblem } from '../toasts';
import { afterFirstPicture } from '@/state/director/afterPicture';
import type * as ClipsModule from './clips';

type Clips = typeof ClipsModule;

let loaded: Clips | null = null;

/** Copying and pasting are loaded once the first picture is there, or when they are first asked for. */
const clips = (): Promise<Clips> => import('./clips').then((module) => (loaded = module));

/** Milliseconds after the first picture. */
const SOON = 900;

/** Does something with what copies and pastes. */
export const withClips = (work: (clips: Clips) => unknown): void => void clips().then(work).catch(sayProblem);

/** Whether copying and pasting are something else's: a field of text, or what lies in front. */
const elsewhere = (event: ClipboardEvent): boolean =>
  (event.target instanceof Element && event.target.closest('input,textarea,[contenteditable="true"]') !== null) ||
  document.querySelector('[role="dialog"],.MuiPopover-root') !== null;

function onCopy(event: ClipboardEvent): void {
  if (elsewhere(event) || !(window.getSelection()?.isCollapsed ?? true)) return;
  if (loaded) {
    const text = loaded.copyText();
    if (text === null) return;
    event.clipboardData?.setData('text/plain', text);
  } else
    // Not there yet: it goes to the clipboard a moment later.
    withClips(({ copyText }) => {
      const text = copyText();
      return text === null ? undefined : navigator.clipboard.writeText(text);
    });
  event.preventDefault();
}

function onPaste(event: ClipboardEvent): void {
  const text = event.clipboardData?.getData('text/plain') ?? '';
  if (elsewhere(event) || !text.includes(CLIP_FORMAT)) return;
  event.preventDefault();
  withClips(({ pasteText }) => pasteText(text));
}

/** Listens to the browser's own copy and paste, which fields of text keep for themselves. @returns what stops it */
export function startClipboard(): () => void {
  document.addEventListener('copy', onCopy);
  document.addEventListener('paste', onPaste);
  const callOff = afterFirstPicture(() => void clips().catch(() => undefined), SOON);
  return () => {
    callOff();
    document.removeEventListener('copy', onCopy);
    document.removeEventListener('paste', onPaste);
  };
}
