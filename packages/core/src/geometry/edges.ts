import type { Mesh } from './mesh';
import { topologyInTime } from './topology';

/** Edges over welded places: pairs of place numbers, the smaller one first. */
export interface Edges {
  /** xyz triples, metres. */
  places: Float64Array;
  pairs: [number, number][];
}

/**
 * The edges at which a mesh turns by at least `angle` radians, and those with a face on one side only. Vertices in the
 * same place count as one; edges of faces without area are left out.
 */
export async function featureEdges(
  mesh: Mesh,
  angle: number,
  breathe: () => Promise<void> = () => Promise.resolve(),
): Promise<Edges> {
  const topology = await topologyInTime(mesh, breathe);
  const edges = await topology.findEdges(breathe);
  const { corners } = topology;
  const { first: vertices } = topology.weld;
  const places = new Float64Array(3 * vertices.length);
  // −0 is 0.
  for (let i = 0; i < vertices.length; i++)
    for (let c = 0; c < 3; c++) places[3 * i + c] = mesh.positions[3 * vertices[i] + c] + 0;
  await breathe();
  const { normals, flat } = normalsOf(places, corners);
  await breathe();
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
  await breathe();
  const limit = Math.cos(angle) + 1e-9;
  const pairs: [number, number][] = [];
  for (let e = 0; e < edges.count; e++) {
    if (e % CHUNK === 0) await breathe();
    if (count[e] === 0) continue;
    const f = 3 * first[2 * e];
    const g = 3 * first[2 * e + 1];
    const turns = normals[f] * normals[g] + normals[f + 1] * normals[g + 1] + normals[f + 2] * normals[g + 2] <= limit;
    if (count[e] !== 2 || turns) pairs.push([edges.ends[2 * e], edges.ends[2 * e + 1]]);
  }
  return { places, pairs };
}

/** So many edges between two breaths. */
const CHUNK = 1 << 15;

/** Unit normals of faces, and which of them have no area. */
function normalsOf(places: Float64Array, corners: Uint32Array): { normals: Float64Array; flat: Uint8Array } {
  const normals = new Float64Array(corners.length);
  const flat = new Uint8Array(corners.length / 3);
  for (let f = 0; f < flat.length; f++) {
    const a = 3 * corners[3 * f];
    const b = 3 * corners[3 * f + 1];
    const c = 3 * corners[3 * f + 2];
    const ux = places[b] - places[a];
    const uy = places[b + 1] - places[a + 1];
    const uz = places[b + 2] - places[a + 2];
    const vx = places[c] - places[a];
    const vy = places[c + 1] - places[a + 1];
    const vz = places[c + 2] - places[a + 2];
    const x = uy * vz - uz * vy;
    const y = uz * vx - ux * vz;
    const z = ux * vy - uy * vx;
    const size = Math.sqrt(x * x + y * y + z * z);
    if (size > 0) {
      normals[3 * f] = x / size;
      normals[3 * f + 1] = y / size;
      normals[3 * f + 2] = z / size;
    } else flat[f] = 1;
  }
  return { normals, flat };
}

/** Joins edges into runs that end where other than two edges meet; rings of edges become closed runs. */
export function chainEdges(pairs: readonly (readonly [number, number])[]): { points: number[]; closed: boolean }[] {
  const at = new Map<number, number[]>();
  for (let edge = 0; edge < pairs.length; edge++)
    for (const end of pairs[edge]) {
      const meeting = at.get(end);
      if (meeting) meeting.push(edge);
      else at.set(end, [edge]);
    }
  const used = new Uint8Array(pairs.length);
  const walk = (from: number, edge: number): { points: number[]; closed: boolean } => {
    const points = [from];
    for (let here = from, next: number | undefined = edge; next !== undefined;) {
      used[next] = 1;
      here = pairs[next][0] === here ? pairs[next][1] : pairs[next][0];
      if (here === from) return { points, closed: points.length > 2 };
      points.push(here);
      const meeting: number[] = at.get(here)!;
      next = meeting.length === 2 ? meeting.find((other) => !used[other]) : undefined;
    }
    return { points, closed: false };
  };
  const runs: { points: number[]; closed: boolean }[] = [];
  for (const [place, edges] of at) {
    if (edges.length !== 2) for (const edge of edges) if (!used[edge]) runs.push(walk(place, edge));
  }
  // What is left are rings without an end.
  pairs.forEach(([a], edge) => {
    if (!used[edge]) runs.push(walk(a, edge));
  });
  return runs;
}
