import type { YieldNow } from '../../yieldNow';
import { mapped } from '../../geometry/filled';
import { Neighbours } from '../../geometry/search/spatialHash';
import { PointTree } from '../../geometry/search/pointTree';
import { distance, partWay, type Vec3 } from '../../geometry/vec';
import { Wave } from '../../geometry/search/dijkstra';
import { delaunayPairs } from './delaunay';

/** Links between nodes, in pairs of their numbers, the smaller first. */
export type Links = readonly (readonly [number, number])[];

/** Nodes between two yields. */
const CHUNK = 64;

/** Each pair once, the smaller number first, in order. */
export function uniqueLinks(pairs: readonly (readonly [number, number])[]): Links {
  // Both numbers in one, which sorts as they do.
  const keys = mapped(Float64Array, pairs, ([a, b]) => (a < b ? a * NODES + b : b * NODES + a)).sort();
  const found: [number, number][] = [];
  for (let k = 0; k < keys.length; k++)
    if (k === 0 || keys[k] !== keys[k - 1]) found.push([Math.floor(keys[k] / NODES), keys[k] % NODES]);
  return found;
}

/** More than there will ever be. */
const NODES = 2 ** 26;

/** Nodes by cells of a size, to find those nearer than that to a place. */
function byCells(nodes: readonly Vec3[], reach: number): { cells: Neighbours; positions: Float64Array } {
  const cells = new Neighbours(reach);
  const positions = Float64Array.from(nodes.flat());
  cells.put(positions, nodes.length);
  return { cells, positions };
}

/** Links from each node to so many that are nearest to it; of those that are equally far, to the first ones. */
export async function nearestLinks(
  nodes: readonly Vec3[],
  count: number,
  longest: number,
  yieldNow: YieldNow,
): Promise<Links> {
  const tree = new PointTree(nodes.flat());
  const pairs: [number, number][] = [];
  for (let i = 0; i < nodes.length; i++) {
    if (i % CHUNK === 0) await yieldNow();
    for (const k of tree.nearest(i, count, longest)) pairs.push([i, k]);
  }
  return uniqueLinks(pairs);
}

/** Links between all that are no further apart than a length. */
export async function linksWithin(nodes: readonly Vec3[], longest: number, yieldNow: YieldNow): Promise<Links> {
  const { cells, positions } = byCells(nodes, Math.max(1e-9, longest * (1 + 1e-9)));
  await yieldNow();
  const n = cells.pairs(positions, nodes.length);
  await yieldNow();
  const pairs = Array.from({ length: n }, (_, k): [number, number] => [cells.earlier[k], cells.later[k]]);
  return uniqueLinks(pairs.filter(([a, b]) => distance(nodes[a], nodes[b]) <= longest));
}

/**
 * The links that join all nodes with the least length: of neighbours by Delaunay, which hold them (Shamos and Hoey, Closest-point
 * problems, 1975), the shortest first, each that joins what does not hang together yet (Kruskal, On the shortest spanning
 * subtree of a graph, 1956).
 */
export async function shortestTree(nodes: readonly Vec3[], yieldNow: YieldNow): Promise<Links> {
  const pairs = uniqueLinks(await delaunayPairs(nodes, yieldNow))
    .map((pair) => ({ pair, length: distance(nodes[pair[0]], nodes[pair[1]]) }))
    .sort((p, q) => p.length - q.length);
  const head = Array.from(nodes.keys());
  const headOf = (k: number): number => {
    while (head[k] !== k) k = head[k] = head[head[k]];
    return k;
  };
  const links: (readonly [number, number])[] = [];
  for (const { pair } of pairs) {
    const [a, b] = pair.map(headOf);
    if (a === b) continue;
    head[a] = b;
    links.push(pair);
  }
  return uniqueLinks(links);
}

/** Nodes of a regular grid lie on the border of such balls: they count as within, for all links alike. Positions are of single precision. */
const TIE = 1e-5;

/**
 * Links between nodes with no other in the closed ball that has them at opposite ends (Gabriel and Sokal, A new statistical approach to
 * geographic variation analysis, 1969): a net without crossings in the plane, and without long ways through others in space.
 * They are neighbours by Delaunay, and what is in such a ball has one of these in it that is a neighbour of both ends: the middle
 * lies on the far side of some bisector that bounds the face between their cells (Matula and Sokal 1980).
 */
export async function gabrielLinks(nodes: readonly Vec3[], longest: number, yieldNow: YieldNow): Promise<Links> {
  const all = await delaunayPairs(nodes, yieldNow);
  await yieldNow();
  const pairs = uniqueLinks(all);
  await yieldNow();
  const about: number[][] = nodes.map(() => []);
  for (const [a, b] of pairs) {
    about[a].push(b);
    about[b].push(a);
  }
  return pairs.filter(([a, b]) => {
    const radius = distance(nodes[a], nodes[b]) / 2;
    if (2 * radius > longest) return false;
    const middle = partWay(nodes[a], nodes[b], 0.5);
    return !about[a].some((k) => k !== b && distance(nodes[k], middle) <= radius * (1 + TIE));
  });
}

/** Links between all that are neighbours by Delaunay, no longer than a length (see `delaunayPairs`). */
export async function neighbourLinks(nodes: readonly Vec3[], longest: number, yieldNow: YieldNow): Promise<Links> {
  const pairs = await delaunayPairs(nodes, yieldNow);
  await yieldNow();
  return uniqueLinks(pairs.filter(([a, b]) => distance(nodes[a], nodes[b]) <= longest));
}

/** A link from one node to every other. */
export const hubLinks = (nodes: readonly Vec3[], hub: number): Links =>
  uniqueLinks(Array.from(nodes.keys()).flatMap((k) => (k === hub ? [] : [[hub, k] as const])));

/**
 * How far each node is from a hub along the links (Dijkstra 1959). What no link leads to begins at its own node that is nearest to
 * the hub, when the front would have come there straight.
 */
export function hubDistances(nodes: readonly Vec3[], links: Links, hub: number): Float64Array {
  const n = nodes.length;
  const others: number[][] = Array.from({ length: n }, () => []);
  for (const [a, b] of links) {
    others[a].push(b);
    others[b].push(a);
  }
  const wave = new Wave(n);
  const straight = nodes.map((node) => distance(node, nodes[hub]));
  const order = Array.from(nodes.keys()).sort((a, b) => straight[a] - straight[b] || a - b);
  // The hub is the first of these; whatever a wave has come to hangs together with one before it.
  for (const start of order) {
    if (wave.distances[start] !== Infinity) continue;
    wave.lower(start, straight[start], start);
    for (let i = wave.next(); i >= 0; i = wave.next())
      for (const k of others[i]) wave.lower(k, wave.distances[i] + distance(nodes[i], nodes[k]), start);
  }
  return wave.distances;
}
