import type { Scene } from '@uvrex/core';

/**
 * What was not kept yet when the page went: the browser's database may be cut off then, its plain storage is not.
 */
interface LastWords {
  changed: number;
  scene: Scene;
}

const nameOf = (id: string): string => `uvrex-last-words:${id}`;

/** Writes a scene down at once. Gives false where there is no room for it. */
export function writeLastWords(id: string, scene: Scene): boolean {
  try {
    localStorage.setItem(nameOf(id), JSON.stringify({ changed: Date.now(), scene } satisfies LastWords));
    return true;
  } catch {
    return false;
  }
}

/** What was written down after a moment, milliseconds since 1970; null where nothing was. */
export function readLastWords(id: string, after: number): unknown {
  try {
    const words = JSON.parse(localStorage.getItem(nameOf(id)) ?? 'null') as LastWords | null;
    return words && words.changed > after ? words.scene : null;
  } catch {
    return null;
  }
}

export const forgetLastWords = (id: string): void => {
  try {
    localStorage.removeItem(nameOf(id));
  } catch {
    // Storage that cannot be reached holds nothing either.
  }
};
