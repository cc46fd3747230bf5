import { arcLengths, fraction, locate, totalLength } from '../../curves/arclength';
import { tangents, transport, firstNormal } from '../../curves/frames';
import { type FramedPaths, pathCount } from '../../geometry/paths';
import { jointOn, pathTreeOf } from '../../geometry/tree';
import { add, at, cross, dot, norm, perpendicular, scale, sub, unit, type Vec3 } from '../../geometry/vec';
import { type TubeShape, writeRadii } from '../sweep/rings';

/** Where a limb comes out of another. */
export interface Root {
  limb: Limb;
  /** Arc length on that limb at which it holds on, metres. */
  arc: number;
  /** Unit direction in which it leaves, and what of that lies along the other and square to it. */
  way: Vec3;
  along: number;
  across: number;
}

/**
 * Paths that follow one another as one: a path, and where others begin at its tip, the one that goes straightest on. Arrays have
 * one entry a point, without the doubled points between them.
 */
export interface Limb {
  /** Number of each point among all points. */
  points: Uint32Array;
  closed: boolean;
  /** Metres; one more where it is closed. */
  arcs: Float64Array;
  length: number;
  positions: Float64Array;
  tangents: Float64Array;
  normals: Float64Array;
  /** Metres, and how they change per metre along. */
  radii: Float64Array;
  slopes: Float64Array;
  root: Root | null;
  /** Those that come out of it, from its base on. */
  limbs: Limb[];
}

/** What a limb is like at an arc length. */
export interface Place {
  position: Vec3;
  tangent: Vec3;
  /** Square to the tangent; the third direction is tangent × normal. */
  normal: Vec3;
  side: Vec3;
  radius: number;
  /** The points that it lies between, by their numbers among all, and how far. */
  from: number;
  to: number;
  share: number;
}

/** How far a direction has to leave a limb for telling the side on which it does. */
const ASIDE = 0.15;

/** So many limbs between two yields. */
const CHUNK = 256;

/** The limbs of branched paths, those that carry others before them. What is too short to have a direction has none. */
export async function limbsOf(
  paths: FramedPaths,
  shape: TubeShape,
  yieldNow: () => Promise<void> = () => Promise.resolve(),
): Promise<Limb[]> {
  const { offsets } = paths;
  const m = pathCount(paths);
  const { parents, order } = pathTreeOf(paths);
  await yieldNow();
  const arcsOf = Array.from({ length: m }, (_, p) =>
    arcLengths(paths.positions, offsets[p], offsets[p + 1], paths.closed[p] === 1),
  );
  await yieldNow();
  const there = arcsOf.map((arcs) => totalLength(arcs) > 0);
  const joints = Array.from({ length: m }, (_, p) =>
    there[p] && parents[p] >= 0 && there[parents[p]] && paths.u[offsets[p]] <= 1e-6
      ? jointOn(paths, parents[p], paths.attach![p])
      : null,
  );
  const next = straightest(paths, parents, joints);
  const limbs: Limb[] = [];
  const limbOf: (Limb | undefined)[] = [];
  /** Where each point lies on its limb. */
  const arcOf = new Float64Array(paths.s.length);
  let made = 0;
  for (const p of order) {
    if (!there[p] || limbOf[p]) continue;
    if (made++ % CHUNK === 0) await yieldNow();
    const chain: number[] = [];
    for (let here = p; here >= 0; here = next[here]) chain.push(here);
    const limb = chained(paths, chain, arcsOf, shape, arcOf);
    for (const path of chain) limbOf[path] = limb;
    const joint = joints[p];
    const carrier = limbOf[parents[p]];
    if (joint && carrier) {
      const arc = arcOf[joint.low] + joint.t * (arcOf[joint.high] - arcOf[joint.low]);
      limb.root = rootOf(limb, carrier, arc);
      carrier.limbs.push(limb);
    }
    limbs.push(limb);
  }
  for (const { limbs: own } of limbs) own.sort((a, b) => a.root!.arc - b.root!.arc);
  return limbs;
}

/** For each path the one that begins at its tip and goes straightest on, −1 where none does. */
function straightest(paths: FramedPaths, parents: Int32Array, joints: ReturnType<typeof jointOn>[]): Int32Array {
  const { offsets, tangents: t } = paths;
  const next = new Int32Array(joints.length).fill(-1);
  const best = new Float64Array(joints.length).fill(-Infinity);
  joints.forEach((joint, p) => {
    const parent = parents[p];
    if (!joint || paths.closed[parent] || paths.closed[p]) return;
    const tip = offsets[parent + 1] - 1;
    if (joint.high !== tip || joint.t < 1 - 1e-4) return;
    const straight = dot(at(t, tip), at(t, offsets[p]));
    if (straight <= best[parent]) return;
    best[parent] = straight;
    next[parent] = p;
  });
  return next;
}

