import { mapped } from '../geometry/filled';
import { type Mesh } from '../geometry/mesh';
import { topologyOf } from '../geometry/topology';
import { angleBetween, type Breathe, CHUNK } from './softNormals';

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
  breathe: Breathe = () => Promise.resolve(),
): Promise<Float32Array> {
  const { indices, normals: old } = before;
  const n = positions.length / 3;
  const own = new Float64Array(3 * n);
  for (let i = 0; i < indices.length; i += 3) {
    if (i % (3 * CHUNK) === 0) await breathe();
    const [a, b, c] = [3 * indices[i], 3 * indices[i + 1], 3 * indices[i + 2]];
    const [ux, uy, uz] = [0, 1, 2].map((k) => positions[b + k] - positions[a + k]);
    const [vx, vy, vz] = [0, 1, 2].map((k) => positions[c + k] - positions[a + k]);
    const [x, y, z] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
    const length = Math.hypot(x, y, z);
    if (length <= 1e-20) continue;
    const atA = angleBetween([ux, uy, uz], [vx, vy, vz]);
    const atB = angleBetween([-ux, -uy, -uz], [vx - ux, vy - uy, vz - uz]);
    const weights = [atA, atB, Math.PI - atA - atB];
    [a, b, c].forEach((at, k) => {
      const weight = weights[k] / length;
      own[at] += weight * x;
      own[at + 1] += weight * y;
      own[at + 2] += weight * z;
    });
  }
  const together = groupsOf(before);
  const sums = new Float64Array(3 * n);
  for (let i = 0; i < n; i++) for (let k = 0; k < 3; k++) sums[3 * together[i] + k] += own[3 * i + k];
  const normals = new Float32Array(3 * n);
  for (let i = 0; i < n; i++) {
    const at = 3 * together[i];
    const length = Math.hypot(sums[at], sums[at + 1], sums[at + 2]);
    for (let k = 0; k < 3; k++) normals[3 * i + k] = length > 1e-20 ? sums[at + k] / length : old[3 * i + k];
  }
  return normals;
}

/** Which vertices are one on a soft surface: each by the number of the first of them. */
function groupsOf(mesh: Mesh): Uint32Array {
  const { of, first } = topologyOf(mesh).weld;
  const { normals } = mesh;
  const groups = mapped(Uint32Array, of, (_, i) => i);
  const next = new Int32Array(of.length).fill(-1);
  // The vertices at each place, those last that came last.
  const last = Int32Array.from(first);
  for (let i = 0; i < of.length; i++) {
    const place = of[i];
    if (first[place] === i) continue;
    for (let other: number = first[place]; other >= 0; other = next[other]) {
      if (groups[other] !== other) continue;
      let along = 0;
      for (let k = 0; k < 3; k++) along += normals[3 * i + k] * normals[3 * other + k];
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
export function weldedNormals(mesh: Mesh): Float32Array {
  const { of, first } = topologyOf(mesh).weld;
  const sums = new Float64Array(3 * first.length);
  for (let i = 0; i < of.length; i++) for (let k = 0; k < 3; k++) sums[3 * of[i] + k] += mesh.normals[3 * i + k];
  const out = new Float32Array(mesh.normals.length);
  for (let i = 0; i < of.length; i++) {
    const at = 3 * of[i];
    const length = Math.hypot(sums[at], sums[at + 1], sums[at + 2]);
    for (let k = 0; k < 3; k++) out[3 * i + k] = length > 1e-9 ? sums[at + k] / length : mesh.normals[3 * i + k];
  }
  return out;
}
