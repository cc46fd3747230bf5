import type { YieldNow } from '../../yieldNow';
import { filled, mapped } from '../../geometry/filled';
import type { Attributed } from '../../geometry/attributes';
import { Carrier } from '../../geometry/carrier';
import { facesFrom } from '../../geometry/topology/faceAttributes';
import { MESH, type Mesh } from '../../geometry/mesh';
import { at, unit } from '../../geometry/vec';
import { topologyInTime } from '../../geometry/topology/topology';
import { EdgeTable } from '../../geometry/topology/weld';
import { angleBetween, CHUNK, pickedMesh, withSoftNormals } from './smoothNormals';

/** Places, what they carry, and faces of any number of corners, in flat arrays. */
interface Polygons {
  /** 3n, metres. */
  places: Float64Array;
  /** What places have besides. */
  carried: Attributed<typeof MESH>;
  /** Corners of all faces, one face after another. */
  corners: Uint32Array;
  /** f + 1, where each face begins. */
  starts: Uint32Array;
  /** f, the face of the mesh that each is a part of. */
  sources: Uint32Array;
  /** Whether an edge stays sharp. */
  sharp: (a: number, b: number) => boolean;
}

/**
 * Subdivides a mesh by the rule of Catmull and Clark (Recursively generated B-spline surfaces on arbitrary topological
 * meshes, Computer-Aided Design 10, 1978); edges sharper than a limit, and open ones, stay creases (DeRose, Kass and
 * Truong, Subdivision surfaces in character animation, SIGGRAPH 1998).
 * @param levels how many times, 1 or more
 * @param crease radians; π keeps no crease but open edges
 */
export async function subdivideMesh(
  mesh: Mesh,
  levels: number,
  crease: number,
  yieldNow: YieldNow = () => Promise.resolve(),
): Promise<Mesh> {
  let polygons = await polygonsOf(mesh, crease, yieldNow);
  for (let level = 0; level < levels; level++) polygons = await refined(polygons, yieldNow);
  const { places, carried, corners, sources } = polygons;
  await yieldNow();
  const positions = new Float32Array(places);
  await yieldNow();
  const flat: Mesh = {
    ...carried,
    parts: null,
    level: null,
    positions,
    normals: new Float32Array(places.length),
    // Every face has four corners now.
    indices: new Uint32Array((corners.length / 4) * 6),
  };
  const { indices } = flat;
  for (let q = 0, i = 0; q < corners.length; q += 4, i += 6) {
    if (q % (4 * CHUNK) === 0) await yieldNow();
    indices[i] = indices[i + 3] = corners[q];
    indices[i + 1] = corners[q + 1];
    indices[i + 2] = indices[i + 4] = corners[q + 2];
    indices[i + 5] = corners[q + 3];
  }
  await yieldNow();
  const halves = filled(Uint32Array, corners.length / 2, (f) => sources[f >> 1]);
  await yieldNow();
  const known = facesFrom(flat, halves);
  return withSoftNormals(known, Math.min(crease, Math.PI), yieldNow);
}

/** The faces of a mesh, triangles put together to quadrangles where they were halves of one. */
async function polygonsOf(mesh: Mesh, crease: number, yieldNow: YieldNow): Promise<Polygons> {
  const topology = await topologyInTime(mesh, yieldNow);
  const picked = pickedMesh(mesh, topology.weld.first);
  const places = Float64Array.from(picked.positions);
  const { corners, starts, sources: of } = await quadrangles(topology.corners, places, yieldNow);
  const sources = mapped(Uint32Array, of, (f) => topology.faces[f]);
  const { table, left, right, count } = await sidesOf(corners, starts, yieldNow);
  const normals = await ringNormals(corners, starts, places, yieldNow);
  const isSharp = new Uint8Array(table.count);
  for (let e = 0; e < table.count; e++) {
    if (e % CHUNK === 0) await yieldNow();
    isSharp[e] = count[e] !== 2 || angleBetween(at(normals, left[e]), at(normals, right[e])) > crease ? 1 : 0;
  }
  return { places, carried: picked, corners, starts, sources, sharp: (a, b) => isSharp[table.idOf(a, b)] === 1 };
}

/** The edges of faces: their numbers at each corner (towards the next), and the faces at each: two of them, and how many. */
async function sidesOf(corners: Uint32Array, starts: Uint32Array, yieldNow: YieldNow) {
  const table = new EdgeTable(corners.length);
  const edges = new Uint32Array(corners.length);
  const left = new Uint32Array(corners.length);
  const right = new Uint32Array(corners.length);
  const count = new Uint32Array(corners.length);
  for (let f = 0; f + 1 < starts.length; f++) {
    if (f % CHUNK === 0) await yieldNow();
    for (let c = starts[f]; c < starts[f + 1]; c++) {
      const e = table.idOf(corners[c], corners[c + 1 < starts[f + 1] ? c + 1 : starts[f]]);
      edges[c] = e;
      if (count[e]++ === 0) left[e] = f;
      else if (count[e] === 2) right[e] = f;
    }
  }
  return { table, edges, left, right, count };
}

