import { type Flat, type Vec3, at, cross, dot, perpendicular, unit } from '../geometry/vec';

/**
 * Unit tangents at the points `first` up to `end` of a polyline: the direction of the circle through each point and its
 * two neighbours, which is second-order exact; the end segments' direction at open ends.
 * @param out 3(end − first) entries
 */
export function tangents(positions: Flat, first: number, end: number, closed: boolean, out: Flat): void {
  const n = end - first;
  let [px, py, pz] = [0, 1, 0];
  for (let k = 0; k < n; k++) {
    const here = 3 * (first + k);
    const before = k > 0 ? here - 3 : closed ? 3 * (end - 1) : here;
    const after = k < n - 1 ? here + 3 : closed ? 3 * first : here;
    const ax = positions[here] - positions[before];
    const ay = positions[here + 1] - positions[before + 1];
    const az = positions[here + 2] - positions[before + 2];
    const bx = positions[after] - positions[here];
    const by = positions[after + 1] - positions[here + 1];
    const bz = positions[after + 2] - positions[here + 2];
    // Weighted by the other side's squared length: the derivative of the parabola through the three points.
    const wa = bx * bx + by * by + bz * bz;
    const wb = ax * ax + ay * ay + az * az;
    let x: number;
    let y: number;
    let z: number;
    if (wa === 0) [x, y, z] = [ax, ay, az];
    else if (wb === 0) [x, y, z] = [bx, by, bz];
    else {
      const ra = Math.sqrt(wa / wb);
      const rb = 1 / ra;
      x = ax * ra + bx * rb;
      y = ay * ra + by * rb;
      z = az * ra + bz * rb;
    }
    const length = Math.sqrt(x * x + y * y + z * z);
    if (length > 1e-20) {
      px = x / length;
      py = y / length;
      pz = z / length;
    }
    // A point without direction of its own (all neighbours in one place) takes its predecessor's.
    out[3 * k] = px;
    out[3 * k + 1] = py;
    out[3 * k + 2] = pz;
  }
}

/**
 * Carries a normal along a curve without twist by double reflection: Wang, Jüttler, Zheng, Liu, Computation of rotation
 * minimizing frames, ACM Transactions on Graphics 27(1), 2008. The error is of fourth order in the spacing when the
 * tangents are exact.
 *
 * @param positions xyz triples; point `first` is the first used
 * @param tangent unit tangents, 3n entries
 * @param start unit normal at the first point, square to its tangent
 * @param out receives 3n entries: the normals
 */
export function transport(positions: Flat, first: number, tangent: Flat, start: Vec3, out: Flat): void {
  const n = tangent.length / 3;
  let [rx, ry, rz] = start;
  if (n > 0) out.set(start, 0);
  for (let i = 0; i < n - 1; i++) {
    const p = 3 * (first + i);
    const t = 3 * i;
    const v1x = positions[p + 3] - positions[p];
    const v1y = positions[p + 4] - positions[p + 1];
    const v1z = positions[p + 5] - positions[p + 2];
    const c1 = v1x * v1x + v1y * v1y + v1z * v1z;
    let tx = tangent[t];
    let ty = tangent[t + 1];
    let tz = tangent[t + 2];
    if (c1 > 0) {
      // First reflection: in the plane that halves the segment.
      const r = (2 * (v1x * rx + v1y * ry + v1z * rz)) / c1;
      const q = (2 * (v1x * tx + v1y * ty + v1z * tz)) / c1;
      rx -= r * v1x;
      ry -= r * v1y;
      rz -= r * v1z;
      tx -= q * v1x;
      ty -= q * v1y;
      tz -= q * v1z;
    }
    // Second reflection: takes the reflected tangent to the next one.
    const nx = tangent[t + 3];
    const ny = tangent[t + 4];
    const nz = tangent[t + 5];
    const v2x = nx - tx;
    const v2y = ny - ty;
    const v2z = nz - tz;
    const c2 = v2x * v2x + v2y * v2y + v2z * v2z;
    if (c2 > 0) {
      const r = (2 * (v2x * rx + v2y * ry + v2z * rz)) / c2;
      rx -= r * v2x;
      ry -= r * v2y;
      rz -= r * v2z;
    }
    // Rounding drifts over many thousand points: back to the plane square to the tangent, and to unit length.
    const along = rx * nx + ry * ny + rz * nz;
    rx -= along * nx;
    ry -= along * ny;
    rz -= along * nz;
    const k = 1 / Math.sqrt(rx * rx + ry * ry + rz * rz);
    rx *= k;
    ry *= k;
    rz *= k;
    out[t + 3] = rx;
    out[t + 4] = ry;
    out[t + 5] = rz;
  }
}

/**
 * Twist-free normals of one path. On a closed path the twist left over after one round is spread evenly over its
 * length, so that the frame meets itself.
 * @param out receives 3(end − first) entries
 * @param tangent unit tangents of these points, as `tangents` gives them
 * @returns the twist that was spread, degrees; 0 on open paths
 */
export function pathNormals(
  positions: Flat,
  first: number,
  end: number,
  closed: boolean,
  out: Flat,
  tangent: Flat,
): number {
  const n = end - first;
  if (n === 0) return 0;
  const start = perpendicular(at(tangent, 0));
  transport(positions, first, tangent, start, out);
  if (!closed || n < 3) return 0;

  // One more hop, from the last point to the first, shows by how much the frame misses itself.
  const hop = new Float64Array([...at(positions, end - 1), ...at(positions, first)]);
  const hopTangents = new Float64Array([...at(tangent, n - 1), ...at(tangent, 0)]);
  const met = new Float64Array(6);
  transport(hop, 0, hopTangents, at(out, n - 1), met);
  const t0 = at(tangent, 0);
  const end0 = at(met, 1);
  const twist = Math.atan2(dot(cross(end0, start), t0), dot(end0, start));
  let sum = 0;
  const along = new Float64Array(n);
  for (let i = 1; i <= n; i++) {
    const [a, b] = [at(positions, first + i - 1), at(positions, i < n ? first + i : first)];
    sum += Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2]);
    if (i < n) along[i] = sum;
  }
  if (sum > 0) for (let i = 1; i < n; i++) rotateNormal(out, tangent, i, (twist * along[i]) / sum);
  return (twist * 180) / Math.PI;
}

function rotateNormal(normals: Flat, tangent: Flat, i: number, angle: number): void {
  const r = at(normals, i);
  const s = cross(at(tangent, i), r);
  const [c, d] = [Math.cos(angle), Math.sin(angle)];
  normals.set(unit([r[0] * c + s[0] * d, r[1] * c + s[1] * d, r[2] * c + s[2] * d]), 3 * i);
}

/**
 * Makes normals square to a path that has been moved since they were computed: each is projected, so that deforming a
 * path never re-rolls it.
 */
export function squareNormals(normals: Flat, tangent: Flat, out: Flat): void {
  for (let i = 0; i < normals.length / 3; i++) squareOff(tangent, normals, i, out);
}

/** Makes one normal square to its tangent, and of length 1. */
export function squareOff(tangent: Flat, normals: Flat, i: number, out: Flat = normals): void {
  const t = at(tangent, i);
  const r = at(normals, i);
  const along = dot(r, t);
  const flat: Vec3 = [r[0] - along * t[0], r[1] - along * t[1], r[2] - along * t[2]];
  out.set(unit(flat, perpendicular(t)), 3 * i);
}
