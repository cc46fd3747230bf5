import { create } from 'zustand';

/** Ids of the scene's files that are read again when they change on this machine. */
export const useWatched = create<{ ids: ReadonlySet<string> }>(() => ({ ids: new Set() }));

let stop: (() => void) | null = null;

/** Says how to end the watching that has begun. */
export function setWatcher(end: () => void): void {
  stop = end;
}

/** Ends the watching of files, where any are watched. */
export function endWatching(): void {
  stop?.();
  stop = null;
  useWatched.setState({ ids: new Set() });
}
