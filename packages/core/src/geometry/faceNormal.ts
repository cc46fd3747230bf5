/** Puts the unit normal of face f of some, zeros where it has no area, at place `to` of an array. @returns twice its area */
export function faceNormal(p: Float32Array, indices: Uint32Array, f: number, out: Float64Array, to = 0): number {
  const a = 3 * indices[3 * f];
  const b = 3 * indices[3 * f + 1];
  const c = 3 * indices[3 * f + 2];
  const ux = p[b] - p[a];
  const uy = p[b + 1] - p[a + 1];
  const uz = p[b + 2] - p[a + 2];
  const vx = p[c] - p[a];
  const vy = p[c + 1] - p[a + 1];
  const vz = p[c + 2] - p[a + 2];
  const x = uy * vz - uz * vy;
  const y = uz * vx - ux * vz;
  const z = ux * vy - uy * vx;
  const length = Math.sqrt(x * x + y * y + z * z);
  if (length <= 1e-20) {
    out.fill(0, to, to + 3);
    return 0;
  }
  out[to] = x / length;
  out[to + 1] = y / length;
  out[to + 2] = z / length;
  return length;
}

const { atan2, PI, sqrt } = Math;

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
  const dot = ux * vx + uy * vy + uz * vz;
  // All three corners span the same area.
  const atA = atan2(length, dot);
  const atB = atan2(length, ux * ux + uy * uy + uz * uz - dot);
  angles[at] = atA;
  angles[at + 1] = atB;
  angles[at + 2] = PI - atA - atB;
  const flat = length <= 1e-20;
  normals[to] = flat ? 0 : x / length;
  normals[to + 1] = flat ? 0 : y / length;
  normals[to + 2] = flat ? 0 : z / length;
  return flat ? 0 : length;
}
