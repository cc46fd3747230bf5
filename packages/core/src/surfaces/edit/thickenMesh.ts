import type { YieldNow } from '../../yieldNow';
import { faceCorners } from '../../geometry/topology/faceNormal';
import { facesFrom } from '../../geometry/topology/faceAttributes';
import { filled, mapped } from '../../geometry/filled';
import { pickedInTime } from '../../geometry/carrier';
import { MESH, type Mesh } from '../../geometry/mesh';
import { Topology, topologyInTime } from '../../geometry/topology/topology';
import { normalsOfGroups, softGroups } from './updateNormals';
import { CHUNK, softVertices, type SoftVertices } from './smoothNormals';

/**
 * A mesh made thick: both its faces, moved apart along the normals, and rims where it is open. Closed meshes become
 * shells. Both are soft where it is soft and hard where it is hard.
 * @param thick metres
 * @param side where the new face lies: 0 half on each side, 1 outside, −1 inside
 */
export async function thickenMesh(
  mesh: Mesh,
  thick: number,
  side: -1 | 0 | 1,
  yieldNow: YieldNow = () => Promise.resolve(),
): Promise<Mesh> {
  const topology = await topologyInTime(mesh, yieldNow);
  const { corners } = topology;
  const { first } = topology.weld;
  const m = first.length;
  const sums = new Float64Array(9 * m);
  /** The first vertex at each corner. */
  const places = mapped(Uint32Array, corners, (corner) => first[corner]);
  await yieldNow();
  const { positions } = mesh;
  const normal = new Float64Array(3);
  const angles = new Float64Array(3);
  for (let i = 0; i < corners.length; i += 3) {
    if (i % (3 * CHUNK) === 0) await yieldNow();
    faceCorners(positions, 3 * places[i], 3 * places[i + 1], 3 * places[i + 2], normal, 0, angles, 0);
    for (let k = 0; k < 3; k++) addPlane(sums, 9 * corners[i + k], normal, angles[k]);
  }
  const [outer, inner] = [((side + 1) / 2) * thick, ((side - 1) / 2) * thick];
  /** Of the places of both sheets, the outer one's first. */
  const apart = new Float32Array(6 * m);
  const way = new Float64Array(3);
  for (let i = 0; i < m; i++) {
    if (i % CHUNK === 0) await yieldNow();
    stoodOff(sums, i, way);
    for (let c = 0; c < 3; c++) {
      const place = positions[3 * first[i] + c];
      apart[3 * i + c] = place + way[c] * outer;
      apart[3 * (m + i) + c] = place + way[c] * inner;
    }
  }
  await yieldNow();
  const sheets = await sheetsOf(topology, yieldNow);
  const rim = await softVertices(apart, sheets.rims, RIM_SOFT, yieldNow);
  return joinedSheets(mesh, topology, sheets, apart, rim, yieldNow);
}

/** Rims are soft where they meet at less than this, radians. */
const RIM_SOFT = Math.PI / 4;

/** The faces of what is made thick, which hang on nothing but those that it is made of. */
interface Sheets {
  /** Vertices of the faces of both sheets: those of the inner one are numbered after all of the outer one. */
  faces: Uint32Array;
  /** Faces of the rims between them, of the places of both sheets. */
  rims: Topology;
  /** Which face each of them, rims last, is made of. */
  sources: Uint32Array;
}

const known = new WeakMap<Topology, Sheets>();

async function sheetsOf(topology: Topology, yieldNow: YieldNow): Promise<Sheets> {
  const before = known.get(topology);
  if (before) return before;
  const edges = await topology.findEdges(yieldNow);
  const { corners, faces: own, indices, weld } = topology;
  const [n, m] = [weld.of.length, weld.first.length];
  // There is a rim where nothing runs back along an edge.
  const isRim = (i: number, p: number, q: number): boolean =>
    (p < q ? edges.back[edges.of[i]] : edges.there[edges.of[i]]) === 0;
  let count = 0;
  for (let i = 0; i < corners.length; i++) if (isRim(i, corners[i], corners[i % 3 === 2 ? i - 2 : i + 1])) count++;
  await yieldNow();
  const faces = new Uint32Array(2 * corners.length);
  const rims = new Uint32Array(6 * count);
  const sources = new Uint32Array((2 * corners.length) / 3 + 2 * count);
  let rim = 0;
  for (let i = 0; i < corners.length; i += 3) {
    if (i % (3 * CHUNK) === 0) await yieldNow();
    const f = own[i / 3];
    sources.fill(f, (2 * i) / 3, (2 * i) / 3 + 2);
    for (let k = 0; k < 3; k++) {
      faces[2 * i + k] = indices[3 * f + k];
      faces[2 * i + 3 + k] = n + indices[3 * f + ((3 - k) % 3)];
      const p = corners[i + k];
      const q = k === 2 ? corners[i] : corners[i + k + 1];
      if (!isRim(i + k, p, q)) continue;
      sources.fill(f, (2 * corners.length) / 3 + 2 * rim, (2 * corners.length) / 3 + 2 * rim + 2);
      rims.set([q, p, m + p, q, m + p, m + q], 6 * rim++);
    }
  }
  const each = filled(Uint32Array, 2 * m, (i) => i);
  const sheets = { faces, rims: new Topology({ indices: rims }, { of: each, first: each }), sources };
  known.set(topology, sheets);
  return sheets;
}

