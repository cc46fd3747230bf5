import { add, cross, dot, scale, sub, type Vec3 } from './vec';

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

/** The point of a triangle nearest to a point (Ericson, Real-Time Collision Detection, 2005, section 5.1.5). */
export function nearestOn(p: Vec3, [a, b, c]: Triangle): Vec3 {
  const [ab, ac, ap] = [sub(b, a), sub(c, a), sub(p, a)];
  const [d1, d2] = [dot(ab, ap), dot(ac, ap)];
  if (d1 <= 0 && d2 <= 0) return a;
  const bp = sub(p, b);
  const [d3, d4] = [dot(ab, bp), dot(ac, bp)];
  if (d3 >= 0 && d4 <= d3) return b;
  const vc = d1 * d4 - d3 * d2;
  if (vc <= 0 && d1 >= 0 && d3 <= 0) return add(a, scale(ab, d1 / (d1 - d3)));
  const cp = sub(p, c);
  const [d5, d6] = [dot(ab, cp), dot(ac, cp)];
  if (d6 >= 0 && d5 <= d6) return c;
  const vb = d5 * d2 - d1 * d6;
  if (vb <= 0 && d2 >= 0 && d6 <= 0) return add(a, scale(ac, d2 / (d2 - d6)));
  const va = d3 * d6 - d5 * d4;
  if (va <= 0 && d4 - d3 >= 0 && d5 - d6 >= 0) {
    const w = (d4 - d3) / (d4 - d3 + (d5 - d6));
    return add(b, scale(sub(c, b), w));
  }
  const sum = va + vb + vc;
  return add(a, add(scale(ab, vb / sum), scale(ac, vc / sum)));
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
