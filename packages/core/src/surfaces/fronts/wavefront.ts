import type { YieldNow } from '../../yieldNow';
import type { Mesh } from '../../geometry/mesh';
import type { SurfacePlaces } from '../../geometry/topology/surfacePlaces';
import { type Topology, topologyInTime } from '../../geometry/topology/topology';
import { type Bridges, bridgesOf } from './bridges';
import { Wave } from '../../geometry/search/dijkstra';

/** Work between two yields: a few milliseconds. */
const CHUNK = 8192;
/** What is nearer by less than this share is not looked at again. */
const HAIR = 1e-9;
/** Origin of the wave that goes on from what had been reached before; those of points have their numbers. */
const REACHED = -1;

/** Where a front sets out. */
export interface Origins {
  /** Places on the surface. */
  places: SurfacePlaces;
  /** Welded places that a front has already come to, with their distances, metres. */
  reached?: readonly (readonly [place: number, distance: number])[];
}

export interface Spreading {
  /** How slow the front is at each welded place: 1 as ever, 2 at half its pace, Infinity where it cannot go. */
  slowness?: ArrayLike<number> | null;
  /** Crosses to other parts of the mesh, and over holes, where they are no further apart than this, metres. */
  gap?: number;
}

/**
 * Distances along a surface from where a front sets out, at each welded place of the mesh (`topologyOf(mesh).weld`). A wave
 * runs over the triangles; within each it is that of a point, unfolded into the triangle's plane from the distances at two
 * of its corners (Novotni and Klein, Computing geodesic distances on triangular meshes, WSCG 2002), which is exact on what
 * unrolls into a plane; from what had been reached before it goes on as a straight wave (Kimmel and Sethian, Computing
 * geodesic paths on manifolds, PNAS 95, 1998). Waves of different origins are kept apart. Places are visited in the order of their distances (Dijkstra) and again when a shorter way is found,
 * so that obtuse triangles need no unfolding of their own.
 * @returns metres; Infinity where the front never comes
 */
export async function distancesAlong(
  mesh: Mesh,
  origins: Origins,
  { slowness = null, gap = 0 }: Spreading = {},
  yieldNow: YieldNow = () => Promise.resolve(),
): Promise<Float64Array> {
  const topology = await topologyInTime(mesh, yieldNow);
  const { weld, corners } = topology;
  const count = weld.first.length;
  const wave = new Wave(count);
  const { distances: d, origins: from } = wave;
  const p = placesOf(mesh, weld.first);
  const slow = (place: number): number => (slowness ? slowness[place] : 1);

  const { faces, weights } = origins.places;
  for (let k = 0; k < faces.length; k++) {
    const own = [0, 1, 2].map((c) => weld.of[mesh.indices[3 * faces[k] + c]]);
    const at = [0, 1, 2].map((c) => own.reduce((sum, i, n) => sum + weights[3 * k + n] * p[3 * i + c], 0));
    for (const i of own) {
      const away = Math.hypot(p[3 * i] - at[0], p[3 * i + 1] - at[1], p[3 * i + 2] - at[2]);
      wave.lower(i, away * mean(own.map(slow)), k);
    }
  }
  for (const [place, distance] of origins.reached ?? []) wave.lower(place, distance, REACHED);

  await yieldNow();
  const around = await cornersAround(topology, yieldNow);
  await yieldNow();
  const opposite = oppositeLengths(corners, p);
  await yieldNow();
  if (gap > 0) await topology.findEdges(yieldNow);
  const bridges = gap > 0 ? await bridgesOf(mesh, topology, p, gap, yieldNow) : null;
  let visited = 0;
  for (let i = wave.next(); i >= 0; i = wave.next()) {
    if (++visited % CHUNK === 0) await yieldNow();
    const own = d[i];
    const origin = from[i];
    const end = around.starts[i + 1];
    for (let at = around.starts[i]; at < end; at++) {
      const corner = around.corners[at];
      const place = corner % 3;
      const second = place === 2 ? corner - 2 : corner + 1;
      const third = place === 0 ? corner + 2 : corner - 1;
      const j = corners[second];
      const k = corners[third];
      const pace = slowness ? (slow(i) + slow(j) + slow(k)) / 3 : 1;
      if (pace === Infinity) continue;
      const ij = pace * opposite[third];
      const ik = pace * opposite[second];
      const jk = pace * opposite[corner];
      if (own + ij < d[j] * (1 - HAIR)) wave.lower(j, own + ij, origin);
      if (own + ik < d[k] * (1 - HAIR)) wave.lower(k, own + ik, origin);
      if (from[j] === origin) {
        const via = through(own, d[j], ij, ik, jk, origin);
        if (via < d[k] * (1 - HAIR)) wave.lower(k, via, origin);
      }
      if (from[k] === origin) {
        const via = through(own, d[k], ik, ij, jk, origin);
        if (via < d[j] * (1 - HAIR)) wave.lower(j, via, origin);
      }
    }
    if (!bridges) continue;
    for (let at = bridges.starts[i]; at < bridges.starts[i + 1]; at++) cross(bridges, bridges.ways[at], i, wave, slow);
  }
  return d;
}