/** Unit normals of rings of corners (Newell's method). */
async function ringNormals(
  corners: Uint32Array,
  starts: Uint32Array,
  places: Float64Array,
  yieldNow: YieldNow,
): Promise<Float64Array> {
  const normals = new Float64Array(3 * (starts.length - 1));
  for (let f = 0; f + 1 < starts.length; f++) {
    if (f % CHUNK === 0) await yieldNow();
    let x = 0;
    let y = 0;
    let z = 0;
    for (let c = starts[f]; c < starts[f + 1]; c++) {
      const a = 3 * corners[c];
      const b = 3 * corners[c + 1 < starts[f + 1] ? c + 1 : starts[f]];
      x += places[a + 1] * places[b + 2] - places[a + 2] * places[b + 1];
      y += places[a + 2] * places[b] - places[a] * places[b + 2];
      z += places[a] * places[b + 1] - places[a + 1] * places[b];
    }
    normals.set(unit([x, y, z]), 3 * f);
  }
  return normals;
}

/** Puts pairs of triangles together that share the longest side of both and lie nearly in one plane, within 11.5°: sides of what is swept are no flatter. */
async function quadrangles(
  triangles: Uint32Array,
  places: Float64Array,
  yieldNow: YieldNow,
): Promise<Pick<Polygons, 'corners' | 'starts' | 'sources'>> {
  const n = triangles.length / 3;
  const starts = filled(Uint32Array, n + 1, (f) => 3 * f);
  const normals = await ringNormals(triangles, starts, places, yieldNow);
  const { table, left, right, count } = await sidesOf(triangles, starts, yieldNow);
  const length = (a: number, b: number): number => {
    const x = places[3 * a] - places[3 * b];
    const y = places[3 * a + 1] - places[3 * b + 1];
    const z = places[3 * a + 2] - places[3 * b + 2];
    return Math.sqrt(x * x + y * y + z * z);
  };
  const longest = new Float64Array(n);
  for (let f = 0, c = 0; f < n; f++, c += 3) {
    if (f % CHUNK === 0) await yieldNow();
    const [p, q, r] = [triangles[c], triangles[c + 1], triangles[c + 2]];
    longest[f] = Math.max(length(p, q), length(q, r), length(r, p));
  }
  const taken = new Uint8Array(n);
  const corners = new Uint32Array(3 * n);
  const begins = new Uint32Array(n + 1);
  const sources = new Uint32Array(n);
  let made = 0;
  let write = 0;
  const close = (from: number): void => {
    sources[made++] = from;
    begins[made] = write;
  };
  // Which corner of a triangle is neither end of an edge.
  const away = (triangle: number, a: number, b: number): number => {
    for (let k = 0; k < 2; k++) {
      const corner = triangles[3 * triangle + k];
      if (corner !== a && corner !== b) return k;
    }
    return 2;
  };
  for (let e = 0; e < table.count; e++) {
    if (e % CHUNK === 0) await yieldNow();
    const f = left[e];
    const g = right[e];
    if (count[e] !== 2 || taken[f] || taken[g]) continue;
    const u = 3 * f;
    const v = 3 * g;
    if (normals[u] * normals[v] + normals[u + 1] * normals[v + 1] + normals[u + 2] * normals[v + 2] < 0.98) continue;
    const a = table.ends[2 * e];
    const b = table.ends[2 * e + 1];
    if (length(a, b) < (1 - 1e-6) * Math.max(longest[f], longest[g])) continue;
    const k = away(f, a, b);
    taken[f] = taken[g] = 1;
    corners[write++] = triangles[u + k];
    corners[write++] = triangles[u + ((k + 1) % 3)];
    corners[write++] = triangles[v + away(g, a, b)];
    corners[write++] = triangles[u + ((k + 2) % 3)];
    close(f);
  }
  for (let f = 0; f < n; f++) {
    if (f % CHUNK === 0) await yieldNow();
    if (taken[f]) continue;
    for (let k = 0; k < 3; k++) corners[write++] = triangles[3 * f + k];
    close(f);
  }
  return {
    corners: corners.slice(0, write),
    starts: begins.slice(0, made + 1),
    sources: sources.slice(0, made),
  };
}

