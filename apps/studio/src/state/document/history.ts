import { applyPatches, enablePatches, type Patch, produceWithPatches } from 'immer';
import { sameContent } from './sameContent';

enablePatches();

/** One undoable change. */
interface Entry {
  label: string;
  patches: Patch[];
  inverse: Patch[];
  /** Changes with the same key in a row are one entry: a drag, a burst of typing. */
  merge: string | null;
  /** The value before it, while it is open for more: a drag that comes back to that is no change. */
  from?: object;
}

/** Entries of undo and redo, the latest last and first. */
export interface History {
  past: readonly Entry[];
  future: readonly Entry[];
}

/** A history without entries. */
export const emptyHistory: History = { past: [], future: [] };

const KEPT = 300;

/** Applies a recipe to a value and records how to take it back. Nothing is recorded when nothing changed. */
export function change<T extends object>(
  value: T,
  history: History,
  label: string,
  recipe: (draft: T) => void,
  merge: string | null = null,
): { value: T; history: History } {
  const [next, patches, inverse] = produceWithPatches(value, (draft) => {
    recipe(draft as T);
  });
  if (patches.length === 0 || sameContent(value, next)) return { value, history };
  const last = history.past.at(-1);
  const joins = merge !== null && last?.merge === merge && history.future.length === 0;
  const entry: Entry = joins
    ? { ...last, patches: [...last.patches, ...patches], inverse: [...inverse, ...last.inverse] }
    : { label, patches, inverse, merge, ...(merge !== null && { from: value }) };
  const past = joins ? history.past.slice(0, -1) : history.past;
  return { value: next, history: { past: [...past, entry].slice(-KEPT), future: [] } };
}

/**
 * Closes the last entry, so that the next change with the same key is an entry of its own. One that came back to where it began
 * goes.
 * @param value as it is now
 */
export function seal(history: History, value: object): History {
  const last = history.past.at(-1);
  if (!last?.merge) return history;
  const { from, ...closed } = last;
  const rest = history.past.slice(0, -1);
  return { ...history, past: from && sameContent(from, value) ? rest : [...rest, { ...closed, merge: null }] };
}

/** Takes the last change back; null when there is none. */
export function undo<T extends object>(
  value: T,
  { past, future }: History,
): { value: T; history: History; label: string } | null {
  const entry = past.at(-1);
  if (!entry) return null;
  return {
    value: applyPatches(value, entry.inverse),
    history: { past: past.slice(0, -1), future: [entry, ...future] },
    label: entry.label,
  };
}

/** Does the change again that was taken back last; null when there is none. */
export function redo<T extends object>(
  value: T,
  { past, future }: History,
): { value: T; history: History; label: string } | null {
  const [entry, ...rest] = future;
  if (!entry) return null;
  return {
    value: applyPatches(value, entry.patches),
    history: { past: [...past, entry], future: rest },
    label: entry.label,
  };
}
