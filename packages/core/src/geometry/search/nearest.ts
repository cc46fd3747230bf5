import type { Mesh } from '../mesh';
import { type MeshTree, treeOf } from './meshTree';
import { cornerWeights } from '../topology/surfacePlaces';
import { nearestOnFace, type Triangle } from './triangles';
import { at, cross, dot, scale, sub, type Vec3 } from '../vec';

/** The place of a surface that is nearest to a point. */
export interface NearestPlace {
  face: number;
  /** Weights of the face's corners there. */
  weights: Vec3;
  position: Vec3;
  /** Metres from the point. */
  distance: number;
}

/** Nodes of the tree that are still to be looked into, and how far they are, squared: two a level at most. */
const WAITING = new Int32Array(256);
const GAPS = new Float64Array(256);

/**
 * The place of a mesh that is nearest to a point. The mesh's tree is made once and kept.
 * @param most what is further than this is not looked for, metres
 * @returns null where nothing is as near, and on a mesh without faces
 */
export function nearestPlace(mesh: Mesh, point: Vec3, most = Infinity): NearestPlace | null {
  if (mesh.indices.length === 0) return null;
  const tree = treeOf(mesh);
  const { left: children, from, to, order } = tree;
  const { positions, indices } = mesh;
  const [px, py, pz] = point;
  let best = most * most * (1 + 1e-12);
  let face = -1;
  let position = point;
  let waiting = 1;
  WAITING[0] = 0;
  GAPS[0] = boxGap(tree, 0, px, py, pz);
  while (waiting > 0) {
    const node = WAITING[--waiting];
    if (GAPS[waiting] >= best) continue;
    const left = children[node];
    if (left >= 0) {
      const one = boxGap(tree, left, px, py, pz);
      const other = boxGap(tree, left + 1, px, py, pz);
      // The nearer one is looked at first.
      const first = one < other ? 1 : 0;
      WAITING[waiting] = left + first;
      GAPS[waiting++] = first === 1 ? other : one;
      WAITING[waiting] = left + 1 - first;
      GAPS[waiting++] = first === 1 ? one : other;
      continue;
    }
    for (let i = from[node]; i < to[node]; i++) {
      const t = order[i];
      const near = nearestOnFace(positions, indices, t, px, py, pz);
      const gap = (near[0] - px) ** 2 + (near[1] - py) ** 2 + (near[2] - pz) ** 2;
      if (gap >= best) continue;
      best = gap;
      face = t;
      position = [near[0], near[1], near[2]];
    }
  }
  if (face < 0) return null;
  return { face, weights: cornerWeights(mesh, face, position), position, distance: Math.sqrt(best) };
}

const triangleOf = ({ positions, indices }: Mesh, t: number): Triangle => [
  at(positions, indices[3 * t]),
  at(positions, indices[3 * t + 1]),
  at(positions, indices[3 * t + 2]),
];

/** Squared distance from a point to the box of a node. */
function boxGap({ boxes }: MeshTree, node: number, x: number, y: number, z: number): number {
  const b = 6 * node;
  const dx = x < boxes[b] ? boxes[b] - x : x > boxes[b + 3] ? x - boxes[b + 3] : 0;
  const dy = y < boxes[b + 1] ? boxes[b + 1] - y : y > boxes[b + 4] ? y - boxes[b + 4] : 0;
  const dz = z < boxes[b + 2] ? boxes[b + 2] - z : z > boxes[b + 5] ? z - boxes[b + 5] : 0;
  return dx * dx + dy * dy + dz * dz;
}

/** Where a ray first meets a mesh. */
export interface RayHit {
  face: number;
  /** Metres along the ray. */
  distance: number;
}

/**
 * Where a ray first meets a mesh, from either side of its faces (Möller and Trumbore, Fast, minimum storage ray/triangle
 * intersection, 1997, over the mesh's tree; boxes by slabs, Kay and Kajiya, 1986). Null where it meets nothing.
 * @param way unit vector
 * @param least what lies nearer than this is passed over, metres
 */
export function rayHit(mesh: Mesh, from: Vec3, way: Vec3, least = 0): RayHit | null {
  if (mesh.indices.length === 0) return null;
  const tree = treeOf(mesh);
  const inverse = way.map((x) => 1 / x);
  let hit: RayHit | null = null;
  const waiting: number[] = [0];
  while (waiting.length > 0) {
    const node = waiting.pop()!;
    if (!meetsBox(tree, node, from, inverse, hit?.distance ?? Infinity)) continue;
    const left = tree.left[node];
    if (left >= 0) {
      waiting.push(left, left + 1);
      continue;
    }
    for (let i = tree.from[node]; i < tree.to[node]; i++) {
      const face = tree.order[i];
      const t = alongRay(from, way, triangleOf(mesh, face));
      if (t > least && t < (hit?.distance ?? Infinity)) hit = { face, distance: t };
    }
  }
  return hit;
}

function meetsBox({ boxes }: MeshTree, node: number, from: Vec3, inverse: readonly number[], most: number): boolean {
  let [near, far] = [0, most];
  for (let c = 0; c < 3; c++) {
    const [a, b] = [(boxes[6 * node + c] - from[c]) * inverse[c], (boxes[6 * node + 3 + c] - from[c]) * inverse[c]];
    // A ray within a side of the box gives no number there: it is not kept out by it.
    if (Number.isNaN(a) || Number.isNaN(b)) continue;
    near = Math.max(near, Math.min(a, b));
    far = Math.min(far, Math.max(a, b));
  }
  return near <= far;
}

/** Metres along a ray to a triangle; −1 where they do not meet. */
function alongRay(from: Vec3, way: Vec3, [a, b, c]: Triangle): number {
  const [e, f] = [sub(b, a), sub(c, a)];
  const h = cross(way, f);
  const det = dot(e, h);
  if (Math.abs(det) < 1e-18) return -1;
  const s = sub(from, a);
  const u = dot(s, h) / det;
  if (u < -1e-9 || u > 1 + 1e-9) return -1;
  const q = cross(s, e);
  const v = dot(way, q) / det;
  if (v < -1e-9 || u + v > 1 + 1e-9) return -1;
  return dot(f, q) / det;
}

/** How thick a form is at a place of its skin: straight in to the other side, metres; 0 where there is none. */
export function thicknessAt(mesh: Mesh, place: Vec3, normal: Vec3): number {
  return rayHit(mesh, place, scale(normal, -1), 1e-5)?.distance ?? 0;
}

/** Directions that lie along no edge of what people make. */
const ASKEW: readonly Vec3[] = [
  [0.5377, 0.7741, 0.3341],
  [-0.6123, 0.2917, 0.7348],
  [0.1829, -0.6431, -0.7436],
];

/** Whether a point lies inside a closed mesh: most of three rays from it leave the mesh an odd number of times. */
export function insideOf(mesh: Mesh, point: Vec3): boolean {
  const votes = ASKEW.filter((way) => {
    let crossed = 0;
    let least = 0;
    for (let hit = rayHit(mesh, point, way); hit; hit = rayHit(mesh, point, way, least)) {
      crossed++;
      least = hit.distance + 1e-9;
    }
    return crossed % 2 === 1;
  });
  return votes.length >= 2;
}
