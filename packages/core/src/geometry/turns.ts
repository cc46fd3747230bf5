import { cross, perpendicular, type Vec3 } from './vec';

/** A unit quaternion: x, y, z, w. */
export type Turn = readonly [number, number, number, number];

export const NO_TURN: Turn = [0, 0, 0, 1];

/** The turn number `k` of a flat array. */
export const turnAt = (turns: ArrayLike<number>, k: number): Turn => [
  turns[4 * k],
  turns[4 * k + 1],
  turns[4 * k + 2],
  turns[4 * k + 3],
];

/** First `b`, then `a`. */
export const after = (a: Turn, b: Turn): Turn => [
  a[3] * b[0] + a[0] * b[3] + a[1] * b[2] - a[2] * b[1],
  a[3] * b[1] - a[0] * b[2] + a[1] * b[3] + a[2] * b[0],
  a[3] * b[2] + a[0] * b[1] - a[1] * b[0] + a[2] * b[3],
  a[3] * b[3] - a[0] * b[0] - a[1] * b[1] - a[2] * b[2],
];

/** About a unit axis, radians, right-handed. */
export function about(axis: Vec3, angle: number): Turn {
  const s = Math.sin(angle / 2);
  return [axis[0] * s, axis[1] * s, axis[2] * s, Math.cos(angle / 2)];
}

/** The turn that takes the x and y axes to two unit vectors square to each other (Shepperd 1978, by the largest term). */
export function fromAxes(x: Vec3, y: Vec3): Turn {
  const z = cross(x, y);
  const [m00, m10, m20] = x;
  const [m01, m11, m21] = y;
  const [m02, m12, m22] = z;
  const trace = m00 + m11 + m22;
  if (trace > 0) {
    const s = 2 * Math.sqrt(trace + 1);
    return [(m21 - m12) / s, (m02 - m20) / s, (m10 - m01) / s, s / 4];
  }
  if (m00 > m11 && m00 > m22) {
    const s = 2 * Math.sqrt(1 + m00 - m11 - m22);
    return [s / 4, (m01 + m10) / s, (m02 + m20) / s, (m21 - m12) / s];
  }
  if (m11 > m22) {
    const s = 2 * Math.sqrt(1 + m11 - m00 - m22);
    return [(m01 + m10) / s, s / 4, (m12 + m21) / s, (m02 - m20) / s];
  }
  const s = 2 * Math.sqrt(1 + m22 - m00 - m11);
  return [(m02 + m20) / s, (m12 + m21) / s, s / 4, (m10 - m01) / s];
}

/** A point turned. */
export function turnedBy(turn: Turn, point: Vec3): Vec3 {
  // Without taking the lists apart, which costs more than all the rest where it is done often.
  const x = turn[0];
  const y = turn[1];
  const z = turn[2];
  const w = turn[3];
  const px = point[0];
  const py = point[1];
  const pz = point[2];
  const tx = 2 * (y * pz - z * py);
  const ty = 2 * (z * px - x * pz);
  const tz = 2 * (x * py - y * px);
  return [px + w * tx + y * tz - z * ty, py + w * ty + z * tx - x * tz, pz + w * tz + x * ty - y * tx];
}

/** A vector turned back. */
export const turnedBack = ([x, y, z, w]: Turn, v: Vec3): Vec3 => turnedBy([-x, -y, -z, w], v);

/** The shortest turn from one unit vector to another. */
export function between(from: Vec3, to: Vec3): Turn {
  const w = 1 + from[0] * to[0] + from[1] * to[1] + from[2] * to[2];
  if (w < 1e-9) {
    const [x, y, z] = perpendicular(from);
    return [x, y, z, 0];
  }
  const axis = cross(from, to);
  const length = Math.hypot(axis[0], axis[1], axis[2], w);
  return [axis[0] / length, axis[1] / length, axis[2] / length, w / length];
}

/**
 * `fromAxes` without arrays in between, for many: writes four numbers to `out`.
 * @param x0 to `y2`: the two unit vectors that the x and y axes are taken to
 */
export function axesInto(
  out: Float64Array,
  x0: number,
  x1: number,
  x2: number,
  y0: number,
  y1: number,
  y2: number,
): void {
  const z0 = x1 * y2 - x2 * y1;
  const z1 = x2 * y0 - x0 * y2;
  const z2 = x0 * y1 - x1 * y0;
  const trace = x0 + y1 + z2;
  if (trace > 0) {
    const s = 2 * Math.sqrt(trace + 1);
    out[0] = (y2 - z1) / s;
    out[1] = (z0 - x2) / s;
    out[2] = (x1 - y0) / s;
    out[3] = s / 4;
  } else if (x0 > y1 && x0 > z2) {
    const s = 2 * Math.sqrt(1 + x0 - y1 - z2);
    out[0] = s / 4;
    out[1] = (y0 + x1) / s;
    out[2] = (z0 + x2) / s;
    out[3] = (y2 - z1) / s;
  } else if (y1 > z2) {
    const s = 2 * Math.sqrt(1 + y1 - x0 - z2);
    out[0] = (y0 + x1) / s;
    out[1] = s / 4;
    out[2] = (z1 + y2) / s;
    out[3] = (z0 - x2) / s;
  } else {
    const s = 2 * Math.sqrt(1 + z2 - x0 - y1);
    out[0] = (z0 + x2) / s;
    out[1] = (z1 + y2) / s;
    out[2] = s / 4;
    out[3] = (x1 - y0) / s;
  }
}

/** A share of a turn, 0 for none of it: the mean of quaternions, of length 1 again. */
export function partOfTurn([x, y, z, w]: Turn, share: number): Turn {
  // Of a turn and its opposite, which are the same, the one nearer to none.
  const side = w < 0 ? -share : share;
  const mixed = [side * x, side * y, side * z, 1 - share + side * w];
  const length = Math.hypot(...mixed) || 1;
  return [mixed[0] / length, mixed[1] / length, mixed[2] / length, mixed[3] / length];
}