/** One round of the rule. Old places keep their numbers; those of edges and then of faces follow. */
async function refined(
  { places, carried, corners, starts, sources, sharp }: Polygons,
  yieldNow: YieldNow,
): Promise<Polygons> {
  await yieldNow();
  const [n, faces] = [places.length / 3, starts.length - 1];
  const { table, edges, left, right } = await sidesOf(corners, starts, yieldNow);
  const { ends, count: m } = table;
  await yieldNow();
  const isSharp = new Uint8Array(m);
  for (let e = 0; e < m; e++) {
    if (e % CHUNK === 0) await yieldNow();
    isSharp[e] = sharp(ends[2 * e], ends[2 * e + 1]) ? 1 : 0;
  }
  const next = new Float64Array(3 * (n + m + faces));

  // For each place what stands round it: edges, middles, faces, centres, and creases with their far ends.
  const [around, near, creased] = [new Uint32Array(n), new Uint32Array(n), new Uint32Array(n)];
  const [middles, centres, far] = [new Float64Array(3 * n), new Float64Array(3 * n), new Float64Array(3 * n)];
  for (let f = 0; f < faces; f++) {
    if (f % CHUNK === 0) await yieldNow();
    const [from, to] = [starts[f], starts[f + 1]];
    for (let c = 0; c < 3; c++) {
      let sum = 0;
      for (let k = from; k < to; k++) sum += places[3 * corners[k] + c];
      const centre = sum * (1 / (to - from));
      next[3 * (n + m + f) + c] = centre;
      for (let k = from; k < to; k++) centres[3 * corners[k] + c] += centre;
    }
    for (let k = from; k < to; k++) near[corners[k]]++;
  }
  for (let e = 0; e < m; e++) {
    if (e % CHUNK === 0) await yieldNow();
    const [a, b] = [ends[2 * e], ends[2 * e + 1]];
    around[a]++;
    around[b]++;
    if (isSharp[e]) {
      creased[a]++;
      creased[b]++;
    }
    const [f, g] = [3 * (n + m + left[e]), 3 * (n + m + right[e])];
    for (let c = 0; c < 3; c++) {
      const [p, q] = [places[3 * a + c], places[3 * b + c]];
      const middle = (p + q) * 0.5;
      middles[3 * a + c] += middle;
      middles[3 * b + c] += middle;
      if (isSharp[e]) {
        far[3 * a + c] += q;
        far[3 * b + c] += p;
      }
      // An edge that is not sharp lies in two faces.
      next[3 * (n + e) + c] = isSharp[e] ? middle : (p + q + next[f + c] + next[g + c]) * 0.25;
    }
  }
  for (let i = 0; i < n; i++) {
    if (i % CHUNK === 0) await yieldNow();
    const [k, creases] = [around[i], creased[i]];
    for (let c = 3 * i; c < 3 * i + 3; c++) {
      if (k === 0 || creases > 2) next[c] = places[c];
      else if (creases === 2) next[c] = (far[c] + places[c] * 6) * (1 / 8);
      else next[c] = (centres[c] * (1 / near[i]) + middles[c] * (1 / k) * 2 + places[c] * (k - 3)) * (1 / k);
    }
  }

  const quads = new Uint32Array(4 * corners.length);
  const parts = new Uint32Array(corners.length);
  for (let f = 0; f < faces; f++) {
    if (f % CHUNK === 0) await yieldNow();
    for (let k = starts[f]; k < starts[f + 1]; k++) {
      const before = k > starts[f] ? k - 1 : starts[f + 1] - 1;
      quads[4 * k] = corners[k];
      quads[4 * k + 1] = n + edges[k];
      quads[4 * k + 2] = n + m + f;
      quads[4 * k + 3] = n + edges[before];
      parts[k] = sources[f];
    }
  }
  await yieldNow();
  return {
    places: next,
    carried: await spread(carried, corners, starts, ends, m, n, yieldNow),
    corners: quads,
    starts: filled(Uint32Array, corners.length + 1, (q) => 4 * q),
    sources: parts,
    // Both halves of a sharp edge are sharp.
    sharp: (a, b) => {
      const [low, high] = a < b ? [a, b] : [b, a];
      return low < n && high >= n && high < n + m && isSharp[high - n] === 1;
    },
  };
}

/** What new places carry: old ones the same, those of edges and faces the mean of their corners. */
async function spread(
  carried: Attributed<typeof MESH>,
  corners: Uint32Array,
  starts: Uint32Array,
  ends: Uint32Array,
  m: number,
  n: number,
  yieldNow: YieldNow,
): Promise<Attributed<typeof MESH>> {
  const faces = starts.length - 1;
  // Places and normals are made by the rule itself.
  const rows = new Carrier(MESH, carried, 'vertex', n + m + faces, ['positions', 'normals']);
  rows.run(0, n, 0);
  for (let e = 0; e < m; e++) {
    if (e % CHUNK === 0) await yieldNow();
    rows.mix(ends[2 * e], ends[2 * e + 1], 0.5, n + e);
  }
  let even = new Float64Array(0);
  for (let f = 0; f < faces; f++) {
    if (f % CHUNK === 0) await yieldNow();
    const k = starts[f + 1] - starts[f];
    if (even.length !== k) even = new Float64Array(k).fill(1 / k);
    rows.weigh(corners.subarray(starts[f], starts[f + 1]), even, n + m + f);
  }
  return { ...carried, ...rows.result() };
}
