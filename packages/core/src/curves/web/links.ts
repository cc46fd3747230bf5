import { distance, type Vec3 } from '../../geometry/vec';
import { delaunayPairs } from './delaunay';

/** Links between nodes, in pairs of their numbers, the smaller first. */
export type Links = readonly (readonly [number, number])[];

type Breathe = () => Promise<void>;

/** Nodes between two breaths. */
const CHUNK = 64;

/** The nodes about each, the nearest first, no further than a length. */
async function near(nodes: readonly Vec3[], longest: number, breathe: Breathe): Promise<number[][]> {
  const found: number[][] = [];
  for (let i = 0; i < nodes.length; i++) {
    if (i % CHUNK === 0) await breathe();
    const away = nodes.map((node) => distance(node, nodes[i]));
    found.push(
      Array.from(nodes.keys())
        .filter((k) => k !== i && away[k] <= longest)
        .sort((a, b) => away[a] - away[b] || a - b),
    );
  }
  return found;
}

/** Each pair once, the smaller number first, in order. */
export const uniqueLinks = (pairs: Iterable<readonly [number, number]>): Links => {
  const found = new Map<string, readonly [number, number]>();
  for (const [a, b] of pairs) found.set(a < b ? `${a} ${b}` : `${b} ${a}`, a < b ? [a, b] : [b, a]);
  return [...found.values()].sort((p, q) => p[0] - q[0] || p[1] - q[1]);
};

/** Links from each node to so many that are nearest to it. */
export async function nearestLinks(
  nodes: readonly Vec3[],
  count: number,
  longest: number,
  breathe: Breathe,
): Promise<Links> {
  const about = await near(nodes, longest, breathe);
  return uniqueLinks(about.flatMap((others, i) => others.slice(0, count).map((k) => [i, k] as const)));
}

/** Links between all that are no further apart than a length. */
export async function linksWithin(nodes: readonly Vec3[], longest: number, breathe: Breathe): Promise<Links> {
  const about = await near(nodes, longest, breathe);
  return uniqueLinks(about.flatMap((others, i) => others.map((k) => [i, k] as const)));
}

/**
 * The links that join all nodes with the least length: from one node on, always the nearest that is not joined yet (Prim, Shortest
 * connection networks and some generalizations, 1957; in time of the square of nodes).
 * @param from the node that it is gone on from
 */
export async function shortestTree(nodes: readonly Vec3[], from: number, breathe: Breathe): Promise<Links> {
  const n = nodes.length;
  const away = new Float64Array(n).fill(Infinity);
  const by = new Int32Array(n).fill(-1);
  const joined = new Uint8Array(n);
  const links: [number, number][] = [];
  let next = from;
  for (let step = 0; step < n; step++) {
    if (step % CHUNK === 0) await breathe();
    joined[next] = 1;
    if (by[next] >= 0) links.push([by[next], next]);
    let best = -1;
    for (let k = 0; k < n; k++) {
      if (joined[k]) continue;
      const d = distance(nodes[next], nodes[k]);
      if (d < away[k]) [away[k], by[k]] = [d, next];
      if (best < 0 || away[k] < away[best]) best = k;
    }
    next = best;
  }
  return uniqueLinks(links);
}

/**
 * Links between nodes with no other in the ball that has them at opposite ends (Gabriel and Sokal, A new statistical approach to
 * geographic variation analysis, 1969): a net without crossings in the plane, and without long ways through others in space.
 */
export async function gabrielLinks(nodes: readonly Vec3[], longest: number, breathe: Breathe): Promise<Links> {
  const about = await near(nodes, longest, breathe);
  const pairs: [number, number][] = [];
  for (let a = 0; a < nodes.length; a++) {
    if (a % CHUNK === 0) await breathe();
    for (const b of about[a]) {
      if (b < a) continue;
      const middle = nodes[a].map((x, c) => (x + nodes[b][c]) / 2) as unknown as Vec3;
      const radius = distance(nodes[a], nodes[b]) / 2;
      // Whatever lies in the ball is nearer to one end than the other end is: those about a, up to b, are all that can.
      const blocked = about[a].some((k) => k !== b && distance(nodes[k], middle) < radius * (1 - 1e-9));
      if (!blocked) pairs.push([a, b]);
    }
  }
  return uniqueLinks(pairs);
}

/** Links between all that are neighbours by Delaunay, no longer than a length (see `delaunayPairs`). */
export async function neighbourLinks(nodes: readonly Vec3[], longest: number, breathe: Breathe): Promise<Links> {
  const pairs = await delaunayPairs(nodes, breathe);
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
  const away = new Float64Array(n).fill(Infinity);
  const done = new Uint8Array(n);
  away[hub] = 0;
  for (let step = 0; step < n; step++) {
    let next = -1;
    for (let k = 0; k < n; k++) if (!done[k] && (next < 0 || away[k] < away[next])) next = k;
    if (away[next] === Infinity) {
      for (let k = 0; k < n; k++)
        if (!done[k] && distance(nodes[k], nodes[hub]) < distance(nodes[next], nodes[hub])) next = k;
      away[next] = distance(nodes[next], nodes[hub]);
    }
    done[next] = 1;
    for (const k of others[next]) away[k] = Math.min(away[k], away[next] + distance(nodes[next], nodes[k]));
  }
  return away;
}
