import { Problem } from '@uvrex/core';

/** Why the browser's store cannot be used, in words. */
export function storeProblem(error: unknown): Problem {
  if (error instanceof Problem) return error;
  const reason = error instanceof Error ? `${error.name}: ${error.message}` : String(error);
  return new Problem(
    'This browser does not let Uvrex keep scenes.',
    `Its store (IndexedDB) could not be opened: ${reason}. Leave private browsing, allow the site to keep data, or make room on the disk, and load the page again.`,
  );
}
