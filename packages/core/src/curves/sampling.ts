import type { FramedPaths } from '../geometry/paths';
import { at, dot, unit, type Vec3 } from '../geometry/vec';
import { fraction, locate } from './arclength';

/** What a path is like at a place. */
export interface Sample {
  position: Vec3;
  tangent: Vec3;
  /** Square to the tangent. */
  normal: Vec3;
  /** Seconds since the front passed; null where no growth tells. */
  age: number | null;
}

/**
 * A path at an arc length of what is there of it, with its frame square again between points.
 * @param a first point of the path
 * @param b past its last point
 * @param arcs arc lengths of its points, as `arcLengths` gives them
 */
export function sampleCurve(paths: FramedPaths, a: number, b: number, arcs: Float64Array, s: number): Sample {
  const k = locate(arcs, s);
  const t = fraction(arcs, k, s);
  const [i, j] = [a + k, a + k + 1 < b ? a + k + 1 : a];
  const mix = (of: Float32Array): Vec3 => {
    const [p, q] = [at(of, i), at(of, j)];
    return [p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t, p[2] + (q[2] - p[2]) * t];
  };
  const tangent = unit(mix(paths.tangents), at(paths.tangents, i));
  const raw = mix(paths.normals);
  const slant = dot(raw, tangent);
  const square: Vec3 = [raw[0] - slant * tangent[0], raw[1] - slant * tangent[1], raw[2] - slant * tangent[2]];
  return {
    position: mix(paths.positions),
    tangent,
    normal: unit(square, at(paths.normals, i)),
    age: paths.age ? paths.age[i] + (paths.age[j] - paths.age[i]) * t : null,
  };
}
