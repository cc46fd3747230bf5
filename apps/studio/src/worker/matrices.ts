import type { Copies } from '@uvrex/core';
import type { Shown } from './protocol';

/**
 * Where each copy of each item stands, and how it is tinted. Copies are dealt out evenly, so that the first so many of
 * them are a fair sample of all: whoever cannot draw all at once draws those first.
 * @param nameOf the name under which the screen holds an item, by its key
 */
export function matricesOf(
  { items, item, positions, turns, sizes, tints, ids }: Copies,
  nameOf: (key: string) => string,
): Shown['copies'] {
  const counts = new Uint32Array(items.length);
  for (const i of item) counts[i]++;
  const all = items.map(({ key }, i) => ({
    item: nameOf(key),
    matrices: new Float32Array(16 * counts[i]),
    tints: tints ? new Float32Array(3 * counts[i]) : null,
    ids: new Uint32Array(counts[i]),
  }));
  const write = new Uint32Array(items.length);
  const n = item.length;
  const stride = dealingStride(n);
  for (let dealt = 0, k = 0; dealt < n; dealt++, k = (k + stride) % n) {
    const [x, y, z, w] = [turns[4 * k], turns[4 * k + 1], turns[4 * k + 2], turns[4 * k + 3]];
    const [a, b, c] = [sizes[3 * k], sizes[3 * k + 1], sizes[3 * k + 2]];
    const { matrices: m, tints: t, ids: numbers } = all[item[k]];
    const at = write[item[k]]++;
    numbers[at] = ids[k];
    const o = 16 * at;
    m[o] = a * (1 - 2 * (y * y + z * z));
    m[o + 1] = a * 2 * (x * y + z * w);
    m[o + 2] = a * 2 * (x * z - y * w);
    m[o + 4] = b * 2 * (x * y - z * w);
    m[o + 5] = b * (1 - 2 * (x * x + z * z));
    m[o + 6] = b * 2 * (y * z + x * w);
    m[o + 8] = c * 2 * (x * z + y * w);
    m[o + 9] = c * 2 * (y * z - x * w);
    m[o + 10] = c * (1 - 2 * (x * x + y * y));
    m[o + 12] = positions[3 * k];
    m[o + 13] = positions[3 * k + 1];
    m[o + 14] = positions[3 * k + 2];
    m[o + 15] = 1;
    t?.set(tints!.subarray(3 * k, 3 * k + 3), 3 * at);
  }
  return all.filter(({ matrices }) => matrices.length > 0);
}

/**
 * A step that visits each of n places once, any first few of them spread evenly: next to the golden section of n, and
 * without a common divisor with it (Knuth, The Art of Computer Programming 3, 6.4, of the golden section's multiples).
 */
export function dealingStride(n: number): number {
  const common = (a: number, b: number): number => (b === 0 ? a : common(b, a % b));
  let stride = Math.max(1, Math.round(n * (Math.sqrt(5) - 1) * 0.5));
  while (common(stride, n) !== 1) stride++;
  return stride;
}
