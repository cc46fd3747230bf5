import { create } from 'zustand';

/** Ids of the scene's files that are reloaded when they change on disk. */
export const useWatched = create<{ ids: ReadonlySet<string> }>(() => ({ ids: new Set() }));

let stop: (() => void) | null = null;

/** Registers how to stop the watcher. */
export function setWatcher(end: () => void): void {
  stop = end;
}

/** Stops watching files. */
export function endWatching(): void {
  stop?.();
  stop = null;
  useWatched.setState({ ids: new Set() });
}
