import type { YieldNow } from '../../yieldNow';
import { faceNormal } from '../../geometry/topology/faceNormal';
import type { Mesh } from '../../geometry/mesh';
import type { SurfacePlaces } from '../../geometry/topology/surfacePlaces';
import { topologyInTime } from '../../geometry/topology/topology';
import { EdgeTable } from '../../geometry/topology/weld';
import { CHUNK } from '../edit/smoothNormals';

/** Faces that lean no more than so against each other are one: the edge between them is none of the form's. */
const FLAT = Math.cos((0.5 * Math.PI) / 180);

const NEVER: YieldNow = () => Promise.resolve();

/** Places that are found one by one. */
class Found {
  readonly #faces: number[] = [];
  readonly #weights: number[] = [];

  /** A place on a face, on the edge from one of its corners to the next: so far along, 0..1. */
  add(face: number, corner: number, along: number): void {
    const next = corner === 2 ? 0 : corner + 1;
    this.#faces.push(face);
    for (let c = 0; c < 3; c++) this.#weights.push(c === corner ? 1 - along : c === next ? along : 0);
  }

  /** The middle of a face. */
  addMiddle(face: number): void {
    this.#faces.push(face);
    this.#weights.push(1 / 3, 1 / 3, 1 / 3);
  }

  get places(): SurfacePlaces {
    return { faces: Uint32Array.from(this.#faces), weights: Float32Array.from(this.#weights) };
  }
}

/** One place at every corner of a mesh, corners at one place taken as one. */
export async function onCorners(mesh: Mesh, yieldNow: YieldNow = NEVER): Promise<SurfacePlaces> {
  const { of, first } = (await topologyInTime(mesh, yieldNow)).weld;
  const { indices } = mesh;
  const seen = new Uint8Array(first.length);
  const found = new Found();
  for (let i = 0; i < indices.length; i++) {
    if (i % (3 * CHUNK) === 0) await yieldNow();
    const place = of[indices[i]];
    if (seen[place]) continue;
    seen[place] = 1;
    found.add((i / 3) | 0, i % 3, 0);
  }
  return found.places;
}

/** One place in the middle of every face; two triangles in one plane along their longest edges are one. */
export async function onFaces(mesh: Mesh, yieldNow: YieldNow = NEVER): Promise<SurfacePlaces> {
  const { partner, edge } = await pairedFaces(mesh, yieldNow);
  const found = new Found();
  for (let face = 0; face < partner.length; face++) {
    if (face % CHUNK === 0) await yieldNow();
    const other = partner[face];
    if (other < 0) found.addMiddle(face);
    // The middle of the edge between both is the middle of the square.
    else if (face < other) found.add(face, edge[face], 0.5);
  }
  return found.places;
}

/** The face that lies in one plane with each beyond its longest edge, −1 for none; and that edge, by the corner that it begins at. */
async function pairedFaces(mesh: Mesh, yieldNow: YieldNow): Promise<{ partner: Int32Array; edge: Uint8Array }> {
  const { positions, indices } = mesh;
  const { of } = (await topologyInTime(mesh, yieldNow)).weld;
  const faces = indices.length / 3;
  const partner = new Int32Array(faces).fill(-1);
  const edge = new Uint8Array(faces);
  const table = new EdgeTable(faces);
  /** The face that came first to each of those edges. */
  const first = new Uint32Array(faces);
  for (let face = 0; face < faces; face++) {
    if (face % CHUNK === 0) await yieldNow();
    let longest = -1;
    for (let k = 0; k < 3; k++) {
      const length = squared(positions, indices[3 * face + k], indices[3 * face + (k === 2 ? 0 : k + 1)]);
      if (length <= longest) continue;
      longest = length;
      edge[face] = k;
    }
    const k = edge[face];
    const known = table.count;
    const e = table.idOf(of[indices[3 * face + k]], of[indices[3 * face + (k === 2 ? 0 : k + 1)]]);
    if (e === known) {
      first[e] = face;
      continue;
    }
    const other = first[e];
    if (partner[other] >= 0 || !isFlat(mesh, face, other)) continue;
    partner[face] = other;
    partner[other] = face;
  }
  return { partner, edge };
}

/** Places along every edge of a mesh but those inside its flat faces, as even as they go, about so far apart. */
export async function onEdges(mesh: Mesh, spacing: number, yieldNow: YieldNow = NEVER): Promise<SurfacePlaces> {
  const { positions, indices } = mesh;
  const { of } = (await topologyInTime(mesh, yieldNow)).weld;
  const table = new EdgeTable(indices.length);
  /** How many corners of faces an edge begins at, and the first two of them. */
  const counts = new Uint32Array(indices.length);
  const corners = new Uint32Array(2 * indices.length);
  for (let i = 0; i < indices.length; i++) {
    if (i % (3 * CHUNK) === 0) await yieldNow();
    const a = of[indices[i]];
    const b = of[indices[nextCorner(i)]];
    if (a === b) continue;
    const e = table.idOf(a, b);
    if (counts[e] < 2) corners[2 * e + counts[e]] = i;
    counts[e]++;
  }
  const found = new Found();
  for (let e = 0; e < table.count; e++) {
    if (e % CHUNK === 0) await yieldNow();
    const i = corners[2 * e];
    const face = (i / 3) | 0;
    if (counts[e] === 2 && isFlat(mesh, face, (corners[2 * e + 1] / 3) | 0)) continue;
    const length = Math.sqrt(squared(positions, indices[i], indices[nextCorner(i)]));
    const count = Math.max(1, Math.floor(length / spacing + 1e-6));
    for (let n = 0; n < count; n++) found.add(face, i % 3, (n + 0.5) / count);
  }
  return found.places;
}

/** The corner of its face that comes after a corner. */
const nextCorner = (corner: number): number => (corner % 3 === 2 ? corner - 2 : corner + 1);

/** Squared distance between two vertices. */
function squared(p: Float32Array, i: number, j: number): number {
  const x = p[3 * i] - p[3 * j];
  const y = p[3 * i + 1] - p[3 * j + 1];
  const z = p[3 * i + 2] - p[3 * j + 2];
  return x * x + y * y + z * z;
}

const normals = new Float64Array(6);

/** Whether two faces lie in one plane. */
function isFlat({ positions, indices }: Mesh, one: number, other: number): boolean {
  faceNormal(positions, indices, one, normals, 0);
  faceNormal(positions, indices, other, normals, 3);
  return normals[0] * normals[3] + normals[1] * normals[4] + normals[2] * normals[5] > FLAT;
}
