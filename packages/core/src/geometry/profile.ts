import { filled } from './filled';
/** A point of a profile: position 0..1 along something, and the value there. */
export interface ProfilePoint {
  at: number;
  value: number;
  /** How the value runs on to the next point: smoothly where nothing is said. */
  shape?: ProfileShape;
}

/** Smooth, in a straight line, or held until the next point. */
export const PROFILE_SHAPES = ['smooth', 'straight', 'step'] as const;
export type ProfileShape = (typeof PROFILE_SHAPES)[number];

/**
 * A value drawn along something: a smooth curve through points that never overshoots them (Fritsch and Carlson,
 * Monotone piecewise cubic interpolation, SIAM Journal on Numerical Analysis 17, 1980). Constant past its ends.
 * @param points one or more, in any order
 * @returns a function of position 0..1
 */
export function profileCurve(points: readonly ProfilePoint[]): (at: number) => number {
  const sorted = [...points].sort((a, b) => a.at - b.at);
  const n = sorted.length;
  const x = sorted.map((point) => point.at);
  const y = sorted.map((point) => point.value);
  const slope = (k: number): number => (x[k + 1] > x[k] ? (y[k + 1] - y[k]) / (x[k + 1] - x[k]) : 0);
  const tangent = y.map((_, k) => {
    if (n === 1) return 0;
    if (k === 0) return slope(0);
    if (k === n - 1) return slope(n - 2);
    const [a, b] = [slope(k - 1), slope(k)];
    if (a * b <= 0 || sorted[k].shape === 'step' || sorted[k - 1].shape === 'step') return 0;
    // Weighted harmonic mean: keeps within the Fritsch-Carlson region on uneven spacing too.
    const [h, g] = [x[k] - x[k - 1], x[k + 1] - x[k]];
    return (3 * (h + g)) / ((2 * g + h) / a + (g + 2 * h) / b);
  });
  return (position) => {
    if (n === 1 || position <= x[0]) return y[0];
    if (position >= x[n - 1]) return y[n - 1];
    let k = 0;
    while (position > x[k + 1]) k++;
    const h = x[k + 1] - x[k];
    if (!(h > 0)) return y[k + 1];
    const t = (position - x[k]) / h;
    if (sorted[k].shape === 'step') return t < 1 ? y[k] : y[k + 1];
    if (sorted[k].shape === 'straight') return y[k] + (y[k + 1] - y[k]) * t;
    const [t2, t3] = [t * t, t * t * t];
    return (
      (2 * t3 - 3 * t2 + 1) * y[k] +
      (t3 - 2 * t2 + t) * h * tangent[k] +
      (3 * t2 - 2 * t3) * y[k + 1] +
      (t3 - t2) * h * tangent[k + 1]
    );
  };
}

/** Tables of profiles that cannot change any more, by their size. */
const tables = new WeakMap<readonly ProfilePoint[], Map<number, Float64Array>>();

/**
 * The same as a table of `size` values from position 0 to 1, to be read by `readTable` and not to be written to: of frozen points,
 * which is what documents are made of, it is made once.
 */
export function profileTable(points: readonly ProfilePoint[], size: number): Float64Array {
  const known = tables.get(points)?.get(size);
  if (known) return known;
  const curve = profileCurve(points);
  const table = filled(Float64Array, size, (i) => curve(i / (size - 1)));
  if (Object.isFrozen(points)) {
    if (!tables.has(points)) tables.set(points, new Map());
    tables.get(points)!.set(size, table);
  }
  return table;
}

/**
 * Linear interpolation in a table over 0..1.
 *
 * @example
 * readTable(Float64Array.of(0, 10, 20), 0.25); // → 5
 */
export function readTable(table: Float64Array, position: number): number {
  const x = Math.min(1, Math.max(0, position)) * (table.length - 1);
  const k = Math.min(table.length - 2, Math.floor(x));
  return table[k] + (table[k + 1] - table[k]) * (x - k);
}
