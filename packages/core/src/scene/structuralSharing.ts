/**
 * A value of plain objects and lists that cannot change any more, in which every part that is the same as before is the very
 * object that it was: so what is known of a part holds on where it came again by another way, as through a message.
 * @param next is frozen, all of it
 * @param before what the same function gave last
 */
export function shareStructure<T>(next: T, before?: T): T {
  if (typeof next !== 'object' || next === null || next === before) return next;
  const old = comparable(next, before) ? (before as Record<string, unknown>) : null;
  const entries = Object.keys(next);
  let same = old !== null && Object.keys(old).length === entries.length;
  for (const name of entries) {
    const part = (next as Record<string, unknown>)[name];
    const kept = shareStructure(part, old?.[name]);
    if (kept !== old?.[name] || (old !== null && !(name in old))) same = false;
    if (kept !== part) (next as Record<string, unknown>)[name] = kept;
  }
  return same ? before! : Object.freeze(next);
}

const comparable = (a: object, b: unknown): boolean =>
  typeof b === 'object' && b !== null && Array.isArray(a) === Array.isArray(b);
