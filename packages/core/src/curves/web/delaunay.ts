import type { YieldNow } from '../../yieldNow';
import Delaunator from 'delaunator';
import { insphere, orient3d } from 'robust-predicates';
import { cross, distance, dot, perpendicular, sub, unit, type Vec3 } from '../../geometry/vec';

/** Points between two yields. */
const CHUNK = 64;
/** The corner at infinity: what lies beyond a face of the hull is a tetrahedron too, up to there. */
const FAR = -1;

/** Tetrahedra in flat arrays: four corners each, positively turned, and across from each corner the neighbour. */
class Tetrahedra {
  readonly corners: number[] = [];
  readonly across: number[] = [];
  readonly dead: boolean[] = [];
  /** Where the next point is looked for first. */
  last = 0;

  constructor(private readonly nodes: readonly Vec3[]) {}

  add(a: number, b: number, c: number, d: number): number {
    const made = this.dead.length;
    this.corners.push(a, b, c, d);
    this.across.push(-1, -1, -1, -1);
    this.dead.push(false);
    return made;
  }

  /** Positive where a point lies on the inner side of the face across from one corner; of a face at infinity 0. */
  side(tet: number, corner: number, point: Vec3): number {
    const own = [0, 1, 2, 3].map((k) => this.corners[4 * tet + k]);
    if (own.some((node, k) => k !== corner && node === FAR)) return 0;
    const at = own.map((node, k) => (k === corner ? point : this.nodes[node]));
    return orientation(at[0], at[1], at[2], at[3]);
  }

  /** Whether a point lies within the sphere round a tetrahedron; of one at infinity, beyond its face of the hull. */
  holds(tet: number, point: Vec3): boolean {
    const far = [0, 1, 2, 3].findIndex((k) => this.corners[4 * tet + k] === FAR);
    if (far < 0) {
      const [a, b, c, d] = [0, 1, 2, 3].map((k) => this.nodes[this.corners[4 * tet + k]]);
      return insphere(...a, ...b, ...c, ...d, ...point) < 0;
    }
    const beyond = this.side(tet, far, point);
    // In the plane of that face it counts where it lies in the circle round it, as for the tetrahedron inside.
    return beyond > 0 || (beyond === 0 && this.holds(this.across[4 * tet + far], point));
  }

  /** A tetrahedron whose sphere holds a point, by walking towards it from the last one; −1 for a point that is a corner already. */
  find(point: Vec3): number {
    let tet = this.last;
    // Every face crossed brings it nearer, in a Delaunay triangulation: it ends (Edelsbrunner 1990).
    for (;;) {
      const away = [0, 1, 2, 3].findIndex((k) => this.side(tet, k, point) < 0);
      const far = [0, 1, 2, 3].some((k) => this.corners[4 * tet + k] === FAR);
      if (away < 0 || far) break;
      tet = this.across[4 * tet + away];
    }
    return this.holds(tet, point) ? tet : -1;
  }
}

/** Positive where d lies on the side of a, b and c from which they go round to the left. */
const orientation = (a: Vec3, b: Vec3, c: Vec3, d: Vec3): number => orient3d(...a, ...b, ...c, ...d);

/**
 * Delaunay's tetrahedra of places in space: no sphere round one holds a place. Place by place, those whose sphere holds the
 * new one are taken out and what is left open is joined to it (Bowyer, Computing Dirichlet tessellations; Watson, Computing
 * the n-dimensional Delaunay tessellation, both The Computer Journal 24, 1981), by exact predicates (Shewchuk 1997).
 * @param nodes n different places
 * @returns four numbers of places each, none where all places lie in one plane
 */
export async function tetrahedraOf(nodes: readonly Vec3[], yieldNow: YieldNow): Promise<Uint32Array> {
  const first = spanning(nodes);
  if (first.length < 4) return new Uint32Array(0);
  const all = new Tetrahedra(nodes);
  begin(all, nodes, first);
  const rest = alongCurve(nodes).filter((node) => !first.includes(node));
  for (const [k, node] of rest.entries()) {
    if (k % CHUNK === CHUNK - 1) await yieldNow();
    insert(all, node, nodes[node]);
  }
  const found: number[] = [];
  for (let tet = 0; tet < all.dead.length; tet++) {
    const own = all.corners.slice(4 * tet, 4 * tet + 4);
    if (!all.dead[tet] && !own.includes(FAR)) found.push(...own);
  }
  return Uint32Array.from(found);
}

/** The first tetrahedron, and those beyond its faces. */
function begin(all: Tetrahedra, nodes: readonly Vec3[], [a, b, c, d]: number[]): void {
  if (orientation(nodes[a], nodes[b], nodes[c], nodes[d]) < 0) [a, b] = [b, a];
  const made = [all.add(a, b, c, d)];
  // The other way round with the corner at infinity in place of the one across.
  const inner = [a, b, c, d];
  for (let k = 0; k < 4; k++) {
    const own = inner.map((node, i) => (i === k ? FAR : node));
    const [p, q] = [0, 1, 2, 3].filter((i) => i !== k);
    [own[p], own[q]] = [own[q], own[p]];
    made.push(all.add(own[0], own[1], own[2], own[3]));
  }
  joinFaces(all, made);
}

