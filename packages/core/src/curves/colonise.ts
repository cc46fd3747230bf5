import type { YieldNow } from '../yieldNow';
import { byAxis, type Vec3 } from '../geometry/vec';
import { CellGrid } from '../geometry/search/cellGrid';

/** What a tree grows by. */
export interface Colonising {
  /** 3a, places that it grows towards, metres. */
  attractors: Float32Array;
  /** Where it begins. */
  roots: readonly Vec3[];
  /** How far away a place still attracts, metres. */
  reach: number;
  /** Within this of a branch a place is reached, and attracts no more, metres. */
  reached: number;
  /** Length of a piece, metres. */
  step: number;
  /** A direction that all growth leans to, and how much of it there is, 0..1. */
  bias: Vec3;
  leaning: number;
  /** Keeps a new place where it may be: on a skin, out of an obstacle; null where it may not be at all. */
  allowed?: (place: Vec3) => Vec3 | null;
  /** The most nodes that there may be. */
  most: number;
}

/** A tree of nodes: n of them, roots first, parents before their children. */
export interface NodeTree {
  /** 3n, metres. */
  positions: Float32Array;
  /** n, node that each grew from, or −1. */
  parents: Int32Array;
  /** n, in which round each was born. */
  births: Uint32Array;
}

/** Work between two yields: a few milliseconds. */
const CHUNK = 2048;

/**
 * A tree that grows towards places until it has reached them: each place draws the nearest node, nodes grow a step towards the mean of
 * what draws them, and places that are reached draw no more (Runions, Lane, Prusinkiewicz, Modeling trees with a space
 * colonization algorithm, EG Workshop on Natural Phenomena, 2007). As long as nothing is within reach a root grows straight
 * to the nearest place.
 */
