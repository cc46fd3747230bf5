import { type SweepProfile } from './profile';
import { hasExtent, type Rings } from './rings';

/** Index arrays that some result still holds, by a hash of what they are made of. */
const known = new Map<number, { structure: Uint32Array; indices: WeakRef<Uint32Array> }>();
/** So many structures are remembered; each is some bytes a ring. */
const MOST_KNOWN = 64;

/**
 * Faces between the rings of a sweep, and over its ends. Frames whose rings hang together alike share one array: then nothing of
 * it is made, held or sent to the screen twice.
 * @param all rings of each path, whose vertices follow each other
 * @param faces that there will be
 */
export function sweptIndices(all: readonly Rings[], profile: SweepProfile, faces: number): Uint32Array {
  const structure = structureOf(all, profile);
  let hash = 0;
  for (let i = 0; i < structure.length; i++) hash = (Math.imul(hash ^ structure[i], 0x9e3779b1) ^ (hash >>> 15)) | 0;
  const found = known.get(hash);
  const shared = found && sameWords(found.structure, structure) ? found.indices.deref() : undefined;
  if (shared) return shared;
  const indices = new Uint32Array(3 * faces);
  let vertex = 0;
  let write = 0;
  for (const rings of all) {
    write = writeFaces(indices, write, vertex, rings, profile.joined);
    write = writeFills(indices, write, vertex, rings, profile);
    vertex += rings.count * profile.x.length;
  }
  known.delete(hash);
  known.set(hash, { structure, indices: new WeakRef(indices) });
  if (known.size > MOST_KNOWN) known.delete(known.keys().next().value!);
  return indices;
}

/** All that indices hang on, in words. */
function structureOf(all: readonly Rings[], { x, joined, cap }: SweepProfile): Uint32Array {
  let size = 3 + joined.length + cap.length;
  for (const { count, fills } of all) size += 2 + Math.ceil(count / 16) + 2 * fills.length;
  const words = new Uint32Array(size);
  let at = 0;
  words[at++] = all.length;
  words[at++] = x.length;
  words[at++] = cap.length;
  words.set(joined, at);
  words.set(cap, at + joined.length);
  at += joined.length + cap.length;
  for (const rings of all) {
    words[at++] = rings.count;
    words[at++] = rings.fills.length;
    for (const { ring, way } of rings.fills) {
      words[at++] = ring;
      words[at++] = way;
    }
    let word = 0;
    for (let i = 0; i < rings.count; i++) {
      word = (word << 2) | (rings.joined[i] << 1) | (hasExtent(rings, i) ? 1 : 0);
      if (i % 16 === 15 || i === rings.count - 1) {
        words[at++] = word;
        word = 0;
      }
    }
  }
  return words;
}

function sameWords(a: Uint32Array, b: Uint32Array): boolean {
  if (a.length !== b.length) return false;
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false;
  return true;
}

function writeFaces(indices: Uint32Array, from: number, vertex: number, rings: Rings, strip: Uint8Array): number {
  let write = from;
  const columns = strip.length;
  for (let i = 1; i < rings.count; i++) {
    if (!rings.joined[i]) continue;
    const below = hasExtent(rings, i - 1);
    const above = hasExtent(rings, i);
    let a = vertex + (i - 1) * columns;
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

function writeFills(
  indices: Uint32Array,
  from: number,
  vertex: number,
  rings: Rings,
  { x, cap }: SweepProfile,
): number {
  let write = from;
  for (const { ring, way } of rings.fills) {
    const first = vertex + ring * x.length;
    for (let t = 0; t < cap.length; t += 3) {
      indices[write] = first + cap[t];
      indices[write + 1] = first + cap[t + (way > 0 ? 1 : 2)];
      indices[write + 2] = first + cap[t + (way > 0 ? 2 : 1)];
      write += 3;
    }
  }
  return write;
}
