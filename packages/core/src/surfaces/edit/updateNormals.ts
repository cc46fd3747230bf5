import type { YieldNow } from '../../yieldNow';
import { faceCorners } from '../../geometry/topology/faceNormal';
import { mapped } from '../../geometry/filled';
import type { Mesh } from '../../geometry/mesh';
import { topologyInTime } from '../../geometry/topology/topology';
import { CHUNK } from './smoothNormals';

const { sqrt } = Math;

/** Vertices at one place whose normals were no further apart than this are one on a soft surface. */
const SAME = Math.cos((1 * Math.PI) / 180);

/**
 * The normals of a mesh whose vertices have been moved, vertex by vertex: soft where it was soft, hard where it was hard.
 * Faces weigh by their angle at the vertex (Thürmer and Wüthrich, Journal of Graphics Tools 3, 1998).
 * @param before the mesh with its normals, unmoved
 * @param positions 3n, where its vertices are now
 * @returns 3n unit vectors
 */
export async function followedNormals(
  before: Mesh,
  positions: Float32Array,
  yieldNow: YieldNow = () => Promise.resolve(),
): Promise<Float32Array> {
  return normalsOfGroups(before, positions, await softGroups(before, yieldNow), yieldNow);
}

/**
 * The same for vertices whose groups are known.
 * @param together n, which vertices are one on a soft surface (`softGroups`)
 */
export async function normalsOfGroups(
  { indices, normals: old }: Pick<Mesh, 'indices' | 'normals'>,
  positions: Float32Array,
  together: Uint32Array,
  yieldNow: YieldNow,
): Promise<Float32Array> {
  const n = positions.length / 3;
  const own = new Float64Array(3 * n);
  const normal = new Float64Array(3);
  const angles = new Float64Array(3);
  for (let i = 0; i < indices.length; i += 3) {
    if (i % (3 * CHUNK) === 0) await yieldNow();
    const a = 3 * indices[i];
    const b = 3 * indices[i + 1];
    const c = 3 * indices[i + 2];
    if (faceCorners(positions, a, b, c, normal, 0, angles, 0) === 0) continue;
    addTo(own, a, angles[0], normal[0], normal[1], normal[2]);
    addTo(own, b, angles[1], normal[0], normal[1], normal[2]);
    addTo(own, c, angles[2], normal[0], normal[1], normal[2]);
  }
  const sums = new Float64Array(3 * n);
  for (let i = 0; i < n; i++) addTo(sums, 3 * together[i], 1, own[3 * i], own[3 * i + 1], own[3 * i + 2]);
  await yieldNow();
  return directed(sums, together, old, 1e-20, yieldNow);
}

function addTo(sums: Float64Array, at: number, weight: number, x: number, y: number, z: number): void {
  sums[at] += weight * x;
  sums[at + 1] += weight * y;
  sums[at + 2] += weight * z;
}

/**
 * The direction of each vertex's sum.
 * @param groups n, which sum is that of each vertex
 * @param old 3n, directions for where a sum comes to less than `least`
 */
async function directed(
  sums: Float64Array,
  groups: Uint32Array,
  old: Float32Array,
  least: number,
  yieldNow: YieldNow,
): Promise<Float32Array> {
  const out = new Float32Array(old);
  for (let i = 0; i < groups.length; i++) {
    if (i % CHUNK === 0) await yieldNow();
    const at = 3 * groups[i];
    const x = sums[at];
    const y = sums[at + 1];
    const z = sums[at + 2];
    const length = sqrt(x * x + y * y + z * z);
    if (!(length > least)) continue;
    out[3 * i] = x / length;
    out[3 * i + 1] = y / length;
    out[3 * i + 2] = z / length;
  }
  return out;
}

/** Which vertices are one on a soft surface: each by the number of the first of them. */
export async function softGroups(mesh: Mesh, yieldNow: YieldNow): Promise<Uint32Array> {
  const { of, first } = (await topologyInTime(mesh, yieldNow)).weld;
  const { normals } = mesh;
  const groups = mapped(Uint32Array, of, (_, i) => i);
  const next = new Int32Array(of.length).fill(-1);
  // The vertices at each place, those last that came last.
  const last = Int32Array.from(first);
  for (let i = 0; i < of.length; i++) {
    if (i % CHUNK === 0) await yieldNow();
    const place = of[i];
    if (first[place] === i) continue;
    for (let other: number = first[place]; other >= 0; other = next[other]) {
      if (groups[other] !== other) continue;
      const along =
        normals[3 * i] * normals[3 * other] +
        normals[3 * i + 1] * normals[3 * other + 1] +
        normals[3 * i + 2] * normals[3 * other + 2];
      if (along < SAME) continue;
      groups[i] = other;
      break;
    }
    next[last[place]] = i;
    last[place] = i;
  }
  return groups;
}

/**
 * One direction for all vertices at a place, the mean of their normals there: what is moved along it does not tear at hard edges
 * and texture seams.
 * @returns 3n unit vectors
 */
export async function weldedNormals(mesh: Mesh, yieldNow: YieldNow = () => Promise.resolve()): Promise<Float32Array> {
  const { of, first } = (await topologyInTime(mesh, yieldNow)).weld;
  const { normals } = mesh;
  const sums = new Float64Array(3 * first.length);
  for (let i = 0; i < of.length; i++) addTo(sums, 3 * of[i], 1, normals[3 * i], normals[3 * i + 1], normals[3 * i + 2]);
  await yieldNow();
  return directed(sums, of, normals, 1e-9, yieldNow);
}
