import { at } from '../geometry/vec';

/**
 * Drops points that lie within `tolerance` of the line through those kept: Ramer 1972; Douglas and Peucker, Algorithms
 * for the reduction of the number of points required to represent a digitized line, Cartographica 10, 1973.
 * @param positions xyz triples, metres
 * @param tolerance metres
 * @returns rising indices of the points kept, first and last always among them
 * @example
 * simplify([0, 0, 0, 1, 0.001, 0, 2, 0, 0], 0.01); // → [0, 2]
 */
export function simplify(positions: ArrayLike<number>, tolerance: number): number[] {
  const n = positions.length / 3;
  if (n <= 2) return Array.from({ length: n }, (_, i) => i);
  const keep = new Uint8Array(n);
  keep[0] = keep[n - 1] = 1;
  const stack: [number, number][] = [[0, n - 1]];
  for (let span = stack.pop(); span; span = stack.pop()) {
    const [a, b] = span;
    let worst = tolerance;
    let split = -1;
    for (let i = a + 1; i < b; i++) {
      const d = distanceToSegment(positions, i, a, b);
      if (d > worst) [worst, split] = [d, i];
    }
    if (split >= 0) {
      keep[split] = 1;
      stack.push([a, split], [split, b]);
    }
  }
  return Array.from({ length: n }, (_, i) => i).filter((i) => keep[i]);
}

/** Distance in metres from point i to the segment between points a and b. */
export function distanceToSegment(positions: ArrayLike<number>, i: number, a: number, b: number): number {
  const [p, q, r] = [at(positions, i), at(positions, a), at(positions, b)];
  const d = [r[0] - q[0], r[1] - q[1], r[2] - q[2]];
  const e = [p[0] - q[0], p[1] - q[1], p[2] - q[2]];
  const length = d[0] ** 2 + d[1] ** 2 + d[2] ** 2;
  const t = length > 0 ? Math.min(1, Math.max(0, (d[0] * e[0] + d[1] * e[1] + d[2] * e[2]) / length)) : 0;
  return Math.hypot(e[0] - t * d[0], e[1] - t * d[1], e[2] - t * d[2]);
}
