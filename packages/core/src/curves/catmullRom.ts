import { type Vec3, at } from '../geometry/vec';

const MIN_KNOT = 1e-6;

/**
 * A centripetal Catmull-Rom curve through anchors: it neither overshoots into loops nor cusps inside a segment.
 * Evaluated by the pyramid of Barry and Goldman (A recursive evaluation algorithm for a class of Catmull-Rom splines,
 * SIGGRAPH 1988); centripetal knots after Yuksel, Schaefer, Keyser (Parameterization and applications of Catmull-Rom
 * curves, Computer-Aided Design 43, 2011).
 *
 * @param anchors xyz triples, metres; two or more
 * @param perSegment points per segment, 1 or more; each segment begins exactly on its anchor
 * @param closed joins the last anchor to the first; such a curve does not repeat its first point
 * @returns xyz triples; (anchors − 1) · perSegment + 1 points when open, anchors · perSegment when closed
 * @example
 * catmullRom([0, 0, 0, 1, 0, 0, 2, 0, 0], 4, false).length / 3; // → 9
 */
export function catmullRom(anchors: ArrayLike<number>, perSegment: number, closed: boolean): Float64Array {
  const n = anchors.length / 3;
  if (n === 1) return Float64Array.from(at(anchors, 0));
  const segments = closed ? n : n - 1;
  const out = new Float64Array(3 * (segments * perSegment + (closed ? 0 : 1)));
  for (let k = 0; k < segments; k++) {
    const [p0, p1, p2, p3] = [
      neighbour(anchors, k - 1, closed),
      neighbour(anchors, k, closed),
      neighbour(anchors, k + 1, closed),
      neighbour(anchors, k + 2, closed),
    ];
    for (let j = 0; j < perSegment; j++) {
      const point = j === 0 ? p1 : segmentPoint(p0, p1, p2, p3, j / perSegment);
      out.set(point, 3 * (k * perSegment + j));
    }
  }
  if (!closed) out.set(at(anchors, n - 1), out.length - 3);
  return out;
}

/** Anchor i; past an open end, the end's neighbour mirrored through it, which leaves the end curving naturally. */
function neighbour(anchors: ArrayLike<number>, i: number, closed: boolean): Vec3 {
  const n = anchors.length / 3;
  if (closed) return at(anchors, (i + n) % n);
  if (i >= 0 && i < n) return at(anchors, i);
  const end = i < 0 ? 0 : n - 1;
  const inner = i < 0 ? 1 : n - 2;
  const [e, f] = [at(anchors, end), at(anchors, inner)];
  return [2 * e[0] - f[0], 2 * e[1] - f[1], 2 * e[2] - f[2]];
}

function segmentPoint(p0: Vec3, p1: Vec3, p2: Vec3, p3: Vec3, share: number): Vec3 {
  const t1 = knot(p0, p1);
  const t2 = t1 + knot(p1, p2);
  const t3 = t2 + knot(p2, p3);
  const t = t1 + share * (t2 - t1);
  const point: [number, number, number] = [0, 0, 0];
  for (let c = 0; c < 3; c++) {
    const a1 = mix(p0[c], p1[c], t / t1);
    const a2 = mix(p1[c], p2[c], (t - t1) / (t2 - t1));
    const a3 = mix(p2[c], p3[c], (t - t2) / (t3 - t2));
    const b1 = mix(a1, a2, t / t2);
    const b2 = mix(a2, a3, (t - t1) / (t3 - t1));
    point[c] = mix(b1, b2, (t - t1) / (t2 - t1));
  }
  return point;
}

/** Knot distance: the square root of the chord. Doubled anchors keep a tiny one, so that nothing divides by zero. */
const knot = (a: Vec3, b: Vec3): number =>
  Math.max(Math.sqrt(Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2])), MIN_KNOT);

const mix = (a: number, b: number, t: number): number => a + (b - a) * t;
