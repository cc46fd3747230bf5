import type { YieldNow } from '../../yieldNow';
import { CHUNK } from '../edit/smoothNormals';

const { sqrt } = Math;

/**
 * Normals of a surface that is soft wherever its faces share vertices. Faces weigh at a vertex by the sine of their angle there over
 * the lengths of both edges, which is exact on a sphere (Max, Weights for computing vertex normals from facet normals, Journal of
 * Graphics Tools 4, 1999).
 * @param positions 3n
 * @param outwards 3n unit vectors, for vertices whose faces have no size
 * @returns 3n unit vectors
 */
export async function cornerNormals(
  positions: Float32Array,
  indices: Uint32Array,
  outwards: Float32Array,
  yieldNow: YieldNow = () => Promise.resolve(),
): Promise<Float32Array> {
  const sums = new Float64Array(positions.length);
  for (let from = 0; from < indices.length; from += 3 * CHUNK) {
    await yieldNow();
    addCorners(positions, indices, from, Math.min(indices.length, from + 3 * CHUNK), sums);
  }
  const normals = new Float32Array(positions.length);
  for (let i = 0; i < normals.length; i += 3) {
    const x = sums[i];
    const y = sums[i + 1];
    const z = sums[i + 2];
    const length = sqrt(x * x + y * y + z * z);
    const none = !(length > 0);
    normals[i] = none ? outwards[i] : x / length;
    normals[i + 1] = none ? outwards[i + 1] : y / length;
    normals[i + 2] = none ? outwards[i + 2] : z / length;
  }
  return normals;
}

function addCorners(p: Float32Array, indices: Uint32Array, from: number, end: number, sums: Float64Array): void {
  for (let i = from; i < end; i += 3) {
    const a = 3 * indices[i];
    const b = 3 * indices[i + 1];
    const c = 3 * indices[i + 2];
    const ux = p[b] - p[a];
    const uy = p[b + 1] - p[a + 1];
    const uz = p[b + 2] - p[a + 2];
    const vx = p[c] - p[a];
    const vy = p[c + 1] - p[a + 1];
    const vz = p[c + 2] - p[a + 2];
    const x = uy * vz - uz * vy;
    const y = uz * vx - ux * vz;
    const z = ux * vy - uy * vx;
    const uu = ux * ux + uy * uy + uz * uz;
    const vv = vx * vx + vy * vy + vz * vz;
    const ww = (vx - ux) ** 2 + (vy - uy) ** 2 + (vz - uz) ** 2;
    // Edges shorter than a nanometre have no direction that single precision knows.
    if (uu < 1e-18 || vv < 1e-18 || ww < 1e-18) continue;
    // The face's own direction is as long as its sine times both edges: over their squares.
    const atA = 1 / (uu * vv);
    const atB = 1 / (uu * ww);
    const atC = 1 / (vv * ww);
    sums[a] += atA * x;
    sums[a + 1] += atA * y;
    sums[a + 2] += atA * z;
    sums[b] += atB * x;
    sums[b + 1] += atB * y;
    sums[b + 2] += atB * z;
    sums[c] += atC * x;
    sums[c + 1] += atC * y;
    sums[c + 2] += atC * z;
  }
}
