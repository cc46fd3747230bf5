import type { SweepProfile } from './sweepProfile';
import { hasExtent, type Rings } from './rings';

/** Index arrays that some result still holds, by a hash of what they are made of. */
const known = new Map<number, { structure: Uint32Array; indices: WeakRef<Uint32Array> }>();
/** So many indices between two yields. */
const PER_YIELD = 1 << 17;
/** So many structures are remembered; each is some bytes a ring. */
const MOST_KNOWN = 64;

/**
 * Faces between the rings of a sweep, and over its ends. Frames whose rings hang together alike share one array: then nothing of
 * it is made, held or sent to the screen twice.
 * @param faces that there will be
 */
export async function sweptIndices(
  rings: Rings,
  profile: SweepProfile,
  faces: number,
  yieldNow: () => Promise<void> = () => Promise.resolve(),
): Promise<Uint32Array> {
  const structure = structureOf(rings, profile);
  let hash = 0;
  for (let i = 0; i < structure.length; i++) hash = (Math.imul(hash ^ structure[i], 0x9e3779b1) ^ (hash >>> 15)) | 0;
  const found = known.get(hash);
  const shared = found && sameWords(found.structure, structure) ? found.indices.deref() : undefined;
  if (shared) return shared;
  const indices = new Uint32Array(3 * faces);
  const { start, fills } = rings;
  let write = 0;
  let nextYield = PER_YIELD;
  for (let k = 0, f = 0; k < rings.paths; k++) {
    if (write >= nextYield) {
      nextYield = write + PER_YIELD;
      await yieldNow();
    }
    write = writeFaces(indices, write, rings, k, profile.joined);
    for (; f < fills.length && fills[f].ring < start[k + 1]; f++)
      write = writeFill(indices, write, fills[f].ring * profile.x.length, fills[f].way, profile.cap);
  }
  known.delete(hash);
  known.set(hash, { structure, indices: new WeakRef(indices) });
  if (known.size > MOST_KNOWN) known.delete(known.keys().next().value!);
  return indices;
}

/** All that indices hang on, in words. */
function structureOf(rings: Rings, { x, joined, cap }: SweepProfile): Uint32Array {
  const { count, fills } = rings;
  const words = new Uint32Array(4 + joined.length + cap.length + 2 * fills.length + Math.ceil(count / 16));
  words.set([count, x.length, cap.length, fills.length]);
  words.set(joined, 4);
  words.set(cap, 4 + joined.length);
  let at = 4 + joined.length + cap.length;
  for (const { ring, way } of fills) {
    words[at++] = ring;
    words[at++] = way;
  }
  // Where one path ends and the next begins rings are not joined.
  for (let first = 0; first < count; first += 16) {
    let word = 0;
    for (let i = first, end = Math.min(count, first + 16); i < end; i++)
      word = (word << 2) | (rings.joined[i] << 1) | (hasExtent(rings, i) ? 1 : 0);
    words[at++] = word;
  }
  return words;
}

function sameWords(a: Uint32Array, b: Uint32Array): boolean {
  if (a.length !== b.length) return false;
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false;
  return true;
}

/** Faces between the rings of a path. @returns where the next index goes */
function writeFaces(indices: Uint32Array, from: number, rings: Rings, k: number, strip: Uint8Array): number {
  let write = from;
  const columns = strip.length;
  for (let i = rings.start[k] + 1; i < rings.start[k + 1]; i++) {
    if (!rings.joined[i]) continue;
    const below = hasExtent(rings, i - 1);
    const above = hasExtent(rings, i);
    let a = (i - 1) * columns;
    let c = a + columns;
    for (let j = 1; j < columns; j++, a++, c++) {
      if (!strip[j]) continue;
      if (below) {
        indices[write] = a;
        indices[write + 1] = a + 1;
        indices[write + 2] = c;
        write += 3;
      }
      if (above) {
        indices[write] = a + 1;
        indices[write + 1] = c + 1;
        indices[write + 2] = c;
        write += 3;
      }
    }
  }
  return write;
}

/** Faces over an end. @param first the ring's first vertex @returns where the next index goes */
function writeFill(indices: Uint32Array, from: number, first: number, way: 1 | -1, cap: Uint32Array): number {
  let write = from;
  for (let t = 0; t < cap.length; t += 3) {
    indices[write] = first + cap[t];
    indices[write + 1] = first + cap[t + (way > 0 ? 1 : 2)];
    indices[write + 2] = first + cap[t + (way > 0 ? 2 : 1)];
    write += 3;
  }
  return write;
}
