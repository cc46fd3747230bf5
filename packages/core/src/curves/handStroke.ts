import { arcLengths, totalLength } from './arclength';
import { resample } from './resample';
import { simplify } from './simplify';

/**
 * Turns the raw points of a hand-drawn stroke into few anchors: even spacing first (the hand's speed must not show),
 * then a binomial smoothing that leaves the ends alone, then the points that matter.
 * @param raw xyz triples as drawn, metres
 * @param detail share of the stroke's length below which a wiggle counts as tremble, 0.002 to 0.05
 * @returns xyz anchors, two or more; empty for a stroke without length
 */
export function strokeToAnchors(raw: ArrayLike<number>, detail = 0.006): [number, number, number][] {
  const points = Float64Array.from(raw);
  const length = totalLength(arcLengths(points, 0, points.length / 3, false));
  if (!(length > 0)) return [];
  const count = Math.max(8, Math.min(400, points.length / 3));
  let even = resample(points, count, false);
  for (let round = 0; round < 3; round++) {
    const smooth = even.slice();
    for (let i = 3; i < even.length - 3; i++) smooth[i] = (even[i - 3] + 2 * even[i] + even[i + 3]) / 4;
    even = smooth;
  }
  return simplify(even, detail * length).map((i) => [
    round(even[3 * i]),
    round(even[3 * i + 1]),
    round(even[3 * i + 2]),
  ]);
}

/** To tenths of a millimetre: finer digits of a hand-drawn line mean nothing and clutter the file. */
const round = (metres: number): number => Math.round(metres * 1e4) / 1e4;
