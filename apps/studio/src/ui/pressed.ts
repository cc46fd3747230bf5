import type { KeyboardEvent } from 'react';

/**
 * What a key means to the thing that has the focus, by a table of keys; the press is its own then, and goes no further.
 * @returns undefined where the table does not have it
 */
export function keyStep<T>(event: KeyboardEvent, table: Readonly<Record<string, T>>): T | undefined {
  if (!Object.hasOwn(table, event.key)) return undefined;
  event.preventDefault();
  event.stopPropagation();
  return table[event.key];
}