/** Takes the front over a way that leads from or to a place which it has just come to. */
function cross(
  { places, corners, spokes, sides, lengths }: Bridges,
  way: number,
  i: number,
  wave: Wave,
  slow: (place: number) => number,
): void {
  const { distances: d, origins } = wave;
  const place = places[way];
  const ends = [corners[3 * way], corners[3 * way + 1], corners[3 * way + 2]];
  const pace = (slow(place) + mean(ends.map(slow))) / 2;
  if (pace === Infinity) return;
  if (place === i)
    ends.forEach((end, c) => {
      const reached = d[i] + pace * (lengths[way] + spokes[3 * way + c]);
      if (reached < d[end] * (1 - HAIR)) wave.lower(end, reached, origins[i]);
    });
  if (!ends.includes(i)) return;
  // The distance of the point within the face, by the same rule as that of a third corner.
  let [best, origin] = [Infinity, 0];
  const consider = (distance: number, of: number): void => {
    if (distance < best) [best, origin] = [distance, of];
  };
  ends.forEach((end, c) => consider(d[end] + pace * spokes[3 * way + c], origins[end]));
  for (let c = 0; c < 3; c++) {
    const [a, b] = [ends[c], ends[(c + 1) % 3]];
    if (a === b || origins[a] !== origins[b] || d[a] === Infinity || d[b] === Infinity) continue;
    const [e, f] = [spokes[3 * way + c], spokes[3 * way + ((c + 1) % 3)]];
    consider(through(d[a], d[b], pace * sides[3 * way + c], pace * e, pace * f, origins[a]), origins[a]);
  }
  const reached = best + pace * lengths[way];
  if (reached < d[place] * (1 - HAIR)) wave.lower(place, reached, origin);
}

/** Positions of the welded places of a mesh. */
function placesOf(mesh: Mesh, first: Uint32Array): Float64Array<ArrayBuffer> {
  const { positions } = mesh;
  const p = new Float64Array(3 * first.length);
  for (let i = 0; i < first.length; i++) {
    p[3 * i] = positions[3 * first[i]];
    p[3 * i + 1] = positions[3 * first[i] + 1];
    p[3 * i + 2] = positions[3 * first[i] + 2];
  }
  return p;
}

/** Length of the edge opposite each corner of faces, whose places are given. */
function oppositeLengths(corners: Uint32Array, p: Float64Array): Float64Array {
  const lengths = new Float64Array(corners.length);
  for (let corner = 0; corner < corners.length; corner++) {
    const place = corner % 3;
    const j = 3 * corners[place === 2 ? corner - 2 : corner + 1];
    const k = 3 * corners[place === 0 ? corner + 2 : corner - 1];
    lengths[corner] = Math.sqrt((p[j] - p[k]) ** 2 + (p[j + 1] - p[k + 1]) ** 2 + (p[j + 2] - p[k + 2]) ** 2);
  }
  return lengths;
}

const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;

/**
 * Distance of a triangle's third corner by those of two others, with the front seen from there through the edge between
 * them. Infinity where it is not seen through it.
 * @param a,b distances of the first two corners
 * @param c length between them; e, f lengths from the first and the second to the third
 */
function through(a: number, b: number, c: number, e: number, f: number, origin: number): number {
  if (!(c > 0)) return Infinity;
  const x = (e * e - f * f + c * c) / (2 * c);
  const y = Math.sqrt(Math.max(0, e * e - x * x));
  return origin === REACHED ? straightOn(a, b, c, x, y) : unfolded(a, b, c, x, y);
}

/** The same of a point, unfolded into the triangle's plane: it lies below the edge, the corner at x, y above it. */
function unfolded(a: number, b: number, c: number, x: number, y: number): number {
  const sx = (a * a - b * b + c * c) / (2 * c);
  const depth = a * a - sx * sx;
  // A source on the edge itself has no depth.
  if (depth < -HAIR * c * c) return Infinity;
  const sy = Math.sqrt(Math.max(0, depth));
  // Where the line from the source to the corner goes through the edge.
  const at = sy + y > 0 ? sx + ((x - sx) * sy) / (sy + y) : sx;
  if (at < 0 || at > c) return Infinity;
  return Math.sqrt((x - sx) ** 2 + (y + sy) ** 2);
}

/** The same of a straight front. */
function straightOn(a: number, b: number, c: number, x: number, y: number): number {
  const slope = (b - a) / c;
  const across = 1 - slope * slope;
  if (!(across > 0)) return Infinity;
  const at = x - (y * slope) / Math.sqrt(across);
  if (at < 0 || at > c) return Infinity;
  return a + x * slope + y * Math.sqrt(across);
}

/** Which corners of faces lie at each place. */
async function cornersAround(
  { corners, weld }: Topology,
  yieldNow: YieldNow,
): Promise<{ starts: Uint32Array; corners: Uint32Array }> {
  const starts = new Uint32Array(weld.first.length + 1);
  for (let c = 0; c < corners.length; c++) starts[corners[c] + 1]++;
  for (let i = 1; i < starts.length; i++) starts[i] += starts[i - 1];
  const filled = starts.slice();
  const found = new Uint32Array(corners.length);
  for (let c = 0; c < corners.length; c++) {
    if (c % (12 * CHUNK) === 0) await yieldNow();
    found[filled[corners[c]]++] = c;
  }
  return { starts, corners: found };
}