/**
 * Both sheets, soft and hard where what they are made of is, and their rims.
 * @param apart places of both sheets, the outer one's first
 */
async function joinedSheets(
  mesh: Mesh,
  { weld: { of, first } }: Topology,
  { faces, rims, sources }: Sheets,
  apart: Float32Array,
  rim: SoftVertices,
  yieldNow: YieldNow,
): Promise<Mesh> {
  const [n, m] = [of.length, first.length];
  const together = await softGroups(mesh, yieldNow);
  const vertices = new Uint32Array(2 * n + rim.sources.length);
  const places = new Uint32Array(vertices.length);
  for (let i = 0; i < n; i++) {
    vertices[i] = vertices[n + i] = i;
    places[i] = of[i];
    places[n + i] = m + of[i];
  }
  for (let i = 0; i < rim.sources.length; i++) {
    const place = rim.sources[i];
    vertices[2 * n + i] = first[place < m ? place : place - m];
    places[2 * n + i] = place;
  }
  const made = await pickedInTime(MESH, mesh, 'vertex', vertices, yieldNow, ['normals', 'positions']);
  const positions = new Float32Array(3 * places.length);
  for (let i = 0; i < places.length; i++) {
    if (i % CHUNK === 0) await yieldNow();
    const at = 3 * places[i];
    positions[3 * i] = apart[at];
    positions[3 * i + 1] = apart[at + 1];
    positions[3 * i + 2] = apart[at + 2];
  }
  const normals = new Float32Array(positions.length);
  normals.set(await normalsOfGroups(mesh, positions.subarray(0, 3 * n), together, yieldNow));
  const inner = await normalsOfGroups(mesh, positions.subarray(3 * n, 6 * n), together, yieldNow);
  for (let i = 0; i < inner.length; i++) normals[3 * n + i] = -inner[i];
  normals.set(rim.normals, 6 * n);
  let indices = faces;
  if (rims.indices.length > 0) {
    indices = new Uint32Array(faces.length + rims.indices.length);
    indices.set(faces);
    for (let i = 0; i < rim.indices.length; i++) indices[faces.length + i] = 2 * n + rim.indices[i];
  }
  return facesFrom({ ...mesh, ...made, positions, normals, indices, level: null, parts: null }, sources);
}

/** Adds a face that leans on a corner to the sums of that. */
function addPlane(sums: Float64Array, to: number, normal: Float64Array, w: number): void {
  const x = normal[0];
  const y = normal[1];
  const z = normal[2];
  sums[to] += w * x * x;
  sums[to + 1] += w * x * y;
  sums[to + 2] += w * x * z;
  sums[to + 3] += w * y * y;
  sums[to + 4] += w * y * z;
  sums[to + 5] += w * z * z;
  sums[to + 6] += w * x;
  sums[to + 7] += w * y;
  sums[to + 8] += w * z;
}

/** What holds a corner back along ways in which its faces do not lean: next to nothing, but enough to divide by. */
const HOLD = 1e-7;
/** A corner goes no further than so many thicknesses: sharp points do not run off (the miter limit of SVG 2, section 13.5.5). */
const FURTHEST = 4;

/**
 * Where a corner goes so that all its faces come to stand off by one, as nearly as can be: least squares, weighed by their
 * angles there (the normal equations of a plane distance each, as in Garland, Heckbert, Surface simplification using quadric
 * error metrics, SIGGRAPH 1997).
 * @param sums nine a corner: of w n nᵀ (xx, xy, xz, yy, yz, zz) and of w n over the faces' unit normals n and weights w
 * @param out the way there, in thicknesses
 */
function stoodOff(sums: Float64Array, corner: number, out: Float64Array): void {
  const at = 9 * corner;
  const xy = sums[at + 1];
  const xz = sums[at + 2];
  const yz = sums[at + 4];
  const x = sums[at + 6];
  const y = sums[at + 7];
  const z = sums[at + 8];
  const hold = HOLD * (sums[at] + sums[at + 3] + sums[at + 5]);
  if (!(hold > 0)) {
    out.fill(0);
    return;
  }
  const a = sums[at] + hold;
  const b = sums[at + 3] + hold;
  const c = sums[at + 5] + hold;
  // The inverse of the symmetric matrix by its cofactors, times the sum of normals.
  const p = b * c - yz * yz;
  const q = xz * yz - xy * c;
  const r = xy * yz - xz * b;
  const s = xy * xz - a * yz;
  const k = (1 + HOLD) / (a * p + xy * q + xz * r);
  const wx = k * (p * x + q * y + r * z);
  const wy = k * (q * x + (a * c - xz * xz) * y + s * z);
  const wz = k * (r * x + s * y + (a * b - xy * xy) * z);
  const far = Math.sqrt(wx * wx + wy * wy + wz * wz);
  const within = far > FURTHEST ? FURTHEST / far : 1;
  out[0] = wx * within;
  out[1] = wy * within;
  out[2] = wz * within;
}
