/** What was last told of what is new. Another edition is told again. */
const EDITION = '2026-11-28';
const SEEN = 'uvrex-seen';

/** Whether this edition's news have been seen here. @throws DOMException where the browser keeps nothing */
export const newsSeen = (): boolean => localStorage.getItem(SEEN) === EDITION;

/** Notes that they have. Where nothing is kept there is nothing to note. */
export function noteNewsSeen(): void {
  try {
    localStorage.setItem(SEEN, EDITION);
  } catch {
    // The next visit is like a first one.
  }
}
