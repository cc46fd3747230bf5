import type { FramedPaths } from '../geometry/paths';
import { at, cross, partWay, unit, type Vec3 } from '../geometry/vec';

/** A place on a path with its frame. */
export interface PathFrame {
  position: Vec3;
  /** Unit vectors: along the path, along its normal, and tangent × normal. */
  tangent: Vec3;
  normal: Vec3;
  across: Vec3;
}

/** The frame of path p at a rest coordinate 0..1; at the nearest point that is there where the path does not reach it. */
export function frameAtRest(
  { positions, tangents, normals, u, offsets, closed }: FramedPaths,
  p: number,
  share: number,
): PathFrame {
  const [a, b] = [offsets[p], offsets[p + 1]];
  let [low, high] = [a, b - 1];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (u[middle] <= share) low = middle;
    else high = middle;
  }
  let [i, j, t] = [low, high, u[high] > u[low] ? (share - u[low]) / (u[high] - u[low]) : 0];
  // From the last point of a closed path on to its first.
  if (closed[p] === 1 && share > u[b - 1]) [i, j, t] = [b - 1, a, (share - u[b - 1]) / (1 - u[b - 1])];
  t = Math.max(0, Math.min(1, t));
  const tangent = unit(partWay(at(tangents, i), at(tangents, j), t), at(tangents, i));
  const across = unit(cross(tangent, partWay(at(normals, i), at(normals, j), t)), cross(tangent, at(normals, i)));
  return { position: partWay(at(positions, i), at(positions, j), t), tangent, normal: cross(across, tangent), across };
}