/** Puts a place among the tetrahedra. */
function insert(all: Tetrahedra, node: number, point: Vec3): void {
  const start = all.find(point);
  if (start < 0) return;
  const { corners, across, dead } = all;
  const taken = [start];
  const seen = new Set(taken);
  const made: number[] = [];
  for (const tet of taken) {
    dead[tet] = true;
    for (let k = 0; k < 4; k++) {
      const next = across[4 * tet + k];
      if (seen.has(next)) continue;
      if (all.holds(next, point)) {
        seen.add(next);
        taken.push(next);
        continue;
      }
      const own = [0, 1, 2, 3].map((i) => (i === k ? node : corners[4 * tet + i]));
      const fresh = all.add(own[0], own[1], own[2], own[3]);
      across[4 * fresh + k] = next;
      for (let i = 0; i < 4; i++) if (across[4 * next + i] === tet) across[4 * next + i] = fresh;
      made.push(fresh);
    }
  }
  joinFaces(all, made);
  all.last = made.find((tet) => ![0, 1, 2, 3].some((k) => corners[4 * tet + k] === FAR)) ?? made[0];
}

/** Makes neighbours of tetrahedra that have a face in common, where they have none yet. */
function joinFaces({ corners, across }: Tetrahedra, made: readonly number[]): void {
  const open = new Map<string, number>();
  for (const tet of made)
    for (let k = 0; k < 4; k++) {
      if (across[4 * tet + k] >= 0) continue;
      const face = [0, 1, 2, 3]
        .filter((i) => i !== k)
        .map((i) => corners[4 * tet + i])
        .sort((x, y) => x - y)
        .join();
      const other = open.get(face);
      if (other === undefined) open.set(face, 4 * tet + k);
      else {
        across[4 * tet + k] = Math.floor(other / 4);
        across[other] = tet;
      }
    }
}

/** What counts as in one plane or line, of how far places are apart. */
const FLAT = 1e-6;

/** Up to four places that span as much as all do: each the furthest from what those before it span. */
function spanning(nodes: readonly Vec3[]): number[] {
  const found = [0];
  const furthest = (away: (node: Vec3) => number, least: number): boolean => {
    const all = nodes.map(away);
    const best = all.reduce((most, d, k) => (d > all[most] ? k : most), 0);
    if (!(all[best] > least)) return false;
    found.push(best);
    return true;
  };
  const a = nodes[0];
  if (!furthest((node) => distance(node, a), 0)) return found;
  const way = sub(nodes[found[1]], a);
  const extent = Math.hypot(...way);
  const across = (node: Vec3): Vec3 => cross(way, sub(node, a));
  if (!furthest((node) => Math.hypot(...across(node)) / extent, FLAT * extent)) return found;
  const normal = unit(across(nodes[found[2]]));
  furthest((node) => Math.abs(dot(normal, sub(node, a))), FLAT * extent);
  return found;
}

/** Numbers of places in an order in which neighbours come soon after each other: along Morton's curve. */
function alongCurve(nodes: readonly Vec3[]): number[] {
  const [low, high] = [
    [Infinity, Infinity, Infinity],
    [-Infinity, -Infinity, -Infinity],
  ];
  for (const node of nodes)
    for (let c = 0; c < 3; c++) {
      low[c] = Math.min(low[c], node[c]);
      high[c] = Math.max(high[c], node[c]);
    }
  const keys = nodes.map((node) => {
    let key = 0;
    const cell = node.map((x, c) => Math.min(1023, Math.floor((1024 * (x - low[c])) / (high[c] - low[c] || 1))));
    for (let bit = 9; bit >= 0; bit--) for (let c = 0; c < 3; c++) key = 2 * key + ((cell[c] >> bit) & 1);
    return key;
  });
  return [...nodes.keys()].sort((p, q) => keys[p] - keys[q]);
}

/**
 * Pairs of places that are neighbours by Delaunay: edges of the tetrahedra; of triangles where all lie in a plane; one after
 * the other where all lie in a line. Places that are the same follow each other.
 */
export async function delaunayPairs(nodes: readonly Vec3[], yieldNow: YieldNow): Promise<[number, number][]> {
  if (nodes.length === 0) return [];
  const firsts = new Map<string, number>();
  const pairs: [number, number][] = [];
  nodes.forEach((node, k) => {
    const twin = firsts.get(node.join());
    if (twin === undefined) firsts.set(node.join(), k);
    else pairs.push([twin, k]);
  });
  const own = [...firsts.values()];
  const places = own.map((k) => nodes[k]);
  const found = await pairsOfDifferent(places, yieldNow);
  for (const [a, b] of found) pairs.push([own[a], own[b]]);
  return pairs;
}

async function pairsOfDifferent(places: readonly Vec3[], yieldNow: YieldNow): Promise<[number, number][]> {
  const span = spanning(places);
  if (span.length < 2) return [];
  if (span.length === 2) {
    const way = sub(places[span[1]], places[0]);
    const order = [...places.keys()].sort((p, q) => dot(places[p], way) - dot(places[q], way));
    return order.slice(1).map((k, i) => [order[i], k]);
  }
  if (span.length === 3) {
    const [a, b, c] = span.map((k) => places[k]);
    const up = unit(cross(sub(b, a), sub(c, a)));
    const x = perpendicular(up);
    const y = cross(up, x);
    const { triangles } = Delaunator.from(places.map((p) => [dot(p, x), dot(p, y)]));
    return edges(triangles, 3);
  }
  const tetrahedra = await tetrahedraOf(places, yieldNow);
  await yieldNow();
  return edges(tetrahedra, 4);
}

/** All edges of triangles or tetrahedra, each as often as it has any. */
function edges(corners: ArrayLike<number>, each: 3 | 4): [number, number][] {
  const pairs: [number, number][] = [];
  for (let first = 0; first < corners.length; first += each)
    for (let p = 0; p < each; p++)
      for (let q = p + 1; q < each; q++) pairs.push([corners[first + p], corners[first + q]]);
  return pairs;
}
