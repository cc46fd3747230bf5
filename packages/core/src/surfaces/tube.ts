import { withFrames } from '../curves/pathFrames';
import { type Mesh } from '../geometry/mesh';
import { type FramedPaths, type Paths, pathCount } from '../geometry/paths';
import { circleProfile, type SweepProfile } from './profile';
import { type Rings, type TubeShape, ringFaces, ringsOf } from './rings';

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
    faces += ringFaces(made, strips);
  }
  const vertices = rings * columns;
  hooks.claim?.(vertices, faces);

  const mesh = allocate(vertices, faces, all.length);
  const perTurn = shape.radius > 0 ? 1 / (2 * Math.PI * shape.radius) : 1;
  let vertex = 0;
  let index = 0;
  for (const [k, made] of all.entries()) {
    await hooks.breathe?.();
    mesh.parts[2 * k] = vertex;
    mesh.parts[2 * k + 1] = made.id;
    writeVertices(mesh, vertex, made, paths, profile, perTurn, roll);
    index = writeFaces(mesh.indices, index, vertex, made, profile.joined);
    vertex += made.count * columns;
  }
  return mesh;
}

/** Empty arrays of a mesh, all in one piece of memory: that is asked for in half the time of many. */
function allocate(vertices: number, faces: number, paths: number): SweptMesh {
  const buffer = new ArrayBuffer(4 * (10 * vertices + 3 * faces));
  const floats = (from: number, width: number): Float32Array =>
    new Float32Array(buffer, 4 * from * vertices, width * vertices);
  return {
    positions: floats(0, 3),
    normals: floats(3, 3),
    uvs: floats(6, 2),
    u: floats(8, 1),
    tip: floats(9, 1),
    parts: new Uint32Array(2 * paths),
    indices: new Uint32Array(buffer, 40 * vertices, 3 * faces),
    colors: null,
    glow: null,
  };
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
  const { x: px, y: py, nx: mx, ny: my, share } = profile;
  const columns = px.length;
  const turned = roll !== 0 || twist !== 0;
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
    if (turned) {
      const c = Math.cos(roll + twist * rest);
      const s = Math.sin(roll + twist * rest);
      [nx, bx] = [nx * c + bx * s, bx * c - nx * s];
      [ny, by] = [ny * c + by * s, by * c - ny * s];
      [nz, bz] = [nz * c + bz * s, bz * c - nz * s];
    }
    const shift = rings.shift[i];
    const x = places[q] + shift * tx;
    const y = places[q + 1] + shift * ty;
    const z = places[q + 2] + shift * tz;
    const r = rings.radius[i];
    const out = rings.out[i];
    const ahead = rings.ahead[i];
    const ax = ahead * tx;
    const ay = ahead * ty;
    const az = ahead * tz;
    const far = rings.arc[i] * perTurn;
    const behind = Math.max(0, rings.end - rings.arc[i]);
    for (let j = 0; j < columns; j++) {
      const cx = r * px[j];
      const cy = r * py[j];
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

function writeFaces(indices: Uint32Array, from: number, vertex: number, rings: Rings, strip: Uint8Array): number {
  let write = from;
  const columns = strip.length;
  for (let i = 1; i < rings.count; i++) {
    if (!rings.joined[i]) continue;
    const below = rings.radius[i - 1] > 0;
    const above = rings.radius[i] > 0;
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
