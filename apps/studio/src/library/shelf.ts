import type { StoredScene } from '@/store/db';

export const SORTS = { changed: 'Last changed first', first: 'Oldest first', name: 'By name' } as const;
export type Sort = keyof typeof SORTS;

/** What of one's own scenes is shown, and in what order. */
export interface Wanted {
  find: string;
  sort: Sort;
  /** A folder by its name; null for all scenes. */
  folder: string | null;
}

const nameOf = ({ name }: StoredScene): string => (typeof name === 'string' ? name : '');
const when = ({ changed }: StoredScene): number => Number(changed) || 0;

const ORDERS: Record<Sort, (a: StoredScene, b: StoredScene) => number> = {
  changed: (a, b) => when(b) - when(a),
  first: (a, b) => when(a) - when(b),
  // Reef 2 before reef 10.
  name: (a, b) => nameOf(a).localeCompare(nameOf(b), 'en', { numeric: true, sensitivity: 'base' }),
};

/** The scenes that are wanted, in order: found by their names and those of their growths. */
export function arrangeShelf(scenes: readonly StoredScene[], { find, sort, folder }: Wanted): StoredScene[] {
  const words = find.toLowerCase().split(/\s+/).filter(Boolean);
  const fits = (stored: StoredScene): boolean => {
    const growths = Array.isArray(stored.scene?.growths) ? stored.scene.growths.map(({ name }) => name) : [];
    const text = [nameOf(stored), ...growths].join('\n').toLowerCase();
    return words.every((word) => text.includes(word));
  };
  return scenes.filter((stored) => (folder === null || stored.folder === folder) && fits(stored)).sort(ORDERS[sort]);
}

/** The folders that scenes lie in, by name. */
export const foldersOf = (scenes: readonly StoredScene[]): string[] =>
  [...new Set(scenes.flatMap(({ folder }) => folder ?? []))].sort((a, b) =>
    a.localeCompare(b, 'en', { numeric: true }),
  );
