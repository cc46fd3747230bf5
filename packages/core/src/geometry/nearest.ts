import { type Mesh } from './mesh';
import { type MeshTree, treeOf } from './meshTree';
import { cornerWeights } from './surfacePlaces';
import { nearestOn, type Triangle } from './triangles';
import { at, cross, dot, scale, sub, type Vec3 } from './vec';

/** The place of a surface that is nearest to a point. */
export interface NearestPlace {
  face: number;
  /** Weights of the face's corners there. */
  weights: Vec3;
  position: Vec3;
  /** Metres from the point. */
  distance: number;
}

/** The place of a mesh that is nearest to a point; null on a mesh without faces. The mesh's tree is made once and kept. */
export function nearestPlace(mesh: Mesh, point: Vec3): NearestPlace | null {
  if (mesh.indices.length === 0) return null;
  const tree = treeOf(mesh);
  let best = Infinity;
  let face = 0;
  let position: Vec3 = point;
  const waiting: number[] = [0];
  while (waiting.length > 0) {
    const node = waiting.pop()!;
    if (boxGap(tree, node, point) >= best) continue;
    const left = tree.left[node];
    if (left >= 0) {
      const [one, other] = [boxGap(tree, left, point), boxGap(tree, left + 1, point)];
      // The nearer one is looked at first.
      if (one < other) waiting.push(left + 1, left);
      else waiting.push(left, left + 1);
      continue;
    }
    for (let i = tree.from[node]; i < tree.to[node]; i++) {
      const t = tree.order[i];
      const near = nearestOn(point, triangleOf(mesh, t));
      const away = sub(near, point);
      const gap = dot(away, away);
      if (gap < best) [best, face, position] = [gap, t, near];
    }
  }
  return { face, weights: cornerWeights(mesh, face, position), position, distance: Math.sqrt(best) };
}

const triangleOf = ({ positions, indices }: Mesh, t: number): Triangle => [
  at(positions, indices[3 * t]),
  at(positions, indices[3 * t + 1]),
  at(positions, indices[3 * t + 2]),
];

/** Squared distance from a point to the box of a node. */
function boxGap({ boxes }: MeshTree, node: number, point: Vec3): number {
  let sum = 0;
  for (let c = 0; c < 3; c++) {
    const away = Math.max(boxes[6 * node + c] - point[c], point[c] - boxes[6 * node + 3 + c], 0);
    sum += away * away;
  }
  return sum;
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
