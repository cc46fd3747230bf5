import type { YieldNow } from '../../yieldNow';
import type { NodeTree } from '../../curves/colonise';
import { random } from '../../fields/random';
import { Wave } from '../../geometry/search/dijkstra';
import type { Neighbours } from '../../geometry/topology/topology';
import { at, distance, dot, sub, unit, type Vec3 } from '../../geometry/vec';

/** Places between two yields. */
const CHUNK = 8192;

/** The place of a mesh that is nearest to a point, of those that edges lead to. */
export function nearestVertex(places: ArrayLike<number>, { starts }: Neighbours, point: Vec3): number {
  let [best, least] = [-1, Infinity];
  for (let i = 0; i + 1 < starts.length; i++) {
    if (starts[i + 1] === starts[i]) continue;
    const away = distance(at(places, i), point);
    if (away < least) [best, least] = [i, away];
  }
  return best;
}

/** How an edge tree is found. */
export interface EdgeTreeOptions {
  root: number;
  /** Places that it leads to; those that no edge leads to from the root are left out. */
  ends: ArrayLike<number>;
  /** How much longer or shorter chance makes edges, 0..1. */
  wander: number;
  seed: number;
}

/**
 * Shortest ways along edges from one place to many (Dijkstra, A note on two problems in connexion with graphs, 1959): together they
 * are a tree.
 * @param places 3n, metres
 * @returns the tree, its births in the order of their distance, and the place of each of its nodes
 */
export async function edgeTree(
  places: ArrayLike<number>,
  { starts, others }: Neighbours,
  { root, ends, wander, seed }: EdgeTreeOptions,
  yieldNow: YieldNow,
): Promise<{ tree: NodeTree; places: Uint32Array }> {
  const n = starts.length - 1;
  const wave = new Wave(n);
  const parents = new Int32Array(n).fill(-1);
  wave.lower(root, 0, root);
  let visited = 0;
  for (let i = wave.next(); i >= 0; i = wave.next()) {
    if (visited++ % CHUNK === 0) await yieldNow();
    for (let e = starts[i]; e < starts[i + 1]; e++) {
      const j = others[e];
      const chance = wander > 0 ? 1 + wander * (2 * random(seed, Math.min(i, j), Math.max(i, j)) - 1) : 1;
      const along = wave.distances[i] + distance(at(places, i), at(places, j)) * Math.max(0.02, chance);
      if (!(along < wave.distances[j])) continue;
      wave.lower(j, along, root);
      parents[j] = i;
    }
  }
  const used = new Uint8Array(n);
  for (let k = 0; k < ends.length; k++) {
    if (wave.distances[ends[k]] === Infinity) continue;
    for (let i = ends[k]; i >= 0 && used[i] === 0; i = parents[i]) used[i] = 1;
  }
  used[root] = 1;
  const kept = [...used.keys()]
    .filter((i) => used[i] === 1)
    .sort((a, b) => wave.distances[a] - wave.distances[b] || a - b);
  const number = new Map(kept.map((place, k) => [place, k]));
  const tree: NodeTree = {
    positions: Float32Array.from(kept.flatMap((i) => [places[3 * i], places[3 * i + 1], places[3 * i + 2]])),
    parents: Int32Array.from(kept, (i) => (parents[i] < 0 ? -1 : number.get(parents[i])!)),
    births: Uint32Array.from(kept, (_, k) => k),
  };
  return { tree, places: Uint32Array.from(kept) };
}

/** How walks along edges go. */
export interface EdgeWalkOptions {
  count: number;
  /** Of each at most, metres. */
  length: number;
  /** How much they go straight on, 0..1. */
  straight: number;
  /** How much they go towards a place, 1 wholly, −1 away from it. */
  pull: number;
  towards: Vec3;
  seed: number;
}

/** How much chance counts beside going straight on and towards a place. */
const CHANCE = 0.7;

/**
 * Walks along edges that never come to a place where one has been: none crosses another or itself. More of them change none before.
 * @returns the places of each; walks that find no way on from where they begin are left out
 */
export async function edgeWalks(
  places: ArrayLike<number>,
  { starts, others }: Neighbours,
  { count, length, straight, pull, towards, seed }: EdgeWalkOptions,
  yieldNow: YieldNow,
): Promise<number[][]> {
  const n = starts.length - 1;
  const taken = new Uint8Array(n);
  const walks: number[][] = [];
  for (let k = 0; k < count; k++) {
    if (k % 64 === 0) await yieldNow();
    let here = Math.floor(random(seed, k, 0) * n);
    // The next free place, where one has been there.
    for (let tries = 0; tries < n && (taken[here] === 1 || starts[here] === starts[here + 1]); tries++)
      here = (here + 1) % n;
    if (taken[here] === 1) break;
    const walk = [here];
    taken[here] = 1;
    let [left, before]: [number, Vec3 | null] = [length, null];
    for (let step = 1; left > 0; step++) {
      let [best, most] = [-1, -Infinity];
      const from = at(places, here);
      const target = unit(sub(towards, from), [0, 0, 0]);
      for (let e = starts[here]; e < starts[here + 1]; e++) {
        const j = others[e];
        if (taken[j] === 1) continue;
        const way = unit(sub(at(places, j), from));
        const score =
          CHANCE * random(seed, k * 4099 + step, 1 + e - starts[here]) +
          (before ? straight * dot(before, way) : 0) +
          pull * dot(target, way);
        if (score > most) [best, most] = [j, score];
      }
      if (best < 0) break;
      const to = at(places, best);
      // What is drawn to a place ends where it would only go away again.
      if (pull > 0.5 && distance(to, towards) > distance(from, towards)) break;
      before = unit(sub(to, from));
      left -= distance(from, to);
      taken[best] = 1;
      walk.push(best);
      here = best;
    }
    if (walk.length > 1) walks.push(walk);
  }
  return walks;
}
