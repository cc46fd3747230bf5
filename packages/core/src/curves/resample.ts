import type { Flat } from '../geometry/vec';
import { arcLengths, fraction, totalLength } from './arclength';

/**
 * Places points evenly along a polyline, at equal arc lengths.
 * @param positions xyz triples of one path, metres
 * @param count points to place; two or more when open, three or more when closed
 * @param closed spreads the points over the closing segment too, without repeating the first
 * @returns xyz triples, count of them
 * @example
 * resample([0, 0, 0, 1, 0, 0, 4, 0, 0], 3, false); // → [0, 0, 0, 2, 0, 0, 4, 0, 0]
 */
export function resample(positions: Flat, count: number, closed: boolean): Float64Array {
  const n = positions.length / 3;
  const table = arcLengths(positions, 0, n, closed);
  const total = totalLength(table);
  const step = total / (closed ? count : count - 1);
  const out = new Float64Array(3 * count);
  if (n === 0) return out;
  const segments = table.length - 1;
  // The last point of an open path is its own, whatever the sums of lengths round to.
  const last = closed ? count : count - 1;
  let i = 0;
  let s = 0;
  let from = 0;
  for (let k = 0; k < segments && i < last; k++) {
    const to = table[k + 1];
    if (s <= to) {
      const p = 3 * k;
      const q = k + 1 < n ? p + 3 : 0;
      const each = to - from > SHORTEST ? 1 / (to - from) : 0;
      const x = positions[p];
      const y = positions[p + 1];
      const z = positions[p + 2];
      const dx = (positions[q] - x) * each;
      const dy = (positions[q + 1] - y) * each;
      const dz = (positions[q + 2] - z) * each;
      do {
        const w = 3 * i;
        const t = s - from;
        out[w] = x + dx * t;
        out[w + 1] = y + dy * t;
        out[w + 2] = z + dz * t;
        s = ++i * step;
      } while (s <= to && i < last);
    }
    from = to;
  }
  const end = closed ? 0 : 3 * (n - 1);
  for (; i < count; i++) for (let c = 0; c < 3; c++) out[3 * i + c] = positions[end + c];
  return out;
}

/** A segment that is not longer has no direction, metres: one divided by it is out of reach. */
const SHORTEST = 1e-300;

/**
 * Reads a per-point attribute at rising arc lengths by linear interpolation. One walk serves all: O(points + arcs).
 * @param values `width` numbers per point; points `first` up to `end` belong to the path
 * @param table arc lengths of those points; one entry more than points means that the path is closed
 * @param arcs rising arc lengths, metres
 * @param out written from entry `width · outFirst` on
 */
export function sampleAt(
  values: Flat,
  first: number,
  end: number,
  table: Float64Array,
  arcs: ArrayLike<number>,
  width: 1 | 3,
  out: Flat,
  outFirst: number,
): void {
  let write = width * outFirst;
  eachAlong(end - first, table, arcs, (k, next, t) => {
    const i = width * (first + k);
    const j = width * (first + next);
    for (let c = 0; c < width; c++) out[write++] = values[i + c] + (values[j + c] - values[i + c]) * t;
  });
}

/**
 * Finds the segments of a path that rising arc lengths fall into, in one walk.
 * @param count points of the path
 * @param table their arc lengths; one entry more than points means that the path is closed
 * @param arcs rising arc lengths, metres
 * @param put told both points, counted from the path's first, how far between them, and which of the arcs it is
 */
export function eachAlong(
  count: number,
  table: Float64Array,
  arcs: ArrayLike<number>,
  put: (i: number, j: number, t: number, at: number) => void,
): void {
  let k = 0;
  for (let a = 0; a < arcs.length; a++) {
    const s = arcs[a];
    while (k < table.length - 2 && table[k + 1] < s) k++;
    const t = table.length > 1 ? fraction(table, k, s) : 0;
    put(k, k + 1 < count ? k + 1 : table.length > count ? 0 : k, t, a);
  }
}
