import { picked, pickedInTime } from '../geometry/carrier';
import { faceNormal } from '../geometry/faceNormal';
import { MESH, type Mesh } from '../geometry/mesh';
import { cross, type Vec3 } from '../geometry/vec';
import { topologyInTime } from '../geometry/topology';

const { atan2, round, sqrt } = Math;

/** To be awaited now and then in long work: lets messages in, and throws when the work is no longer wanted. */
export type Breathe = () => Promise<void>;
const NEVER: Breathe = () => Promise.resolve();
/** Faces between two breaths: a few milliseconds. */
export const CHUNK = 8192;

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
export async function withSoftNormals(mesh: Mesh, limit: number, breathe: Breathe = NEVER): Promise<Mesh> {
  const { of, first } = (await topologyInTime(mesh, breathe)).weld;
  const { indices, positions: p } = mesh;
  const faces = indices.length / 3;
  await breathe();
  const normals = new Float64Array(indices.length);
  await breathe();
  const weights = new Float64Array(indices.length);
  for (let f = 0; f < faces; f++) {
    if (f % CHUNK === 0) await breathe();
    faceNormal(p, indices, f, normals, 3 * f);
    const a = 3 * indices[3 * f];
    const b = 3 * indices[3 * f + 1];
    const c = 3 * indices[3 * f + 2];
    weights[3 * f] = cornerAngle(p, a, b, c);
    weights[3 * f + 1] = cornerAngle(p, b, c, a);
    weights[3 * f + 2] = cornerAngle(p, c, a, b);
  }
  // The corners at each place, place after place.
  const starts = new Uint32Array(first.length + 1);
  for (let c = 0; c < indices.length; c++) starts[of[indices[c]] + 1]++;
  for (let i = 0; i < first.length; i++) starts[i + 1] += starts[i];
  await breathe();
  const corners = new Uint32Array(indices.length);
  const filled = starts.slice();
  for (let c = 0; c < indices.length; c++) {
    if (c % (3 * CHUNK) === 0) await breathe();
    corners[filled[of[indices[c]]]++] = c;
  }
  await breathe();

  const near = limit < Math.PI ? Math.cos(limit) - 1e-9 : -Infinity;
  const soft = await softPlaces(normals, weights, starts, corners, limit, breathe);
  const made = new Vertices(indices.length, positionsCount(mesh));
  const outIndices = new Uint32Array(indices.length);
  // Where all is soft, a vertex has one normal whichever face asks.
  const only = new Int32Array(of.length).fill(-1);
  for (let corner = 0; corner < indices.length; corner++) {
    if (corner % (3 * CHUNK) === 0) await breathe();
    const vertex = indices[corner];
    const place = of[vertex];
    if (soft[3 * place] === soft[3 * place]) {
      if (only[vertex] < 0) only[vertex] = made.idOf(vertex, soft[3 * place], soft[3 * place + 1], soft[3 * place + 2]);
      outIndices[corner] = only[vertex];
      continue;
    }
    const own = corner - (corner % 3);
    const ox = normals[own];
    const oy = normals[own + 1];
    const oz = normals[own + 2];
    let x = 0;
    let y = 0;
    let z = 0;
    for (let at = starts[place]; at < starts[place + 1]; at++) {
      const other = corners[at];
      const n = other - (other % 3);
      if (normals[n] * ox + normals[n + 1] * oy + normals[n + 2] * oz < near) continue;
      x += weights[other] * normals[n];
      y += weights[other] * normals[n + 1];
      z += weights[other] * normals[n + 2];
    }
    const length = sqrt(x * x + y * y + z * z);
    if (length > 1e-20) {
      x /= length;
      y /= length;
      z /= length;
    } else [x, y, z] = ox === 0 && oy === 0 && oz === 0 ? [0, 1, 0] : [ox, oy, oz];
    outIndices[corner] = made.idOf(vertex, x, y, z);
  }
  await breathe();
  const vertices = await pickedInTime(MESH, mesh, 'vertex', made.sources, breathe);
  return { ...mesh, ...vertices, normals: made.normals, indices: outIndices, level: null, parts: null };
}

