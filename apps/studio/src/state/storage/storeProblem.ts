import { Problem } from '@uvrex/core';
import { isQuota } from '@/state/isQuota';

/** Why the browser's store cannot be opened, in words. */
export function storeProblem(error: unknown): Problem {
  if (error instanceof Problem) return error;
  const { name } = (error ?? {}) as { name?: string };
  const reason = isQuota(error)
    ? 'there is no room left on this device'
    : name === 'VersionError'
      ? 'it was made by a newer Uvrex'
      : 'the browser refuses it';
  return new Problem(
    'This browser does not let Uvrex keep scenes.',
    `Its store (IndexedDB) could not be opened: ${reason}. Leave private browsing, allow the site to keep data, or make room on the disk, and load the page again.`,
  );
}
