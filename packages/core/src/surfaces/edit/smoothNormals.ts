import type { YieldNow } from '../../yieldNow';
import { pickColumns, pickedInTime } from '../../geometry/carrier';
import { faceCorners } from '../../geometry/topology/faceNormal';
import { MESH, type Mesh } from '../../geometry/mesh';
import { cross, type Vec3 } from '../../geometry/vec';
import { type Topology, topologyInTime } from '../../geometry/topology/topology';

const { fround, round, sqrt } = Math;

const NEVER: YieldNow = () => Promise.resolve();
/** Faces between two yields: a few milliseconds. */
export const CHUNK = 8192;

/** Angle between two vectors, radians. */
export function angleBetween(a: Vec3, b: Vec3): number {
  const side = cross(a, b);
  return Math.atan2(Math.hypot(...side), a[0] * b[0] + a[1] * b[1] + a[2] * b[2]);
}

/**
 * A mesh with normals made anew: soft where faces meet at less than a limit, hard elsewhere.
 * @param limit radians
 */
export async function withSoftNormals(mesh: Mesh, limit: number, yieldNow: YieldNow = NEVER): Promise<Mesh> {
  const topology = await topologyInTime(mesh, yieldNow);
  const { sources, normals, indices } = await softVertices(mesh.positions, topology, limit, yieldNow);
  const vertices = await pickedInTime(MESH, mesh, 'vertex', sources, yieldNow, ['normals']);
  return { ...mesh, ...vertices, normals, indices, level: null, parts: null };
}

/** Vertices made anew: as many at each old one as it has normals. */
export interface SoftVertices {
  /** n, the old vertex of each. */
  sources: Uint32Array;
  /** 3n unit vectors. */
  normals: Float32Array;
  /** The faces as they were, of new vertices. */
  indices: Uint32Array;
}

/**
 * The vertices of faces that are soft where they meet at less than a limit. Faces weigh by their angle at the vertex (Thürmer and
 * Wüthrich, Computing vertex normals from polygonal facets, Journal of Graphics Tools 3, 1998).
 * @param positions of the old vertices, metres
 * @param topology of the faces
 * @param limit radians
 */
export async function softVertices(
  positions: Float32Array,
  topology: Topology,
  limit: number,
  yieldNow: YieldNow,
): Promise<SoftVertices> {
  const { indices, weld } = topology;
  const { of } = weld;
  await yieldNow();
  const normals = new Float64Array(indices.length);
  await yieldNow();
  const weights = new Float64Array(indices.length);
  for (let c = 0; c < indices.length; c += 3) {
    if (c % (3 * CHUNK) === 0) await yieldNow();
    faceCorners(positions, 3 * indices[c], 3 * indices[c + 1], 3 * indices[c + 2], normals, c, weights, c);
  }
  const { starts, corners } = await topology.findFans(yieldNow);
  await yieldNow();

  const near = limit < Math.PI ? Math.cos(limit) - 1e-9 : -Infinity;
  const { soft, hard } = await softPlaces(normals, weights, starts, corners, limit, near, yieldNow);
  const made = new Vertices(of.length + hard, of.length);
  const outIndices = new Uint32Array(indices.length);
  // Where all is soft, a vertex has one normal whichever face asks.
  const only = new Int32Array(of.length).fill(-1);
  for (let corner = 0; corner < indices.length; corner++) {
    if (corner % (3 * CHUNK) === 0) await yieldNow();
    const vertex = indices[corner];
    let known = only[vertex];
    if (known < 0) {
      const place = 3 * of[vertex];
      if (soft[place] === soft[place])
        known = only[vertex] = made.add(vertex, soft[place], soft[place + 1], soft[place + 2]);
    }
    if (known >= 0) {
      outIndices[corner] = known;
      continue;
    }
    const place = of[vertex];
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
  await yieldNow();
  return { sources: made.sources, normals: made.normals, indices: outIndices };
}

/** Places of more corners than this are not looked through two by two. */
const MANY = 32;

/**
 * Normals of the places all of whose faces meet at less than a limit, as most do: those where no face is further than half of
 * it from all of them together, or than it from any other. @returns not a number where one may be, and how many corners lie there
 */
async function softPlaces(
  normals: Float64Array,
  weights: Float64Array,
  starts: Uint32Array,
  corners: Uint32Array,
  limit: number,
  near: number,
  yieldNow: YieldNow,
): Promise<{ soft: Float64Array; hard: number }> {
  const places = starts.length - 1;
  const out = new Float64Array(3 * places).fill(NaN);
  const half = Math.cos(Math.min(limit, Math.PI) / 2);
  let hard = corners.length;
  for (let place = 0; place < places; place++) {
    if (place % CHUNK === 0) await yieldNow();
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
    if (!isSoft && (end - starts[place] > MANY || !meetSoftly(normals, corners, starts[place], end, near))) continue;
    hard -= end - starts[place];
    out[3 * place] = x;
    out[3 * place + 1] = y;
    out[3 * place + 2] = z;
  }
  return { soft: out, hard };
}

/** Whether all faces at some corners meet at less than the angle of cosine `near`. */
function meetSoftly(normals: Float64Array, corners: Uint32Array, from: number, end: number, near: number): boolean {
  for (let i = from; i < end; i++) {
    const n = corners[i] - (corners[i] % 3);
    const x = normals[n];
    const y = normals[n + 1];
    const z = normals[n + 2];
    for (let k = i + 1; k < end; k++) {
      const m = corners[k] - (corners[k] % 3);
      if (normals[m] * x + normals[m + 1] * y + normals[m + 2] * z < near) return false;
    }
  }
  return true;
}

const rounded = (x: number): number => round(x * 1e4);

/** New vertices: one for each old one and each normal that it is given, rounded to a ten-thousandth. */
class Vertices {
  readonly #heads: Int32Array;
  readonly #next: Int32Array;
  readonly #source: Uint32Array;
  readonly #normals: Float32Array;
  #count = 0;

  constructor(most: number, old: number) {
    this.#heads = new Int32Array(old).fill(-1);
    this.#next = new Int32Array(most);
    this.#source = new Uint32Array(most);
    this.#normals = new Float32Array(3 * most);
  }

  get sources(): Uint32Array {
    return this.#source.subarray(0, this.#count);
  }

  get normals(): Float32Array {
    return this.#normals.slice(0, 3 * this.#count);
  }

  /** A vertex that has one normal. */
  add(source: number, x: number, y: number, z: number): number {
    const made = this.#count++;
    this.#source[made] = source;
    this.#normals[3 * made] = x;
    this.#normals[3 * made + 1] = y;
    this.#normals[3 * made + 2] = z;
    return made;
  }

  /** A vertex that may have several. */
  idOf(source: number, x: number, y: number, z: number): number {
    const normals = this.#normals;
    const a = rounded(fround(x));
    const b = rounded(fround(y));
    const c = rounded(fround(z));
    for (let at = this.#heads[source]; at >= 0; at = this.#next[at])
      if (rounded(normals[3 * at]) === a && rounded(normals[3 * at + 1]) === b && rounded(normals[3 * at + 2]) === c)
        return at;
    const made = this.add(source, x, y, z);
    this.#next[made] = this.#heads[source];
    this.#heads[source] = made;
    return made;
  }
}

/** A mesh of some of another's vertices, any of them any number of times; faces and parts are left to the caller. */
export const pickedMesh = (mesh: Mesh, sources: ArrayLike<number>): Mesh => ({
  ...mesh,
  ...pickColumns(MESH, mesh, 'vertex', sources),
  level: null,
  parts: null,
});
