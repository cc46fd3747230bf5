import { add, cross, dot, scale, sub, type Vec3 } from '../vec';

/** Three corners. */
export type Triangle = readonly [Vec3, Vec3, Vec3];

/** Whether a segment meets a triangle (Möller and Trumbore, Fast, minimum storage ray/triangle intersection, 1997). */
function pierces(from: Vec3, to: Vec3, [a, b, c]: Triangle): boolean {
  const way = sub(to, from);
  const [e, f] = [sub(b, a), sub(c, a)];
  const h = cross(way, f);
  const det = dot(e, h);
  if (Math.abs(det) < 1e-18) return false;
  const s = sub(from, a);
  const u = dot(s, h) / det;
  if (u < 0 || u > 1) return false;
  const q = cross(s, e);
  const v = dot(way, q) / det;
  if (v < 0 || u + v > 1) return false;
  const t = dot(f, q) / det;
  return t >= 0 && t <= 1;
}

/** Whether two triangles cut each other: an edge of one goes through the other. Triangles in one plane do not. */
export function trianglesCut(a: Triangle, b: Triangle): boolean {
  for (let k = 0; k < 3; k++) if (pierces(a[k], a[(k + 1) % 3], b) || pierces(b[k], b[(k + 1) % 3], a)) return true;
  return false;
}

/** The point of a triangle nearest to a point. */
export function nearestOn(p: Vec3, corners: Triangle): Vec3 {
  const near = nearestOnFace(corners.flat(), CORNERS, 0, p[0], p[1], p[2]);
  return [near[0], near[1], near[2]];
}

const CORNERS = [0, 1, 2];
/** What `nearestOnFace` answers with, written anew by each. */
const NEAREST = new Float64Array(3);

/**
 * The point of a face nearest to a point (Ericson, Real-Time Collision Detection, 2005, section 5.1.5).
 * @returns an array that the next call writes to again
 */
export function nearestOnFace(
  positions: ArrayLike<number>,
  indices: ArrayLike<number>,
  face: number,
  x: number,
  y: number,
  z: number,
): Float64Array {
  const a = 3 * indices[3 * face];
  const b = 3 * indices[3 * face + 1];
  const c = 3 * indices[3 * face + 2];
  const ax = positions[a];
  const ay = positions[a + 1];
  const az = positions[a + 2];
  const ux = positions[b] - ax;
  const uy = positions[b + 1] - ay;
  const uz = positions[b + 2] - az;
  const vx = positions[c] - ax;
  const vy = positions[c + 1] - ay;
  const vz = positions[c + 2] - az;
  const d1 = ux * (x - ax) + uy * (y - ay) + uz * (z - az);
  const d2 = vx * (x - ax) + vy * (y - ay) + vz * (z - az);
  if (d1 <= 0 && d2 <= 0) return put(ax, ay, az);
  const bx = positions[b];
  const by = positions[b + 1];
  const bz = positions[b + 2];
  const d3 = ux * (x - bx) + uy * (y - by) + uz * (z - bz);
  const d4 = vx * (x - bx) + vy * (y - by) + vz * (z - bz);
  if (d3 >= 0 && d4 <= d3) return put(bx, by, bz);
  const atC = d1 * d4 - d3 * d2;
  if (atC <= 0 && d1 >= 0 && d3 <= 0) {
    const t = d1 / (d1 - d3);
    return put(ax + t * ux, ay + t * uy, az + t * uz);
  }
  const cx = positions[c];
  const cy = positions[c + 1];
  const cz = positions[c + 2];
  const d5 = ux * (x - cx) + uy * (y - cy) + uz * (z - cz);
  const d6 = vx * (x - cx) + vy * (y - cy) + vz * (z - cz);
  if (d6 >= 0 && d5 <= d6) return put(cx, cy, cz);
  const atB = d5 * d2 - d1 * d6;
  if (atB <= 0 && d2 >= 0 && d6 <= 0) {
    const t = d2 / (d2 - d6);
    return put(ax + t * vx, ay + t * vy, az + t * vz);
  }
  const atA = d3 * d6 - d5 * d4;
  if (atA <= 0 && d4 - d3 >= 0 && d5 - d6 >= 0) {
    const t = (d4 - d3) / (d4 - d3 + (d5 - d6));
    return put(bx + t * (cx - bx), by + t * (cy - by), bz + t * (cz - bz));
  }
  const sum = atA + atB + atC;
  const s = atB / sum;
  const t = atC / sum;
  return put(ax + (s * ux + t * vx), ay + (s * uy + t * vy), az + (s * uz + t * vz));
}

function put(x: number, y: number, z: number): Float64Array {
  NEAREST[0] = x;
  NEAREST[1] = y;
  NEAREST[2] = z;
  return NEAREST;
}

/** Squared distance between two segments (Ericson, section 5.1.9). */
function segmentGap(p: Vec3, q: Vec3, r: Vec3, t: Vec3): number {
  const [d1, d2, w] = [sub(q, p), sub(t, r), sub(p, r)];
  const [a, e, f] = [dot(d1, d1), dot(d2, d2), dot(d2, w)];
  const clamp = (x: number): number => Math.min(1, Math.max(0, x));
  let [s, u] = [0, 0];
  if (a > 1e-20 && e > 1e-20) {
    const [b, c] = [dot(d1, d2), dot(d1, w)];
    const denominator = a * e - b * b;
    s = denominator > 1e-20 ? clamp((b * f - c * e) / denominator) : 0;
    u = (b * s + f) / e;
    if (u < 0) [s, u] = [clamp(-c / a), 0];
    else if (u > 1) [s, u] = [clamp((b - c) / a), 1];
  } else if (a > 1e-20) s = clamp(-dot(d1, w) / a);
  else if (e > 1e-20) u = clamp(f / e);
  const gap = sub(add(p, scale(d1, s)), add(r, scale(d2, u)));
  return dot(gap, gap);
}

/** Squared distance between two triangles that do not cut each other. */
export function triangleGap(a: Triangle, b: Triangle): number {
  let least = Infinity;
  for (let k = 0; k < 3; k++) {
    const [onB, onA] = [sub(a[k], nearestOn(a[k], b)), sub(b[k], nearestOn(b[k], a))];
    least = Math.min(least, dot(onB, onB), dot(onA, onA));
    for (let j = 0; j < 3; j++) least = Math.min(least, segmentGap(a[k], a[(k + 1) % 3], b[j], b[(j + 1) % 3]));
  }
  return least;
}
