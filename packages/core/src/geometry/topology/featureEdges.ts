import { faceNormal } from './faceNormal';
import { mapped } from '../filled';
import type { Mesh } from '../mesh';
import { topologyInTime } from './topology';

/** Edges over welded places. */
export interface Edges {
  /** xyz triples, metres. */
  places: Float64Array;
  /** Both places of each edge, the smaller number first. */
  ends: number[];
}

/**
 * The edges at which a mesh turns by at least `angle` radians, and those with a face on one side only. Vertices in the
 * same place count as one; edges of faces without area are left out.
 */
export async function featureEdges(
  mesh: Mesh,
  angle: number,
  yieldNow: () => Promise<void> = () => Promise.resolve(),
): Promise<Edges> {
  const topology = await topologyInTime(mesh, yieldNow);
  const edges = await topology.findEdges(yieldNow);
  const { corners } = topology;
  const { first: vertices } = topology.weld;
  const places = new Float64Array(3 * vertices.length);
  // −0 is 0.
  for (let i = 0; i < vertices.length; i++)
    for (let c = 0; c < 3; c++) places[3 * i + c] = mesh.positions[3 * vertices[i] + c] + 0;
  await yieldNow();
  const own = mapped(Uint32Array, corners, (place) => vertices[place]);
  const normals = new Float64Array(corners.length);
  const flat = new Uint8Array(corners.length / 3);
  for (let f = 0; f < flat.length; f++) if (faceNormal(mesh.positions, own, f, normals, 3 * f) === 0) flat[f] = 1;
  await yieldNow();
  // How many faces with an area lie at each edge, and the first two of them.
  const count = new Uint32Array(edges.count);
  const first = new Uint32Array(2 * edges.count);
  for (let c = 0; c < corners.length; c++) {
    const e = edges.of[c];
    const f = (c / 3) | 0;
    if (flat[f]) continue;
    if (count[e] < 2) first[2 * e + count[e]] = f;
    count[e]++;
  }
  await yieldNow();
  const limit = Math.cos(angle) + 1e-9;
  const ends: number[] = [];
  for (let e = 0; e < edges.count; e++) {
    if (e % CHUNK === 0) await yieldNow();
    if (count[e] === 0) continue;
    const f = 3 * first[2 * e];
    const g = 3 * first[2 * e + 1];
    const turns = normals[f] * normals[g] + normals[f + 1] * normals[g + 1] + normals[f + 2] * normals[g + 2] <= limit;
    if (count[e] !== 2 || turns) ends.push(edges.ends[2 * e], edges.ends[2 * e + 1]);
  }
  return { places, ends };
}

/** So many edges between two yields. */
const CHUNK = 1 << 15;

/** A run of edges: the places that it goes through. */
export interface EdgeRun {
  points: number[];
  closed: boolean;
}

/**
 * Joins edges into runs that end where other than two edges meet; rings of edges become closed runs.
 * @param ends both places of each edge, by numbers of any kind
 */
export function chainEdges(ends: ArrayLike<number>): EdgeRun[] {
  const { places, of, starts, edges } = meetingAt(ends);
  const used = new Uint8Array(ends.length / 2);
  const walk = (from: number, edge: number): EdgeRun => {
    const points = [places[from]];
    for (let here = from, next = edge; next >= 0;) {
      used[next] = 1;
      here = of[2 * next] === here ? of[2 * next + 1] : of[2 * next];
      if (here === from) return { points, closed: points.length > 2 };
      points.push(places[here]);
      const at = starts[here];
      next = -1;
      if (starts[here + 1] - at !== 2) continue;
      if (!used[edges[at]]) next = edges[at];
      else if (!used[edges[at + 1]]) next = edges[at + 1];
    }
    return { points, closed: false };
  };
  const runs: EdgeRun[] = [];
  for (let place = 0; place < places.length; place++) {
    if (starts[place + 1] - starts[place] === 2) continue;
    for (let at = starts[place]; at < starts[place + 1]; at++) if (!used[edges[at]]) runs.push(walk(place, edges[at]));
  }
  // What is left are rings without an end.
  for (let edge = 0; edge < used.length; edge++) if (!used[edge]) runs.push(walk(of[2 * edge], edge));
  return runs;
}

/** The edges that meet at each place, places numbered as they are met: those of place i are `edges[starts[i]]` and on. */
function meetingAt(ends: ArrayLike<number>): {
  places: number[];
  of: Uint32Array;
  starts: Uint32Array;
  edges: Uint32Array;
} {
  let most = -1;
  for (let i = 0; i < ends.length; i++) if (ends[i] > most) most = ends[i];
  const numbers = new Int32Array(most + 1).fill(-1);
  const places: number[] = [];
  const of = new Uint32Array(ends.length);
  for (let i = 0; i < ends.length; i++) {
    const place = ends[i];
    if (numbers[place] < 0) {
      numbers[place] = places.length;
      places.push(place);
    }
    of[i] = numbers[place];
  }
  const starts = new Uint32Array(places.length + 1);
  for (let i = 0; i < of.length; i++) starts[of[i] + 1]++;
  for (let i = 0; i < places.length; i++) starts[i + 1] += starts[i];
  const next = starts.slice();
  const edges = new Uint32Array(of.length);
  for (let i = 0; i < of.length; i++) edges[next[of[i]]++] = i >> 1;
  return { places, of, starts, edges };
}
