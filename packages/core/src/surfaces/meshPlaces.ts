import { mapped } from '../geometry/filled';
import type { Mesh } from '../geometry/mesh';
import type { SurfacePlaces } from '../geometry/surfacePlaces';
import { topologyOf } from '../geometry/topology';
import { at, byAxis, cross, distance, dot, sub, unit, type Vec3 } from '../geometry/vec';

/** Faces that lean no more than so against each other are one: the edge between them is none of the form's. */
const FLAT = Math.cos((0.5 * Math.PI) / 180);

const placesFrom = (list: readonly (readonly [face: number, weights: Vec3])[]): SurfacePlaces => ({
  faces: mapped(Uint32Array, list, ([face]) => face),
  weights: Float32Array.from(list.flatMap(([, weights]) => weights)),
});

const CORNERS: readonly Vec3[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];

/** One place at every corner of a mesh, corners at one place taken as one. */
export function onCorners(mesh: Mesh): SurfacePlaces {
  const { of, first } = topologyOf(mesh).weld;
  const seen = new Uint8Array(first.length);
  const list: [number, Vec3][] = [];
  for (let i = 0; i < mesh.indices.length; i++) {
    const place = of[mesh.indices[i]];
    if (seen[place]) continue;
    seen[place] = 1;
    list.push([Math.floor(i / 3), CORNERS[i % 3]]);
  }
  return placesFrom(list);
}

const normalOf = ({ positions, indices }: Mesh, face: number): Vec3 => {
  const [a, b, c] = [0, 1, 2].map((k) => at(positions, indices[3 * face + k]));
  return unit(cross(sub(b, a), sub(c, a)), [0, 0, 0]);
};

/** One place in the middle of every face; two triangles in one plane along their longest edges are one. */
export function onFaces(mesh: Mesh): SurfacePlaces {
  const pairs = pairedFaces(mesh);
  const list: [number, Vec3][] = [];
  for (let face = 0; face < pairs.length; face++) {
    const { with: other, edge } = pairs[face];
    if (other < 0) list.push([face, [1 / 3, 1 / 3, 1 / 3]]);
    // The middle of the edge between both is the middle of the square.
    else if (face < other) list.push([face, byAxis((k) => (k === (edge + 2) % 3 ? 0 : 0.5))]);
  }
  return placesFrom(list);
}

interface Pair {
  /** The face that lies in one plane with it beyond its longest edge, −1 for none. */
  with: number;
  /** The longest edge: from this corner to the next. */
  edge: number;
}

function pairedFaces(mesh: Mesh): Pair[] {
  const { positions, indices } = mesh;
  const { of } = topologyOf(mesh).weld;
  const byEdge = new Map<string, number>();
  const pairs: Pair[] = [];
  for (let face = 0; face < indices.length / 3; face++) {
    const lengths = [0, 1, 2].map((k) =>
      distance(at(positions, indices[3 * face + k]), at(positions, indices[3 * face + ((k + 1) % 3)])),
    );
    const edge = lengths.indexOf(Math.max(...lengths));
    const ends = [of[indices[3 * face + edge]], of[indices[3 * face + ((edge + 1) % 3)]]];
    const name = `${Math.min(...ends)} ${Math.max(...ends)}`;
    const other = byEdge.get(name) ?? -1;
    const flat = other >= 0 && dot(normalOf(mesh, face), normalOf(mesh, other)) > FLAT && pairs[other].with < 0;
    if (flat) pairs[other].with = face;
    pairs.push({ with: flat ? other : -1, edge });
    if (other < 0) byEdge.set(name, face);
  }
  return pairs;
}

/** Places along every edge of a mesh but those inside its flat faces, as even as they go, about so far apart. */
export function onEdges(mesh: Mesh, spacing: number): SurfacePlaces {
  const { positions, indices } = mesh;
  const { of } = topologyOf(mesh).weld;
  const faces = new Map<string, number[]>();
  for (let i = 0; i < indices.length; i++) {
    const ends = [of[indices[i]], of[indices[3 * Math.floor(i / 3) + ((i + 1) % 3)]]];
    if (ends[0] === ends[1]) continue;
    const name = `${Math.min(...ends)} ${Math.max(...ends)}`;
    faces.set(name, [...(faces.get(name) ?? []), i]);
  }
  const list: [number, Vec3][] = [];
  for (const corners of faces.values()) {
    const [one, two] = corners.map((corner) => Math.floor(corner / 3));
    if (corners.length === 2 && dot(normalOf(mesh, one), normalOf(mesh, two)) > FLAT) continue;
    const k = corners[0] % 3;
    const length = distance(at(positions, indices[3 * one + k]), at(positions, indices[3 * one + ((k + 1) % 3)]));
    const count = Math.max(1, Math.floor(length / spacing + 1e-6));
    for (let i = 0; i < count; i++) {
      const t = (i + 0.5) / count;
      const weights: [number, number, number] = [0, 0, 0];
      weights[k] = 1 - t;
      weights[(k + 1) % 3] = t;
      list.push([one, weights]);
    }
  }
  return placesFrom(list);
}
