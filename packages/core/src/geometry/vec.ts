/** A point or direction: metres, Y up, right-handed. */
export type Vec3 = readonly [number, number, number];

/** Corners of a box along the axes, metres. */
export interface Corners {
  min: Vec3;
  max: Vec3;
}

/** A place that a drawn path runs through, with its thickness factor and its lean in degrees where they are given. */
export type Anchor =
  Vec3 | readonly [number, number, number, number] | readonly [number, number, number, number, number];

/** A flat array of xyz triples. Float64 serves the tests of convergence order, Float32 everything else. */
export type Flat = Float32Array | Float64Array;

/** a − b. */
export const sub = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
/** a + b. */
export const add = (a: Vec3, b: Vec3): Vec3 => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
/** a times a number. */
export const scale = (a: Vec3, k: number): Vec3 => [a[0] * k, a[1] * k, a[2] * k];
/** Scalar product. */
export const dot = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
/** Vector product. */
export const cross = (a: Vec3, b: Vec3): Vec3 => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
/** Length of a vector. `Math.hypot` guards against overflow, which metres never come near, and costs ten times as much. */
export const norm = (x: number, y: number, z: number): number => Math.sqrt(x * x + y * y + z * z);
/** Length of a − b. */
export const distance = (a: Vec3, b: Vec3): number => norm(a[0] - b[0], a[1] - b[1], a[2] - b[2]);

/** The unit vector along `a`; `fallback` where `a` has no length. */
export function unit(a: Vec3, fallback: Vec3 = [0, 1, 0]): Vec3 {
  const length = norm(a[0], a[1], a[2]);
  return length > 1e-20 ? [a[0] / length, a[1] / length, a[2] / length] : fallback;
}

/** A unit vector square to the unit vector `t`, chosen the same way for the same `t`. */
export function perpendicular(t: Vec3): Vec3 {
  // The world axis least along t gives the best conditioned cross product.
  const [x, y, z] = [Math.abs(t[0]), Math.abs(t[1]), Math.abs(t[2])];
  const axis: Vec3 = z <= x && z <= y ? [0, 0, 1] : x <= y ? [1, 0, 0] : [0, 1, 0];
  const along = dot(axis, t);
  return unit([axis[0] - along * t[0], axis[1] - along * t[1], axis[2] - along * t[2]], [1, 0, 0]);
}

/** Normal of a ring of corners, not of unit length: twice its area (Newell's method). */
export const ringNormal = (corners: readonly Vec3[]): Vec3 =>
  corners.reduce<Vec3>((sum, corner, k) => add(sum, cross(corner, corners[(k + 1) % corners.length])), [0, 0, 0]);

/** The triple number `i` of a flat array. */
export const at = (flat: ArrayLike<number>, i: number): Vec3 => [flat[3 * i], flat[3 * i + 1], flat[3 * i + 2]];

/** The triple of what `f` says for each axis. */
export const byAxis = (f: (axis: number) => number): Vec3 => [f(0), f(1), f(2)];

/** The place at share `t` of the way from `a` to `b`. */
export const partWay = (a: Vec3, b: Vec3, t: number): Vec3 => byAxis((c) => a[c] + t * (b[c] - a[c]));
