import type { Mesh } from './mesh';
import { topologyOf } from './topology';
import { at, cross, dot, scale, sub } from './vec';

/** Edges over welded places: pairs of place numbers, the smaller one first. */
export interface Edges {
  /** xyz triples, metres. */
  places: number[];
  pairs: [number, number][];
}

/**
 * The edges at which a mesh turns by at least `angle` radians, and those with a face on one side only. Vertices in the
 * same place count as one; edges of faces without area are left out.
 */
export function featureEdges(mesh: Mesh, angle: number): Edges {
  const { positions } = mesh;
  const { weld, corners, edges } = topologyOf(mesh);
  const places = Array.from(weld.first).flatMap((i) => [
    positions[3 * i] + 0,
    positions[3 * i + 1] + 0,
    positions[3 * i + 2] + 0,
  ]);
  const normals = new Float64Array(corners.length);
  const flat = new Uint8Array(corners.length / 3);
  for (let f = 0; f < flat.length; f++) {
    const [p, q, r] = [0, 1, 2].map((k) => at(places, corners[3 * f + k]));
    const normal = cross(sub(q, p), sub(r, p));
    const size = Math.hypot(...normal);
    if (size > 0) normals.set(scale(normal, 1 / size), 3 * f);
    else flat[f] = 1;
  }
  // How many faces with an area lie at each edge, and the first two of them.
  const count = new Uint32Array(edges.count);
  const first = new Uint32Array(2 * edges.count);
  for (let c = 0; c < corners.length; c++) {
    const [e, f] = [edges.of[c], (c / 3) | 0];
    if (flat[f]) continue;
    if (count[e] < 2) first[2 * e + count[e]] = f;
    count[e]++;
  }
  const limit = Math.cos(angle) + 1e-9;
  const pairs: [number, number][] = [];
  for (let e = 0; e < edges.count; e++)
    if (count[e] > 0 && (count[e] !== 2 || dot(at(normals, first[2 * e]), at(normals, first[2 * e + 1])) <= limit))
      pairs.push([edges.ends[2 * e], edges.ends[2 * e + 1]]);
  return { places, pairs };
}

/** Joins edges into runs that end where other than two edges meet; rings of edges become closed runs. */
export function chainEdges(pairs: readonly (readonly [number, number])[]): { points: number[]; closed: boolean }[] {
  const at = new Map<number, number[]>();
  pairs.forEach((pair, edge) => {
    for (const end of pair) at.set(end, [...(at.get(end) ?? []), edge]);
  });
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
