import { withFrames } from '../curves/pathFrames';
import { type Mesh, meshWith } from '../geometry/mesh';
import { type FramedPaths, type Paths, pathCount } from '../geometry/paths';
import { circleProfile, type SweepProfile } from './profile';
import { hasExtent, type Rings, type TubeShape, ringFaces, ringsOf } from './rings';

/** What a sweep asks of its surroundings; all optional. */
export interface SweepHooks {
  /** Told vertices and faces before they are made; may throw. */
  claim?: (vertices: number, faces: number) => void;
  /** Awaited between paths. */
  breathe?: () => Promise<void>;
}

/**
 * Sweeps a circle along paths into one mesh of closed, outward-facing tubes. Rings stand square to the path in frames
 * carried without twist; closed paths are sealed with an exact copy of their first ring.
 */
export const sweepTubes = (input: Paths, shape: TubeShape, hooks: SweepHooks = {}): Promise<Mesh> =>
  sweepProfile(input, circleProfile(shape.sides), shape, hooks);

/** How a profile is turned about the path. */
export interface Roll {
  /** Everywhere alike, radians. */
  roll: number;
  /** More over the whole rest length, radians. */
  twist: number;
}

const NO_ROLL: Roll = { roll: 0, twist: 0 };

/** Sweeps any profile along paths, as `sweepTubes` does a circle; the profile stands square to the path everywhere. */
export async function sweepProfile(
  input: Paths,
  profile: SweepProfile,
  shape: TubeShape,
  hooks: SweepHooks = {},
  roll: Roll = NO_ROLL,
): Promise<Mesh> {
  const paths = withFrames(input);
  const columns = profile.x.length;
  const strips = profile.joined.reduce((sum, joined) => sum + joined, 0);
  const all: Rings[] = [];
  let rings = 0;
  let faces = 0;
  for (let p = 0; p < pathCount(paths); p++) {
    const made = ringsOf(paths, p, shape);
    if (!made) continue;
    all.push(made);
    rings += made.count;
    faces += ringFaces(made, strips) + (made.fills.length * profile.cap.length) / 3;
  }
  const vertices = rings * columns;
  hooks.claim?.(vertices, faces);

  const mesh = allocate(vertices, faces, all.length);
  if (paths.age) mesh.age = new Float32Array(vertices);
  if (paths.level) mesh.level = Float32Array.from(all, ({ path }) => paths.level![path]);
  const perTurn = shape.radius > 0 ? 1 / (profile.round * shape.radius) : 1;
  let vertex = 0;
  let index = 0;
  for (const [k, made] of all.entries()) {
    await hooks.breathe?.();
    mesh.parts[2 * k] = vertex;
    mesh.parts[2 * k + 1] = made.id;
    writeVertices(mesh, vertex, made, paths, profile, perTurn, roll);
    index = writeFaces(mesh.indices, index, vertex, made, profile.joined);
    index = writeFills(mesh.indices, index, vertex, made, profile);
    vertex += made.count * columns;
  }
  return mesh;
}

/** Empty arrays of a mesh, all in one piece of memory: that is asked for in half the time of many. */
function allocate(vertices: number, faces: number, paths: number): SweptMesh {
  const buffer = new ArrayBuffer(4 * (10 * vertices + 3 * faces));
  const floats = (from: number, width: number): Float32Array =>
    new Float32Array(buffer, 4 * from * vertices, width * vertices);
  return meshWith({
    positions: floats(0, 3),
    normals: floats(3, 3),
    uvs: floats(6, 2),
    u: floats(8, 1),
    tip: floats(9, 1),
    parts: new Uint32Array(2 * paths),
    indices: new Uint32Array(buffer, 40 * vertices, 3 * faces),
  }) as SweptMesh;
}

/** A mesh that knows where on the path its vertices belong. */
type SweptMesh = Mesh & { u: Float32Array; tip: Float32Array; parts: Uint32Array };