/**
 * Normals of the places all of whose faces meet at less than a limit, as most do: those where no face is further than half of
 * it from all of them together. @returns not a number where one may be
 */
async function softPlaces(
  normals: Float64Array,
  weights: Float64Array,
  starts: Uint32Array,
  corners: Uint32Array,
  limit: number,
  breathe: Breathe,
): Promise<Float64Array> {
  const places = starts.length - 1;
  const out = new Float64Array(3 * places).fill(NaN);
  const half = Math.cos(Math.min(limit, Math.PI) / 2);
  for (let place = 0; place < places; place++) {
    if (place % CHUNK === 0) await breathe();
    const end = starts[place + 1];
    let x = 0;
    let y = 0;
    let z = 0;
    for (let at = starts[place]; at < end; at++) {
      const corner = corners[at];
      const n = corner - (corner % 3);
      x += weights[corner] * normals[n];
      y += weights[corner] * normals[n + 1];
      z += weights[corner] * normals[n + 2];
    }
    const length = sqrt(x * x + y * y + z * z);
    if (!(length > 1e-20)) continue;
    x /= length;
    y /= length;
    z /= length;
    let isSoft = true;
    for (let at = starts[place]; isSoft && at < end; at++) {
      const n = corners[at] - (corners[at] % 3);
      isSoft = normals[n] * x + normals[n + 1] * y + normals[n + 2] * z > half;
    }
    if (!isSoft) continue;
    out[3 * place] = x;
    out[3 * place + 1] = y;
    out[3 * place + 2] = z;
  }
  return out;
}

const positionsCount = (mesh: Mesh): number => mesh.positions.length / 3;

/** The angle of a corner between two others, all at their places in an array, radians. */
export function cornerAngle(p: Float32Array, i: number, j: number, l: number): number {
  const ux = p[j] - p[i];
  const uy = p[j + 1] - p[i + 1];
  const uz = p[j + 2] - p[i + 2];
  const vx = p[l] - p[i];
  const vy = p[l + 1] - p[i + 1];
  const vz = p[l + 2] - p[i + 2];
  const x = uy * vz - uz * vy;
  const y = uz * vx - ux * vz;
  const z = ux * vy - uy * vx;
  return atan2(sqrt(x * x + y * y + z * z), ux * vx + uy * vy + uz * vz);
}

/** New vertices: one for each old one and each normal that it is given, rounded to a ten-thousandth. */
class Vertices {
  readonly #heads: Int32Array;
  readonly #next: Int32Array;
  readonly #source: Uint32Array;
  readonly #rounded: Int32Array;
  readonly #normals: Float32Array;
  #count = 0;

  constructor(most: number, old: number) {
    this.#heads = new Int32Array(old).fill(-1);
    this.#next = new Int32Array(most);
    this.#source = new Uint32Array(most);
    this.#rounded = new Int32Array(3 * most);
    this.#normals = new Float32Array(3 * most);
  }

  get sources(): Uint32Array {
    return this.#source.subarray(0, this.#count);
  }

  get normals(): Float32Array {
    return this.#normals.slice(0, 3 * this.#count);
  }

  idOf(source: number, x: number, y: number, z: number): number {
    const a = round(x * 1e4);
    const b = round(y * 1e4);
    const c = round(z * 1e4);
    const rounded = this.#rounded;
    for (let at = this.#heads[source]; at >= 0; at = this.#next[at])
      if (rounded[3 * at] === a && rounded[3 * at + 1] === b && rounded[3 * at + 2] === c) return at;
    const made = this.#count++;
    this.#source[made] = source;
    rounded[3 * made] = a;
    rounded[3 * made + 1] = b;
    rounded[3 * made + 2] = c;
    this.#normals[3 * made] = x;
    this.#normals[3 * made + 1] = y;
    this.#normals[3 * made + 2] = z;
    this.#next[made] = this.#heads[source];
    this.#heads[source] = made;
    return made;
  }
}

/** A mesh of some of another's vertices, any of them any number of times; faces and parts are left to the caller. */
export const pickedMesh = (mesh: Mesh, sources: ArrayLike<number>): Mesh => ({
  ...mesh,
  ...picked(MESH, mesh, 'vertex', sources),
  level: null,
  parts: null,
});
