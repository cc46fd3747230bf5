/** Index arrays that some result still holds, by a hash of their numbers. */
const known = new Map<number, WeakRef<Uint32Array>>();
/** So many are remembered. */
const MOST_KNOWN = 64;

/**
 * These indices, or an array of the same numbers that is there already: then frames that hang together alike hold and send one array
 * among them.
 */
export function sharedIndices(indices: Uint32Array): Uint32Array {
  let hash = indices.length;
  // A sample tells most arrays apart; the same are compared as a whole.
  const step = 1 + (indices.length >> 14);
  for (let i = 0; i < indices.length; i += step) hash = (Math.imul(hash ^ indices[i], 0x9e3779b1) ^ (hash >>> 15)) | 0;
  const found = known.get(hash)?.deref();
  if (found && same(found, indices)) return found;
  known.delete(hash);
  known.set(hash, new WeakRef(indices));
  if (known.size > MOST_KNOWN) known.delete(known.keys().next().value!);
  return indices;
}

function same(a: Uint32Array, b: Uint32Array): boolean {
  if (a.length !== b.length) return false;
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false;
  return true;
}
