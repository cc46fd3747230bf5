import earcut from 'earcut';
import { at, cross, dot, perpendicular, ringNormal, sub } from '../geometry/vec';

/** Triangles of a polygon, by its corners' numbers: those of four corners along the shorter diagonal, others by ear clipping in their own plane. */
export function polygonFaces(positions: ArrayLike<number>, ring: readonly number[]): number[] {
  if (ring.length === 3) return [...ring];
  const corners = ring.map((corner) => at(positions, corner));
  const normal = ringNormal(corners);
  if (ring.length === 4) {
    const [a, b, c, d] = corners;
    const square = (p: typeof a, q: typeof a): number => dot(sub(p, q), sub(p, q));
    const [ac, bd] = [square(a, c), square(b, d)];
    // The diagonal lies inside where both halves look the same way.
    const sound = (p: typeof a, q: typeof a, r: typeof a): boolean => dot(cross(sub(q, p), sub(r, p)), normal) >= 0;
    const byAc = sound(a, b, c) && sound(a, c, d);
    const byBd = sound(a, b, d) && sound(b, c, d);
    const first = byAc && (!byBd || ac <= bd);
    return first || !byBd
      ? [ring[0], ring[1], ring[2], ring[0], ring[2], ring[3]]
      : [ring[0], ring[1], ring[3], ring[1], ring[2], ring[3]];
  }
  const x = perpendicular(normal);
  const y = cross(normal, x);
  const flat = corners.flatMap((corner) => {
    const from = sub(corner, corners[0]);
    return [dot(from, x), dot(from, y)];
  });
  return earcut(flat).map((i) => ring[i]);
}
