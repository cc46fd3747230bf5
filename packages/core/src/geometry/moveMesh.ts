import type { Mesh } from './mesh';
import type { Vec3 } from './vec';

const { sqrt } = Math;

/**
 * Where a place goes, which is given back, and how it goes along with its own place: nine numbers, what one metre on each axis
 * makes, one axis after another.
 * @param i its vertex
 */
export type SlopedMove = (place: Vec3, i: number, slopes: Float64Array) => Vec3;

/** A movement with its slopes measured, over a length that is nothing against the whole. */
export const measuredSlopes =
  <E>(move: (place: Vec3, element: E) => Vec3) =>
  (place: Vec3, element: E, slopes: Float64Array, small: number): Vec3 => {
    const moved = move(place, element);
    further(slopes, 0, moved, move([place[0] + small, place[1], place[2]], element), small);
    further(slopes, 3, moved, move([place[0], place[1] + small, place[2]], element), small);
    further(slopes, 6, moved, move([place[0], place[1], place[2] + small], element), small);
    return moved;
  };

/**
 * A mesh with every vertex moved. Normals turn as the surface does, by the inverse transpose of the movement's
 * derivative there, so that hard edges stay hard and soft ones soft.
 */
export async function movedMesh(mesh: Mesh, move: SlopedMove, yieldNow: () => Promise<void>): Promise<Mesh> {
  const n = mesh.positions.length / 3;
  const moved = { ...mesh, positions: new Float32Array(3 * n), normals: new Float32Array(3 * n) };
  for (let i = 0; i < n; i += PER_YIELD) {
    await yieldNow();
    moveVertices(mesh, moved, move, i, Math.min(n, i + PER_YIELD));
  }
  return moved;
}

/** So many vertices between two yields: finding each its place on another skin takes a tenth of a millisecond. */
const PER_YIELD = 256;

/** Moves the vertices `first` up to `end`. */
function moveVertices(mesh: Mesh, moved: Mesh, move: SlopedMove, first: number, end: number): void {
  const { positions: before, normals: faced } = mesh;
  const { positions, normals } = moved;
  const d = new Float64Array(9);
  for (let i = first; i < end; i++) {
    const p = 3 * i;
    const moved = move([before[p], before[p + 1], before[p + 2]], i, d);
    positions[p] = moved[0];
    positions[p + 1] = moved[1];
    positions[p + 2] = moved[2];
    // Cofactors of the derivative: its inverse transpose times its determinant.
    const ux = d[4] * d[8] - d[5] * d[7];
    const uy = d[5] * d[6] - d[3] * d[8];
    const uz = d[3] * d[7] - d[4] * d[6];
    const nx = faced[p];
    const ny = faced[p + 1];
    const nz = faced[p + 2];
    let tx = nx * ux + ny * (d[7] * d[2] - d[8] * d[1]) + nz * (d[1] * d[5] - d[2] * d[4]);
    let ty = nx * uy + ny * (d[8] * d[0] - d[6] * d[2]) + nz * (d[2] * d[3] - d[0] * d[5]);
    let tz = nx * uz + ny * (d[6] * d[1] - d[7] * d[0]) + nz * (d[0] * d[4] - d[1] * d[3]);
    // A movement that mirrors turns the cofactors over; faces turn over with it, so normals must not.
    const length = (d[0] * ux + d[1] * uy + d[2] * uz < 0 ? -1 : 1) * sqrt(tx * tx + ty * ty + tz * tz);
    if (length > 1e-20 || length < -1e-20) {
      tx /= length;
      ty /= length;
      tz /= length;
    } else {
      tx = nx;
      ty = ny;
      tz = nz;
    }
    normals[p] = tx;
    normals[p + 1] = ty;
    normals[p + 2] = tz;
  }
}

/** What a place that lies `small` further on one axis has gone further, for each metre. */
function further(slopes: Float64Array, first: number, moved: Vec3, beyond: Vec3, small: number): void {
  slopes[first] = (beyond[0] - moved[0]) / small;
  slopes[first + 1] = (beyond[1] - moved[1]) / small;
  slopes[first + 2] = (beyond[2] - moved[2]) / small;
}
