import { smoothstep } from '../fields/smoothstep';
import { type Paths, pathCount } from './paths';
import { pathTreeOf } from './tree';

/** Branches that leave a path, from its tip down. */
interface Leaving {
  /** Rest length from the path's base at which it leaves, metres. */
  s: number;
  path: number;
}

/** The branches that leave each path, the one nearest to the tip first. */
function leavingOf(paths: Paths): { leaving: Leaving[][]; order: Uint32Array } {
  const { parents, order } = pathTreeOf(paths);
  const leaving: Leaving[][] = Array.from({ length: pathCount(paths) }, () => []);
  parents.forEach((parent, path) => {
    // What has not come up yet carries nothing.
    if (parent < 0 || paths.offsets[path + 1] - paths.offsets[path] < 2) return;
    leaving[parent].push({ s: paths.attach![path] * restLength(paths, parent), path });
  });
  for (const of of leaving) of.sort((a, b) => b.s - a.s);
  return { leaving, order };
}

/** Rest length of the whole of a path, whatever of it is there, metres. */
function restLength({ s, u, offsets }: Paths, path: number): number {
  const last = offsets[path + 1] - 1;
  return last >= offsets[path] && u[last] > 0 ? s[last] / u[last] : 0;
}

export interface Carrying {
  /** A branch raised to this power is the sum of what it carries raised to it. */
  exponent: number;
  /** Thickness of a tip, as a factor. */
  tip: number;
  /** Length over which a branch that comes up gets its weight, metres. */
  over: number;
  /** Length below a joint over which what leaves there is taken in, metres. */
  flare: number;
}

/**
 * Thickness by the pipe model (Shinozaki and others, A quantitative analysis of plant form, 1964; with an exponent after Murray,
 * The physiological principle of minimum work, 1926): every tip that is there weighs one, less while it is short, and what is
 * below carries all that is above. So a stem thickens as what it carries comes up.
 * @returns n factors
 */
export function pipeSizes(paths: Paths, { exponent, tip, over, flare }: Carrying): Float32Array {
  const { s, offsets } = paths;
  const { leaving, order } = leavingOf(paths);
  const sizes = new Float32Array(s.length);
  /** What each branch comes to at its base. */
  const carried = new Float64Array(pathCount(paths));
  // Children before their parents.
  for (const path of [...order].reverse()) {
    const [first, end] = [offsets[path], offsets[path + 1]];
    if (first === end) continue;
    const length = s[end - 1] - s[first];
    const hair = 1e-6 * (1 + s[end - 1]);
    const own = over > 0 ? smoothstep(length / over) : 1;
    // What leaves nearer to the base than a flare from here is still to be added.
    let from = 0;
    let sum = own;
    for (let i = end - 1; i >= first; i--) {
      const of = leaving[path];
      // Joints are held in single precision: one that lies here by a hair above is here.
      const above = (k: number): number => of[k].s - s[i] + hair;
      while (from < of.length && above(from) >= Math.max(hair, flare)) sum += carried[of[from++].path];
      let here = sum;
      for (let k = from; k < of.length && above(k) >= 0; k++)
        here += carried[of[k].path] * (flare > 0 ? smoothstep(above(k) / flare) : 1);
      sizes[i] = tip * here ** (1 / exponent);
    }
    carried[path] = own + leaving[path].reduce((all, { path: branch }) => all + carried[branch], 0);
  }
  return sizes;
}

/**
 * The order of each point's piece of branch, from 1 at the tips: where two of the highest order meet it rises by one (Strahler,
 * Hypsometric analysis of erosional topography, 1952).
 */
export function strahlerOrders(paths: Paths): Float32Array {
  const { s, offsets } = paths;
  const { leaving, order } = leavingOf(paths);
  const orders = new Float32Array(s.length);
  const atBase = new Uint32Array(pathCount(paths));
  for (const path of [...order].reverse()) {
    const [first, end] = [offsets[path], offsets[path + 1]];
    const of = [...leaving[path]].sort((a, b) => b.s - a.s || atBase[b.path] - atBase[a.path]);
    let now = 1;
    let k = 0;
    for (let i = end - 1; i >= first; i--) {
      // At the joint itself it is what is above, below it what both come to.
      while (k < of.length && of[k].s > s[i] + 1e-9) now = met(now, atBase[of[k++].path]);
      orders[i] = now;
    }
    while (k < of.length) now = met(now, atBase[of[k++].path]);
    atBase[path] = now;
  }
  return orders;
}

