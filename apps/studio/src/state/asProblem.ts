import { Problem } from '@uvrex/core';
import { isQuota } from './isQuota';

const NO_ROOM = (): Problem =>
  new Problem(
    'There is no room left on this device.',
    'Export what you need, delete scenes, versions or cuttings that you do not, and try it again.',
  );

/** Errors of the browser's database, and of the package that wraps it. */
const STORE =
  /^(OpenFailed|DatabaseClosed|MissingAPI|Version|InvalidState|Unknown|Abort|Transaction\w*|Bulk|Schema|DataError)/;

/** Any error in words that a person can act on; those of packages and of the browser go to the console. */
export function asProblem(error: unknown): Problem {
  if (error instanceof Problem) return error;
  const { name, message, advice = '' } = (error ?? {}) as { name?: string; message?: string; advice?: string };
  // One that has come from a worker.
  if (name === 'Problem') return new Problem(message ?? '', advice);
  if (isQuota(error)) return NO_ROOM();
  // eslint-disable-next-line no-console -- for whoever looks for the cause
  console.error(error);
  if (name === 'ChunkLoadError' || /dynamically imported module|Failed to fetch|Load failed/.test(message ?? ''))
    return new Problem('A part of Uvrex could not be loaded.', 'Check the connection, and load the page again.');
  if (name && STORE.test(name))
    return new Problem(
      "The browser's storage could not be used.",
      'Nothing was changed. Load the page again; leave private browsing where it goes on.',
    );
  return new Problem('Something unexpected went wrong.', 'Nothing is lost. Load the page again where it goes on.');
}
