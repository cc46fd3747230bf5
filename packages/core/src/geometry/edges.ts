import { type Mesh } from './mesh';
import { cross, dot, type Vec3 } from './vec';
import { weld } from './weld';

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
export function featureEdges({ positions, indices }: Mesh, angle: number): Edges {
  const { of, first } = weld({ positions });
  const places = Array.from(first).flatMap((i) => [
    positions[3 * i] + 0,
    positions[3 * i + 1] + 0,
    positions[3 * i + 2] + 0,
  ]);
  const count = first.length;
  const place = (i: number): Vec3 => [places[3 * i], places[3 * i + 1], places[3 * i + 2]];
  /** Normals of the faces at each edge, by a number made of both ends. */
  const faces = new Map<number, Vec3[]>();
  for (let f = 0; f < indices.length; f += 3) {
    const [a, b, c] = [of[indices[f]], of[indices[f + 1]], of[indices[f + 2]]];
    const [p, q, r] = [place(a), place(b), place(c)];
    const normal = cross([q[0] - p[0], q[1] - p[1], q[2] - p[2]], [r[0] - p[0], r[1] - p[1], r[2] - p[2]]);
    const size = Math.hypot(...normal);
    if (!(size > 0)) continue;
    const facing: Vec3 = [normal[0] / size, normal[1] / size, normal[2] / size];
    for (const [i, j] of [
      [a, b],
      [b, c],
      [c, a],
    ]) {
      const key = Math.min(i, j) * count + Math.max(i, j);
      const known = faces.get(key);
      if (known) known.push(facing);
      else faces.set(key, [facing]);
    }
  }
  const limit = Math.cos(angle) + 1e-9;
  const pairs: [number, number][] = [];
  for (const [key, normals] of faces) {
    if (normals.length !== 2 || dot(normals[0], normals[1]) <= limit)
      pairs.push([Math.floor(key / count), key % count]);
  }
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