const met = (one: number, other: number): number => (one === other ? one + 1 : Math.max(one, other));

/** How many joints lie between each point and the root. */
export function branchDepths(paths: Paths): Float32Array {
  const { depths } = pathTreeOf(paths);
  const out = new Float32Array(paths.s.length);
  depths.forEach((depth, path) => out.fill(depth, paths.offsets[path], paths.offsets[path + 1]));
  return out;
}

/** Distance of each point from the root along the branches, at rest, metres. */
export function rootDistances(paths: Paths): Float32Array {
  const { parents, order } = pathTreeOf(paths);
  const begins = new Float64Array(pathCount(paths));
  const out = new Float32Array(paths.s.length);
  for (const path of order) {
    const parent = parents[path];
    if (parent >= 0) begins[path] = begins[parent] + paths.attach![path] * restLength(paths, parent);
    for (let i = paths.offsets[path]; i < paths.offsets[path + 1]; i++) out[i] = begins[path] + paths.s[i];
  }
  return out;
}

/** How a front runs through branches. */
export type Running = 'even' | 'together' | 'generations' | 'each';

/**
 * When a front gets to each point of branched paths: at an even pace from the roots, so that all tips are reached at once, or one
 * generation after another; null where each path grows by itself. A branch begins no sooner than its parent gets to the joint.
 */
export function arrivalsBy(paths: Paths, running: Running): Float32Array | null {
  if (running === 'each') return null;
  const { s, offsets } = paths;
  const from = rootDistances(paths);
  const out = new Float32Array(s.length);
  if (running === 'generations') {
    const { depths } = pathTreeOf(paths);
    const generations = 1 + depths.reduce((most, depth) => Math.max(most, depth), 0);
    depths.forEach((depth, path) => {
      const [first, end] = [offsets[path], offsets[path + 1]];
      const length = end > first ? s[end - 1] - s[first] : 0;
      for (let i = first; i < end; i++) out[i] = (depth + (length > 0 ? (s[i] - s[first]) / length : 0)) / generations;
    });
    return out;
  }
  const { leaving, order } = leavingOf(paths);
  /** How far it is from each point to the furthest tip beyond it. */
  const beyond = new Float64Array(s.length);
  for (const path of [...order].reverse()) {
    const of = leaving[path];
    let [k, furthest] = [0, 0];
    for (let i = offsets[path + 1] - 1; i >= offsets[path]; i--) {
      if (i + 1 < offsets[path + 1]) furthest += s[i + 1] - s[i];
      for (; k < of.length && of[k].s >= s[i] - 1e-6 * (1 + s[i]); k++) {
        const base = offsets[of[k].path];
        furthest = Math.max(furthest, of[k].s - s[i] + beyond[base]);
      }
      beyond[i] = furthest;
    }
  }
  const longest = from.reduce((most, d) => Math.max(most, d), 1e-9);
  for (let i = 0; i < s.length; i++)
    out[i] = running === 'even' ? from[i] / longest : from[i] / Math.max(1e-9, from[i] + beyond[i]);
  return out;
}

/**
 * Ranks of paths as they count for what grows as a whole: a branch has that of its root, and roots follow each other without gaps.
 * @param ranks m, of each path by itself
 */
export function rootRanks(paths: Paths, ranks: ArrayLike<number>): ArrayLike<number> {
  if (!paths.parent || !paths.arrival) return ranks;
  const { parents, order } = pathTreeOf(paths);
  const roots = [...order].filter((path) => parents[path] < 0).sort((a, b) => ranks[a] - ranks[b]);
  const out = new Float64Array(pathCount(paths));
  roots.forEach((path, rank) => (out[path] = rank));
  for (const path of order) if (parents[path] >= 0) out[path] = out[parents[path]];
  return out;
}
