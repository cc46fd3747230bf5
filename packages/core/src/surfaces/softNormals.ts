import { type Mesh, weld } from '../geometry/mesh';
import { at, cross, sub, unit, type Vec3 } from '../geometry/vec';

/** Normal of a ring of corners, not of unit length: twice its area (Newell's method). */
export function ringNormal(corners: readonly Vec3[]): Vec3 {
  let sum: Vec3 = [0, 0, 0];
  for (let k = 0; k < corners.length; k++) {
    const n = cross(corners[k], corners[(k + 1) % corners.length]);
    sum = [sum[0] + n[0], sum[1] + n[1], sum[2] + n[2]];
  }
  return sum;
}

/** Angle between two vectors, radians. */
export function angleBetween(a: Vec3, b: Vec3): number {
  const side = cross(a, b);
  return Math.atan2(Math.hypot(...side), a[0] * b[0] + a[1] * b[1] + a[2] * b[2]);
}

/**
 * A mesh with normals made anew: soft where faces meet at less than a limit, hard elsewhere. Faces weigh by their angle at
 * the vertex (Thürmer and Wüthrich, Computing vertex normals from polygonal facets, Journal of Graphics Tools 3, 1998).
 * @param limit radians
 */
export function withSoftNormals(mesh: Mesh, limit: number): Mesh {
  const { of } = weld(mesh);
  const { indices, positions } = mesh;
  const faces = indices.length / 3;
  const normals: Vec3[] = [];
  const weights = new Float64Array(3 * faces);
  const corners = new Map<number, number[]>();
  for (let f = 0; f < faces; f++) {
    const p = [0, 1, 2].map((k) => at(positions, indices[3 * f + k]));
    normals.push(unit(cross(sub(p[1], p[0]), sub(p[2], p[0])), [0, 0, 0]));
    for (let k = 0; k < 3; k++) {
      weights[3 * f + k] = angleBetween(sub(p[(k + 1) % 3], p[k]), sub(p[(k + 2) % 3], p[k]));
      const place = of[indices[3 * f + k]];
      const list = corners.get(place);
      if (list) list.push(3 * f + k);
      else corners.set(place, [3 * f + k]);
    }
  }
  const near = Math.cos(limit) - 1e-9;
  const made = new Map<string, number>();
  const source: number[] = [];
  const outNormals: number[] = [];
  const outIndices = new Uint32Array(indices.length);
  for (let corner = 0; corner < indices.length; corner++) {
    const own = normals[Math.floor(corner / 3)];
    const sum = [0, 0, 0];
    for (const other of corners.get(of[indices[corner]])!) {
      const n = normals[Math.floor(other / 3)];
      if (n[0] * own[0] + n[1] * own[1] + n[2] * own[2] < near && limit < Math.PI) continue;
      for (let c = 0; c < 3; c++) sum[c] += weights[other] * n[c];
    }
    const normal = unit(sum as unknown as Vec3, own[0] === 0 && own[1] === 0 && own[2] === 0 ? [0, 1, 0] : own);
    const key = `${indices[corner]},${normal.map((x) => Math.round(x * 1e4)).join()}`;
    let vertex = made.get(key);
    if (vertex === undefined) {
      made.set(key, (vertex = source.length));
      source.push(indices[corner]);
      outNormals.push(...normal);
    }
    outIndices[corner] = vertex;
  }
  return {
    ...mixedMesh(
      mesh,
      source.map((i) => [[i, 1]] as const),
    ),
    normals: Float32Array.from(outNormals),
    indices: outIndices,
  };
}

/** What a new vertex is made of: old ones with their weights. */
export type Mix = readonly (readonly [vertex: number, weight: number])[];

const WIDTHS = { positions: 3, normals: 3, uvs: 2, u: 1, tip: 1, age: 1, colors: 3, glow: 1 } as const;

/** A mesh whose vertices are mixes of another's; its faces, and what belongs to its parts, are left to the caller. */
export function mixedMesh(mesh: Mesh, mixes: readonly Mix[]): Mesh {
  const result: Mesh = { ...mesh, parts: null, levels: null };
  for (const key of Object.keys(WIDTHS) as (keyof typeof WIDTHS)[]) {
    const from = mesh[key];
    if (!from) continue;
    const width = WIDTHS[key];
    const to = new Float32Array(width * mixes.length);
    mixes.forEach((mix, i) => {
      for (const [vertex, weight] of mix)
        for (let c = 0; c < width; c++) to[width * i + c] += weight * from[width * vertex + c];
    });
    result[key] = to;
  }
  return result;
}
