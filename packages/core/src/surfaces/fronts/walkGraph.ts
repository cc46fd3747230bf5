import type { Mesh } from '../../geometry/mesh';
import { type Topology, topologyInTime } from '../../geometry/topology/topology';

/** A mesh as ways go over it. */
export interface Ground {
  topology: Topology;
  /** 3 each welded place. */
  places: Float64Array;
  /** The face by the topology's numbers that a face of the mesh is; −1 for those without area. */
  faceOf: Int32Array;
  /** The face across the edge that begins at each corner; −1 where there is none. */
  across: Int32Array;
  /** Angles of the faces about each place, radians. */
  around: Float64Array;
}

/** By places: meshes of one topology may lie elsewhere. */
const grounds = new WeakMap<Mesh['positions'], Ground>();

export async function groundOf(mesh: Mesh, yieldNow: () => Promise<void>): Promise<Ground> {
  const topology = await topologyInTime(mesh, yieldNow);
  const known = grounds.get(mesh.positions);
  if (known?.topology === topology) return known;
  const edges = await topology.findEdges(yieldNow);
  const { weld, corners } = topology;
  const { of, first } = weld;
  const { positions, indices } = mesh;
  const places = new Float64Array(3 * first.length);
  for (let i = 0; i < first.length; i++) for (let c = 0; c < 3; c++) places[3 * i + c] = positions[3 * first[i] + c];
  await yieldNow();
  const faceOf = new Int32Array(indices.length / 3).fill(-1);
  let next = 0;
  for (let f = 0; f < faceOf.length; f++) {
    const a = of[indices[3 * f]];
    const b = of[indices[3 * f + 1]];
    const c = of[indices[3 * f + 2]];
    if (a !== b && b !== c && c !== a) faceOf[f] = next++;
  }
  await yieldNow();
  const across = new Int32Array(corners.length);
  for (let c = 0; c < corners.length; c++) {
    const e = edges.of[c];
    // One face each way: where more meet, or one is inside out, no way leads over.
    if (edges.there[e] !== 1 || edges.back[e] !== 1) across[c] = -1;
    else across[c] = edges.left[e] === ((c / 3) | 0) ? edges.right[e] : edges.left[e];
  }
  const ground = { topology, places, faceOf, across, around: await anglesAround(corners, places, yieldNow) };
  grounds.set(mesh.positions, ground);
  return ground;
}

/** Angles of the faces about each place, radians. */
async function anglesAround(
  corners: Uint32Array,
  places: Float64Array,
  yieldNow: () => Promise<void>,
): Promise<Float64Array> {
  const around = new Float64Array(places.length / 3);
  for (let c = 0; c < corners.length; c++) {
    if (c % CHUNK === 0) await yieldNow();
    const p = 3 * corners[c];
    const q = 3 * corners[c % 3 === 2 ? c - 2 : c + 1];
    const r = 3 * corners[c % 3 === 0 ? c + 2 : c - 1];
    const a = between(places, p, q);
    const b = between(places, p, r);
    const o = between(places, q, r);
    if (a > 0 && b > 0)
      around[corners[c]] += Math.acos(Math.min(1, Math.max(-1, (a * a + b * b - o * o) / (2 * a * b))));
  }
  return around;
}

/** So many corners or faces between two yields. */
export const CHUNK = 1 << 15;

/** Distance of two places, which begin at these numbers. */
export function between(places: Float64Array, p: number, q: number): number {
  const x = places[p] - places[q];
  const y = places[p + 1] - places[q + 1];
  const z = places[p + 2] - places[q + 2];
  return Math.sqrt(x * x + y * y + z * z);
}
