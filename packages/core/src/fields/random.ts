const { imul } = Math;

/**
 * A well-mixed 32-bit hash of a few integers. Randomness is counter-based: the value belongs to (seed, element,
 * channel), so that adding an element changes no other. Finaliser of MurmurHash3 (Appleby, public domain).
 */
export function hash(seed: number, a: number, b = 0, c = 0): number {
  return settled32(stir(stir(stir(seed | 0, a), b), c));
}

/** The last step of a hash: every bit comes to hang on all others. */
export function settled32(stirred: number): number {
  let h = stirred;
  h ^= h >>> 16;
  h = imul(h, 0x85ebca6b);
  h ^= h >>> 13;
  h = imul(h, 0xc2b2ae35);
  return (h ^ (h >>> 16)) >>> 0;
}

/** Takes one more integer into a hash: for those that begin alike, and are worked out together as far as they do. */
export function stir(h: number, value: number): number {
  let k = imul(value | 0, 0xcc9e2d51);
  k = (k << 15) | (k >>> 17);
  h ^= imul(k, 0x1b873593);
  h = (h << 13) | (h >>> 19);
  return (imul(h, 5) + 0xe6546b64) | 0;
}

/** The same as a number in 0 ≤ x < 1. */
export const random = (seed: number, element: number, channel = 0): number => hash(seed, element, channel) / 4294967296;
