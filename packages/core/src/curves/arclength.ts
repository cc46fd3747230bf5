import type { Flat } from '../geometry/vec';

/**
 * Cumulative arc length along the points `first` up to `end` of a polyline.
 * @param positions xyz triples, metres
 * @param closed adds the segment from the last point back to the first as one more entry
 * @returns Float64Array of (end − first) entries, one more when closed; the last is the total length in metres
 * @example
 * arcLengths([0, 0, 0, 3, 0, 0, 3, 4, 0], 0, 3, false); // → [0, 3, 7]
 */
export function arcLengths(positions: Flat, first: number, end: number, closed: boolean): Float64Array {
  const count = end - first;
  const table = new Float64Array(count > 1 && closed ? count + 1 : count);
  let sum = 0;
  for (let k = 1; k < table.length; k++) {
    const i = 3 * (first + k - 1);
    const j = k < count ? i + 3 : 3 * first;
    const x = positions[j] - positions[i];
    const y = positions[j + 1] - positions[i + 1];
    const z = positions[j + 2] - positions[i + 2];
    sum += Math.sqrt(x * x + y * y + z * z);
    table[k] = sum;
  }
  return table;
}

/** The last entry of an arc-length table: the whole length, 0 for an empty path. */
export const totalLength = (table: Float64Array): number => (table.length ? table[table.length - 1] : 0);

/**
 * Finds the segment that holds arc length `s`, by bisection in O(log n).
 * @returns k with table[k] ≤ s ≤ table[k + 1], clamped to the first and last segment
 */
export function locate(table: Float64Array, s: number): number {
  let low = 0;
  let high = table.length - 1;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (table[middle] <= s) low = middle;
    else high = middle;
  }
  return low;
}

/** How far arc length `s` lies through segment k of the table, 0..1; 0 on a segment without length. */
export function fraction(table: Float64Array, k: number, s: number): number {
  const length = table[k + 1] - table[k];
  if (!(length > 0)) return 0;
  const t = (s - table[k]) / length;
  return t < 0 ? 0 : t > 1 ? 1 : t;
}