function writeVertices(
  mesh: SweptMesh,
  first: number,
  rings: Rings,
  paths: FramedPaths,
  profile: SweepProfile,
  perTurn: number,
  { roll, twist }: Roll,
): void {
  const { positions, normals, uvs, u, tip } = mesh;
  const { x: px, y: py, nx: mx, ny: my, share, reach } = profile;
  const columns = px.length;
  const { lean } = paths;
  const bend: [number, number, number] = [0, 0, 0];
  const places = paths.positions;
  const along = paths.tangents;
  const beside = paths.normals;
  let v = first;
  let w = 3 * first;
  for (let i = 0; i < rings.count; i++) {
    const point = rings.point[i];
    const q = 3 * point;
    const tx = along[q];
    const ty = along[q + 1];
    const tz = along[q + 2];
    let nx = beside[q];
    let ny = beside[q + 1];
    let nz = beside[q + 2];
    let bx = ty * nz - tz * ny;
    let by = tz * nx - tx * nz;
    let bz = tx * ny - ty * nx;
    const rest = i > 0 && point < rings.point[i - 1] ? 1 : paths.u[point];
    const angle = roll + twist * rest + (lean ? lean[point] : 0);
    if (angle !== 0) {
      const c = Math.cos(angle);
      const s = Math.sin(angle);
      [nx, bx] = [nx * c + bx * s, bx * c - nx * s];
      [ny, by] = [ny * c + by * s, by * c - ny * s];
      [nz, bz] = [nz * c + bz * s, bz * c - nz * s];
    }
    const shift = rings.shift[i];
    const x = places[q] + shift * tx;
    const y = places[q + 1] + shift * ty;
    const z = places[q + 2] + shift * tz;
    const r = rings.radius[i];
    const across = rings.deep ?? r;
    const tight = bendAt(rings, point, paths, bend) * Math.max(r, across) * reach > EASY_BEND;
    const kn = bend[0] * nx + bend[1] * ny + bend[2] * nz;
    const kb = bend[0] * bx + bend[1] * by + bend[2] * bz;
    const out = rings.out[i];
    const ahead = rings.ahead[i];
    const ax = ahead * tx;
    const ay = ahead * ty;
    const az = ahead * tz;
    const far = rings.arc[i] * perTurn;
    const behind = Math.max(0, Math.min(rings.far - rings.arc[i], rings.arc[i] - rings.near));
    if (mesh.age) mesh.age.fill(paths.age![point], v, v + columns);
    for (let j = 0; j < columns; j++) {
      let cx = r * px[j];
      let cy = across * py[j];
      if (tight) {
        const inward = cx * kn + cy * kb;
        if (inward > EASY_BEND) {
          const less = (inward - heldIn(inward)) / (kn * kn + kb * kb);
          cx -= less * kn;
          cy -= less * kb;
        }
      }
      positions[w] = x + nx * cx + bx * cy;
      positions[w + 1] = y + ny * cx + by * cy;
      positions[w + 2] = z + nz * cx + bz * cy;
      const ox = out * mx[j];
      const oy = out * my[j];
      normals[w] = ax + nx * ox + bx * oy;
      normals[w + 1] = ay + ny * ox + by * oy;
      normals[w + 2] = az + nz * ox + bz * oy;
      uvs[2 * v] = share[j];
      uvs[2 * v + 1] = far;
      u[v] = rest;
      tip[v] = behind;
      v++;
      w += 3;
    }
  }
}

/** Share of the bend's radius up to which a profile stays as it is. */
const EASY_BEND = 0.7;

/**
 * How far towards the centre of a bend a place may lie, as a share of the bend's radius: as it is up to `EASY_BEND`,
 * then ever less, and never to the centre itself, where neighbouring rings would cut through each other.
 */
const heldIn = (inward: number): number =>
  EASY_BEND + (0.96 - EASY_BEND) * (1 - Math.exp((EASY_BEND - inward) / (0.96 - EASY_BEND)));

/** The bend at a path's point: change of the tangent per metre, by its neighbours. Gives its size, 1 / radius. */
function bendAt(
  { first, last, closed }: Rings,
  point: number,
  paths: FramedPaths,
  bend: [number, number, number],
): number {
  const { positions, tangents } = paths;
  const before = point > first ? point - 1 : closed ? last : point;
  const after = point < last ? point + 1 : closed ? first : point;
  const run = apart(positions, before, point) + apart(positions, point, after);
  if (!(run > 0)) return bend.fill(0)[0];
  for (let c = 0; c < 3; c++) bend[c] = (tangents[3 * after + c] - tangents[3 * before + c]) / run;
  return Math.sqrt(bend[0] * bend[0] + bend[1] * bend[1] + bend[2] * bend[2]);
}

function apart(positions: Float32Array, i: number, j: number): number {
  const x = positions[3 * j] - positions[3 * i];
  const y = positions[3 * j + 1] - positions[3 * i + 1];
  const z = positions[3 * j + 2] - positions[3 * i + 2];
  return Math.sqrt(x * x + y * y + z * z);
}

function writeFaces(indices: Uint32Array, from: number, vertex: number, rings: Rings, strip: Uint8Array): number {
  let write = from;
  const columns = strip.length;
  for (let i = 1; i < rings.count; i++) {
    if (!rings.joined[i]) continue;
    const below = hasExtent(rings, i - 1);
    const above = hasExtent(rings, i);
    let a = vertex + (i - 1) * columns;
    let c = a + columns;
    for (let j = 1; j < columns; j++, a++, c++) {
      if (!strip[j]) continue;
      if (below) {
        indices[write] = a;
        indices[write + 1] = a + 1;
        indices[write + 2] = c;
        write += 3;
      }
      if (above) {
        indices[write] = a + 1;
        indices[write + 1] = c + 1;
        indices[write + 2] = c;
        write += 3;
      }
    }
  }
  return write;
}

function writeFills(
  indices: Uint32Array,
  from: number,
  vertex: number,
  rings: Rings,
  { x, cap }: SweepProfile,
): number {
  let write = from;
  for (const { ring, way } of rings.fills) {
    const first = vertex + ring * x.length;
    for (let t = 0; t < cap.length; t += 3) {
      indices[write] = first + cap[t];
      indices[write + 1] = first + cap[t + (way > 0 ? 1 : 2)];
      indices[write + 2] = first + cap[t + (way > 0 ? 2 : 1)];
      write += 3;
    }
  }
  return write;
}