export async function coloniseSpace(
  { attractors, roots, reach, reached, step, bias, leaning, allowed, most }: Colonising,
  yieldNow: YieldNow = () => Promise.resolve(),
): Promise<NodeTree> {
  const count = attractors.length / 3;
  let room = 1024;
  let positions = new Float64Array(3 * room);
  let parents = new Int32Array(room);
  let births = new Uint32Array(room);
  /** The way that each node is drawn in its round, which place draws it first, and which round that is. */
  let sums = new Float64Array(3 * room);
  let firsts = new Int32Array(room);
  let rounds = new Uint32Array(room);
  let n = 0;
  /** What draws each place: the nearest node so far, and its squared distance. */
  const nearest = new Int32Array(count).fill(-1);
  const gap = new Float64Array(count).fill(Infinity);
  const there = new Uint8Array(count).fill(1);
  const grid = new CellGrid(attractors, reach / 2);
  /** Places that the node added last has come nearer to than any before. */
  let took = 0;

  const add = (place: Vec3, parent: number, round: number): number => {
    if (n === room) {
      room *= 2;
      [positions, parents, births] = [larger(positions, 3 * room), larger(parents, room), larger(births, room)];
      [sums, firsts, rounds] = [larger(sums, 3 * room), larger(firsts, room), larger(rounds, room)];
    }
    positions.set(place, 3 * n);
    parents[n] = parent;
    births[n] = round;
    const node = n++;
    took = 0;
    const take = (k: number): void => {
      const d = squared(attractors, k, place);
      if (d < reached * reached) there[k] = 0;
      else if (d <= reach * reach && d < gap[k]) {
        gap[k] = d;
        nearest[k] = node;
      } else return;
      took++;
    };
    const [x, y, z] = place;
    grid.near([x - reach, y - reach, z - reach], [x + reach, y + reach, z + reach], take, there);
    return node;
  };
  for (const root of roots) add(root, -1, 0);

  // Trunks: each root goes to the nearest place until that draws it.
  let begun = 0;
  for (let root = 0; root < roots.length; root++) {
    let node = root;
    let at = roots[root];
    for (;;) {
      let [goal, least] = [-1, Infinity];
      for (let k = 0; k < count; k++) {
        const d = there[k] ? squared(attractors, k, at) : Infinity;
        if (d < least) [goal, least] = [k, d];
      }
      if (goal < 0 || least <= reach * reach || n >= most) break;
      const way = unitTo(at, [attractors[3 * goal], attractors[3 * goal + 1], attractors[3 * goal + 2]]);
      const next = placed(at, way, step, allowed);
      if (!next) break;
      begun = Math.max(begun, births[node] + 1);
      node = add(next, node, births[node] + 1);
      at = next;
      if (n % CHUNK === 0) await yieldNow();
    }
  }

  const drawn: number[] = [];
  const placeAt = (i: number): Vec3 => [positions[3 * i], positions[3 * i + 1], positions[3 * i + 2]];
  for (let round = begun + 1; n < most; round++) {
    drawn.length = 0;
    for (let k = 0; k < count; k++) {
      if (k % (16 * CHUNK) === 0) await yieldNow();
      const node = nearest[k];
      if (!there[k] || node < 0) continue;
      const i = 3 * node;
      const x = attractors[3 * k] - positions[i];
      const y = attractors[3 * k + 1] - positions[i + 1];
      const z = attractors[3 * k + 2] - positions[i + 2];
      const over = 1 / (Math.sqrt(x * x + y * y + z * z) || 1);
      if (rounds[node] !== round) {
        rounds[node] = round;
        firsts[node] = k;
        sums[i] = sums[i + 1] = sums[i + 2] = 0;
        drawn.push(node);
      }
      sums[i] += x * over;
      sums[i + 1] += y * over;
      sums[i + 2] += z * over;
    }
    if (drawn.length === 0) break;
    for (const node of drawn) {
      if (n >= most) break;
      if (n % CHUNK === 0) await yieldNow();
      const at = placeAt(node);
      const way: Vec3 = [sums[3 * node], sums[3 * node + 1], sums[3 * node + 2]];
      const k = firsts[node];
      const first = unitTo(at, [attractors[3 * k], attractors[3 * k + 1], attractors[3 * k + 2]]);
      // Drawn evenly to both sides it goes to one of them.
      const even = way[0] ** 2 + way[1] ** 2 + way[2] ** 2 < 1e-6;
      const own = even ? first : unitTo([0, 0, 0], way);
      const leant = unitTo(
        [0, 0, 0],
        byAxis((c) => own[c] + leaning * bias[c]),
      );
      // Where the mean of what draws it leads nowhere, it goes to the first of it; what is not to be reached so is given up.
      const gone = [leant, first].some((towards) => {
        const next = placed(at, towards, step, allowed);
        if (!next) return false;
        add(next, node, round);
        if (took === 0) n--;
        return took > 0;
      });
      if (!gone) there[k] = 0;
    }
  }
  return {
    positions: Float32Array.from(positions.subarray(0, 3 * n)),
    parents: parents.slice(0, n),
    births: births.slice(0, n),
  };
}

function placed(at: Vec3, way: Vec3, step: number, allowed?: (place: Vec3) => Vec3 | null): Vec3 | null {
  const next: Vec3 = [at[0] + step * way[0], at[1] + step * way[1], at[2] + step * way[2]];
  if (!allowed) return next;
  const kept = allowed(next);
  // Held back where it was, it does not grow.
  return kept && Math.hypot(kept[0] - at[0], kept[1] - at[1], kept[2] - at[2]) > 0.05 * step ? kept : null;
}

const squared = (flat: Float32Array, k: number, [x, y, z]: Vec3): number =>
  (flat[3 * k] - x) ** 2 + (flat[3 * k + 1] - y) ** 2 + (flat[3 * k + 2] - z) ** 2;

function unitTo(from: Vec3, to: Vec3): Vec3 {
  const [x, y, z] = [to[0] - from[0], to[1] - from[1], to[2] - from[2]];
  const length = Math.sqrt(x * x + y * y + z * z) || 1;
  return [x / length, y / length, z / length];
}

function larger<A extends Float64Array | Int32Array | Uint32Array>(from: A, length: number): A {
  const to = new (from.constructor as new (n: number) => A)(length);
  to.set(from);
  return to;
}
