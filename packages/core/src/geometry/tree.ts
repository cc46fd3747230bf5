import { NO_PARENT, pathCount, type Paths } from './paths';
import { between, NO_TURN, type Turn, turnedBy } from './turns';
import { add, at, dot, scale, sub, unit, type Vec3 } from './vec';

/**
 * How paths grow from one another. A path names its parent by the parent's id, so that joining, thinning out and putting in another
 * order keep the tree; it holds on to it by a rest coordinate, so that bending and cutting the parent keep the joint. When it
 * begins is told by `arrival`, in shares of the growth's own growing.
 */
export interface PathTree {
  /** m, place of each path's parent among the paths, or −1. */
  parents: Int32Array;
  /** m, how many joints lie between each path and its root. */
  depths: Uint32Array;
  /** All paths, parents before their children. */
  order: Uint32Array;
}

/** The tree that paths make; paths in a circle of parents count as roots, and `treeFlaws` tells of them. */
export function pathTreeOf(paths: Paths): PathTree {
  const m = pathCount(paths);
  const parents = new Int32Array(m).fill(-1);
  const depths = new Uint32Array(m);
  const places = new Map<number, number>();
  paths.ids.forEach((id, p) => places.set(id, p));
  for (let p = 0; paths.parent && p < m; p++)
    if (paths.parent[p] !== NO_PARENT) parents[p] = places.get(paths.parent[p]) ?? -1;
  const order: number[] = [];
  /** 0 not met, 1 on the way up, 2 in the order. */
  const state = new Uint8Array(m);
  const way: number[] = [];
  for (let p = 0; p < m; p++) {
    let here = p;
    while (here >= 0 && state[here] === 0) {
      state[here] = 1;
      way.push(here);
      here = parents[here];
    }
    // Met on the way up: a circle, which is opened here.
    if (here >= 0 && state[here] === 1) parents[way[way.length - 1]] = -1;
    while (way.length > 0) {
      here = way.pop()!;
      state[here] = 2;
      depths[here] = parents[here] < 0 ? 0 : depths[parents[here]] + 1;
      order.push(here);
    }
  }
  return { parents, depths, order: Uint32Array.from(order) };
}

/** What does not hold of a tree: parents that are not there, circles, joints off the parent. */
export function treeFlaws(paths: Paths): string[] {
  const found: string[] = [];
  if (!paths.parent) return found;
  const { parents } = pathTreeOf(paths);
  const ids = new Set(paths.ids);
  paths.parent.forEach((parent, p) => {
    if (parent === NO_PARENT) return;
    if (!ids.has(parent)) found.push(`path ${p} names a parent that is not there`);
    else if (parents[p] < 0) found.push(`path ${p} is in a circle of parents`);
    const attach = paths.attach?.[p];
    if (attach === undefined || !(attach >= 0 && attach <= 1))
      found.push(`path ${p} holds on to no place of its parent`);
  });
  return found;
}

/**
 * Brings branches that have been moved back to where they hold on to their parents, and turns them with these: each as a whole, with
 * all that grows from it. A branch whose own points have been moved as its parent was is turned already; what it lacks is
 * the turn from where its own move would have brought the parent's direction at the joint to where that has come.
 * @param positions 3n, where the points of the paths are now; written to
 * @param felt where a branch's own move brings a point of its parent; where it is left out branches are not turned
 */
export function rejoin(paths: Paths, positions: Float32Array, felt?: (branch: number, place: Vec3) => Vec3): void {
  if (!paths.parent) return;
  const { parents, order } = pathTreeOf(paths);
  for (const p of order) {
    const [first, end] = [paths.offsets[p], paths.offsets[p + 1]];
    // What has lost its base to growth hangs on nothing any more.
    if (parents[p] < 0 || first === end || paths.u[first] > 1e-6) continue;
    const joint = jointOn(paths, parents[p], paths.attach![p]);
    if (!joint) continue;
    const place = on(joint, positions);
    const base = at(positions, first);
    const turn = felt ? turnAt(joint, paths.positions, positions, (from) => felt(p, from)) : NO_TURN;
    for (let i = first; i < end; i++) positions.set(add(place, turnedBy(turn, sub(at(positions, i), base))), 3 * i);
  }
}

/** The turn from where a move would have brought a direction at a joint to where it has come. */
function turnAt(joint: Joint, before: Float32Array, now: Float32Array, move: (place: Vec3) => Vec3): Turn {
  const [a, b] = [at(before, joint.low), at(before, joint.high)];
  const way = sub(at(now, joint.high), at(now, joint.low));
  const own = sub(move(b), move(a));
  return dot(way, way) > 0 && dot(own, own) > 0 ? between(unit(own), unit(way)) : NO_TURN;
}

/** A place between two points of a path. */
export interface Joint {
  low: number;
  high: number;
  t: number;
}

const on = ({ low, high, t }: Joint, positions: Float32Array): Vec3 => {
  const [a, b] = [at(positions, low), at(positions, high)];
  return add(a, scale(sub(b, a), t));
};

/** Where a rest coordinate of a path is; null where that part of it is not there. */
export function jointOn(paths: Paths, path: number, u: number): Joint | null {
  const [first, end] = [paths.offsets[path], paths.offsets[path + 1]];
  if (end === first || u < paths.u[first] - 1e-6 || u > paths.u[end - 1] + 1e-6) return null;
  let [low, high] = [first, end - 1];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (paths.u[middle] <= u) low = middle;
    else high = middle;
  }
  const run = paths.u[high] - paths.u[low];
  return { low, high, t: run > 0 ? Math.min(1, Math.max(0, (u - paths.u[low]) / run)) : 0 };
}
