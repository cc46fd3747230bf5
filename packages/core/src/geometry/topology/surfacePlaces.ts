import type { Attributed } from '../attributes';
import { Carrier } from '../carrier';
import { facesAs } from './faceAttributes';
import { MESH, type Mesh } from '../mesh';
import { at, dot, sub, type Vec3 } from '../vec';

/** Places on a surface, k of them. They stay where they are on it however it is moved, as long as its faces are the same. */
export interface SurfacePlaces {
  /** k, face numbers. */
  faces: Uint32Array;
  /** 3k, weights of the face's corners; the three of a place add up to 1. */
  weights: Float32Array;
}

/**
 * What vertices would know that stood at these places: positions, unit normals, texture coordinates, every other attribute
 * of vertices, named ones too, and what the faces there know.
 *
 * @example
 * const mesh = meshWith({
 *   positions: Float32Array.of(0, 0, 0, 2, 0, 0, 0, 2, 0),
 *   normals: Float32Array.of(0, 0, 1, 0, 0, 1, 0, 0, 1),
 *   uvs: new Float32Array(6),
 *   indices: Uint32Array.of(0, 1, 2),
 * });
 * const { positions } = readPlaces(mesh, { faces: Uint32Array.of(0), weights: Float32Array.of(0.5, 0.5, 0) });
 * positions; // → [1, 0, 0]
 */
export function readPlaces(mesh: Mesh, { faces, weights }: SurfacePlaces): Attributed<typeof MESH> {
  const rows = new Carrier(MESH, mesh, 'vertex', faces.length);
  const corners = new Uint32Array(3 * faces.length);
  for (let k = 0; k < faces.length; k++)
    for (let c = 0; c < 3; c++) corners[3 * k + c] = mesh.indices[3 * faces[k] + c];
  rows.weighEach(corners, weights, 3);
  const made = rows.result();
  return { ...mesh, ...made, level: null, named: { ...made.named, ...facesAs(mesh, faces, 'vertex') } };
}

/**
 * Weights of a face's corners at a point in its plane (Ericson, Real-Time Collision Detection, 2005, section 3.4); of a
 * point beside the plane those of its foot. A face without area gives all to its first corner.
 */
export function cornerWeights(
  { positions, indices }: Pick<Mesh, 'positions' | 'indices'>,
  face: number,
  p: Vec3,
): Vec3 {
  const [a, b, c] = [0, 1, 2].map((k) => at(positions, indices[3 * face + k]));
  const [v0, v1, v2] = [sub(b, a), sub(c, a), sub(p, a)];
  const [d00, d01, d11] = [dot(v0, v0), dot(v0, v1), dot(v1, v1)];
  const [d20, d21] = [dot(v2, v0), dot(v2, v1)];
  const area = d00 * d11 - d01 * d01;
  if (!(area > 0)) return [1, 0, 0];
  const v = (d11 * d20 - d01 * d21) / area;
  const w = (d00 * d21 - d01 * d20) / area;
  return [1 - v - w, v, w];
}
