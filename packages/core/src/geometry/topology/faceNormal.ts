const { atan2, PI, sqrt } = Math;

/** Puts the unit normal of face f of some, zeros where it has no area, at place `to` of an array. @returns twice its area */
export const faceNormal = (p: Float32Array, indices: Uint32Array, f: number, out: Float64Array, to = 0): number =>
  normalOf(p, 3 * indices[3 * f], 3 * indices[3 * f + 1], 3 * indices[3 * f + 2], out, to);

/** The same of a face whose corners are at places a, b, c of an array of positions. */
function normalOf(p: Float32Array, a: number, b: number, c: number, out: Float64Array, to: number): number {
  const ux = p[b] - p[a];
  const uy = p[b + 1] - p[a + 1];
  const uz = p[b + 2] - p[a + 2];
  const vx = p[c] - p[a];
  const vy = p[c + 1] - p[a + 1];
  const vz = p[c + 2] - p[a + 2];
  const x = uy * vz - uz * vy;
  const y = uz * vx - ux * vz;
  const z = ux * vy - uy * vx;
  const length = sqrt(x * x + y * y + z * z);
  const flat = length <= 1e-20;
  out[to] = flat ? 0 : x / length;
  out[to + 1] = flat ? 0 : y / length;
  out[to + 2] = flat ? 0 : z / length;
  return flat ? 0 : length;
}

/**
 * Puts the unit normal of a face with its corners at places a, b, c of an array of positions, zeros where it has no area, at place `to` of
 * another, and its angles there, radians, at place `at` of a third. @returns twice its area
 */
export function faceCorners(
  p: Float32Array,
  a: number,
  b: number,
  c: number,
  normals: Float64Array,
  to: number,
  angles: Float64Array,
  at: number,
): number {
  const span = normalOf(p, a, b, c, normals, to);
  const ux = p[b] - p[a];
  const uy = p[b + 1] - p[a + 1];
  const uz = p[b + 2] - p[a + 2];
  const dot = ux * (p[c] - p[a]) + uy * (p[c + 1] - p[a + 1]) + uz * (p[c + 2] - p[a + 2]);
  // All three corners span the same area.
  const atA = atan2(span, dot);
  const atB = atan2(span, ux * ux + uy * uy + uz * uz - dot);
  angles[at] = atA;
  angles[at + 1] = atB;
  angles[at + 2] = PI - atA - atB;
  return span;
}