function chained(
  paths: FramedPaths,
  chain: readonly number[],
  arcsOf: readonly Float64Array[],
  shape: TubeShape,
  arcOf: Float64Array,
): Limb {
  const { offsets } = paths;
  const most = chain.reduce((sum, p) => sum + offsets[p + 1] - offsets[p], 0);
  const closed = paths.closed[chain[0]] === 1;
  // What goes on begins where what it goes on from ends: one point is enough.
  const n = most - (chain.length - 1);
  const points = new Uint32Array(n);
  const radii = new Float64Array(n);
  const positions = new Float64Array(3 * n);
  let to = 0;
  for (const [k, p] of chain.entries()) {
    const [a, b] = [offsets[p], offsets[p + 1]];
    const own = new Float64Array(b - a);
    writeRadii(paths, p, arcsOf[p], totalLength(arcsOf[p]), shape, own);
    for (let i = a + (k > 0 ? 1 : 0); i < b; i++, to++) {
      points[to] = i;
      radii[to] = own[i - a];
      for (let c = 0; c < 3; c++) positions[3 * to + c] = paths.positions[3 * i + c];
    }
  }
  const arcs = arcLengths(positions, 0, n, closed);
  for (let k = 0; k < n; k++) arcOf[points[k]] = arcs[k];
  for (const p of chain.slice(1)) arcOf[offsets[p]] = arcOf[offsets[p] + 1] - arcsOf[p][1];
  const along = new Float64Array(3 * n);
  const normals = new Float64Array(3 * n);
  if (chain.length === 1) {
    const [a, b] = [3 * offsets[chain[0]], 3 * offsets[chain[0] + 1]];
    along.set(paths.tangents.subarray(a, b));
    normals.set(paths.normals.subarray(a, b));
  } else {
    tangents(positions, 0, n, closed, along);
    const first = at(along, 0);
    const wanted = at(paths.normals, offsets[chain[0]]);
    const start = unit(sub(wanted, scale(first, dot(wanted, first))), firstNormal(first));
    transport(positions, 0, along, start, normals);
  }
  return {
    points,
    closed,
    arcs,
    length: totalLength(arcs),
    positions,
    tangents: along,
    normals,
    radii,
    slopes: slopesOf(arcs, radii, closed),
    root: null,
    limbs: [],
  };
}

/**
 * Slopes at the points of a course that rises and falls only where its points do (Fritsch and Carlson, Monotone piecewise cubic
 * interpolation, SIAM Journal on Numerical Analysis 17, 1980; the harmonic mean of Fritsch and Butland, 1984).
 * @param at n places, one more where the course is closed
 */
function slopesOf(at: Float64Array, values: Float64Array, closed: boolean): Float64Array {
  const n = values.length;
  const slopes = new Float64Array(n);
  for (let k = closed ? 0 : 1; k < (closed ? n : n - 1); k++) {
    const [before, after] = [(k + n - 1) % n, (k + 1) % n];
    const [h, g] = [k > 0 ? at[k] - at[k - 1] : at[n] - at[n - 1], at[k + 1] - at[k]];
    const [one, other] = [(values[k] - values[before]) / h, (values[after] - values[k]) / g];
    if (one * other > 0) slopes[k] = (3 * (h + g)) / ((2 * g + h) / one + (g + 2 * h) / other);
  }
  return slopes;
}

/** How a limb leaves another: by its first piece, or where that lies along the other, by as much as is needed to tell a side. */
function rootOf(limb: Limb, carrier: Limb, arc: number): Root {
  const { tangent, normal } = placeOn(carrier, arc);
  const base = at(limb.positions, 0);
  for (let k = 1; k < limb.points.length; k++) {
    const way = unit(sub(at(limb.positions, k), base), tangent);
    const along = dot(way, tangent);
    const across = Math.sqrt(Math.max(0, 1 - along * along));
    if (across >= ASIDE) return { limb: carrier, arc, way, along, across };
  }
  const way = unit(add(tangent, scale(normal, ASIDE)));
  return { limb: carrier, arc, way, along: dot(way, tangent), across: dot(way, normal) };
}

/** What a limb is like at an arc length: on the cubic through its points along their tangents, its frame square again between. */
export function placeOn(limb: Limb, s: number): Place {
  const { arcs, points, positions: o, tangents: t, normals: n, radii, slopes } = limb;
  const k = locate(arcs, s);
  const share = fraction(arcs, k, s);
  const j = k + 1 < points.length ? k + 1 : limb.closed ? 0 : k;
  const p = 3 * k;
  const q = 3 * j;
  const rest = 1 - share;
  const tangent = unit(
    [rest * t[p] + share * t[q], rest * t[p + 1] + share * t[q + 1], rest * t[p + 2] + share * t[q + 2]],
    at(t, k),
  );
  const [tx, ty, tz] = tangent;
  const rawX = rest * n[p] + share * n[q];
  const rawY = rest * n[p + 1] + share * n[q + 1];
  const rawZ = rest * n[p + 2] + share * n[q + 2];
  const slant = rawX * tx + rawY * ty + rawZ * tz;
  const x = rawX - slant * tx;
  const y = rawY - slant * ty;
  const z = rawZ - slant * tz;
  const normal = norm(x, y, z) > 1e-9 ? unit([x, y, z]) : perpendicular(tangent);
  const run = arcs[k + 1] - arcs[k];
  const from = rest * rest * (1 + 2 * share);
  const to = share * share * (3 - 2 * share);
  const out = run * rest * rest * share;
  const into = -run * rest * share * share;
  return {
    position: [
      from * o[p] + to * o[q] + out * t[p] + into * t[q],
      from * o[p + 1] + to * o[q + 1] + out * t[p + 1] + into * t[q + 1],
      from * o[p + 2] + to * o[q + 2] + out * t[p + 2] + into * t[q + 2],
    ],
    tangent,
    normal,
    side: cross(tangent, normal),
    radius: Math.max(0, from * radii[k] + to * radii[j] + out * slopes[k] + into * slopes[j]),
    from: points[k],
    to: points[j],
    share,
  };
}

/** Turns all frames of a limb about its path, radians. */
export function rollRing(limb: Limb, angle: number): void {
  const { tangents: t, normals } = limb;
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  for (let k = 0; k < limb.points.length; k++) {
    const normal = at(normals, k);
    normals.set(add(scale(normal, c), scale(cross(at(t, k), normal), s)), 3 * k);
  }
}
