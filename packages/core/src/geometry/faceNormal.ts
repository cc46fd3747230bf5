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
