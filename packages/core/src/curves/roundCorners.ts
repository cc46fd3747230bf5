import { at, distance, type Vec3 } from '../geometry/vec';

/**
 * Replaces every corner of a polyline by a parabolic arc that touches both sides.
 * @param points xyz triples, metres
 * @param share 0..1 of half the shorter side that the arc takes from each side of a corner
 * @param steps segments of each arc, 1 or more
 * @returns xyz triples; the ends of an open polyline stay
 */
export function roundCorners(points: ArrayLike<number>, share: number, steps: number, closed: boolean): Float64Array {
  const n = points.length / 3;
  if (share <= 0 || n < 3) return Float64Array.from(points);
  const out: number[] = [];
  for (let i = 0; i < n; i++) {
    const here = at(points, i);
    if (!closed && (i === 0 || i === n - 1)) {
      out.push(...here);
      continue;
    }
    const before = at(points, (i + n - 1) % n);
    const after = at(points, (i + 1) % n);
    const cut = (share / 2) * Math.min(distance(before, here), distance(here, after));
    const a = towards(here, before, cut);
    const b = towards(here, after, cut);
    for (let k = 0; k <= steps; k++) {
      const t = k / steps;
      for (let c = 0; c < 3; c++) out.push((1 - t) * (1 - t) * a[c] + 2 * t * (1 - t) * here[c] + t * t * b[c]);
    }
  }
  return Float64Array.from(out);
}

function towards(from: Vec3, to: Vec3, length: number): Vec3 {
  const whole = distance(from, to);
  const t = whole > 0 ? length / whole : 0;
  return [from[0] + (to[0] - from[0]) * t, from[1] + (to[1] - from[1]) * t, from[2] + (to[2] - from[2]) * t];
}
