import { withFrames } from '../curves/pathFrames';
import { type Mesh } from '../geometry/mesh';
import { type FramedPaths, type Paths, pathCount } from '../geometry/paths';
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
export async function sweepTubes(input: Paths, shape: TubeShape, hooks: SweepHooks = {}): Promise<Mesh> {
  const paths = withFrames(input);
  const sides = shape.sides;
  const all: Rings[] = [];
  let rings = 0;
  let faces = 0;
  for (let p = 0; p < pathCount(paths); p++) {
    const made = ringsOf(paths, p, shape);
    if (!made) continue;
    all.push(made);
    rings += made.count;
    faces += ringFaces(made, sides);
  }
  const vertices = rings * (sides + 1);
  hooks.claim?.(vertices, faces);

  const mesh = allocate(vertices, faces);
  const around = circle(sides);
  const perTurn = shape.radius > 0 ? 1 / (2 * Math.PI * shape.radius) : 1;
  let vertex = 0;
  let index = 0;
  for (const made of all) {
    await hooks.breathe?.();
    writeVertices(mesh, vertex, made, paths, around, perTurn);
    index = writeFaces(mesh.indices, index, vertex, made, sides);
    vertex += made.count * (sides + 1);
  }
  return mesh;
}

/** Empty arrays of a mesh, all in one piece of memory: that is asked for in half the time of many. */
function allocate(vertices: number, faces: number): SweptMesh {
  const buffer = new ArrayBuffer(4 * (10 * vertices + 3 * faces));
  const floats = (from: number, width: number): Float32Array =>
    new Float32Array(buffer, 4 * from * vertices, width * vertices);
  return {
    positions: floats(0, 3),
    normals: floats(3, 3),
    uvs: floats(6, 2),
    u: floats(8, 1),
    tip: floats(9, 1),
    indices: new Uint32Array(buffer, 40 * vertices, 3 * faces),
    colors: null,
    glow: null,
  };
}

/** A mesh that knows where on the path its vertices belong. */
type SweptMesh = Mesh & { u: Float32Array; tip: Float32Array };

/** Cosine and sine around a circle, `sides` + 1 of each; the last is exactly the first. */
function circle(sides: number): { cos: Float64Array; sin: Float64Array } {
  const cos = new Float64Array(sides + 1);
  const sin = new Float64Array(sides + 1);
  for (let j = 0; j < sides; j++) {
    cos[j] = Math.cos((2 * Math.PI * j) / sides);
    sin[j] = Math.sin((2 * Math.PI * j) / sides);
  }
  cos[sides] = cos[0];
  sin[sides] = sin[0];
  return { cos, sin };
}

function writeVertices(
  mesh: SweptMesh,
  first: number,
  rings: Rings,
  paths: FramedPaths,
  around: { cos: Float64Array; sin: Float64Array },
  perTurn: number,
): void {
  const { positions, normals, uvs, u, tip } = mesh;
  const { cos, sin } = around;
  const columns = cos.length;
  const share = 1 / (columns - 1);
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
    const nx = beside[q];
    const ny = beside[q + 1];
    const nz = beside[q + 2];
    const bx = ty * nz - tz * ny;
    const by = tz * nx - tx * nz;
    const bz = tx * ny - ty * nx;
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
    const rest = i > 0 && point < rings.point[i - 1] ? 1 : paths.u[point];
    const behind = Math.max(0, rings.end - rings.arc[i]);
    for (let j = 0; j < columns; j++) {
      const c = cos[j];
      const s = sin[j];
      const dx = nx * c + bx * s;
      const dy = ny * c + by * s;
      const dz = nz * c + bz * s;
      positions[w] = x + r * dx;
      positions[w + 1] = y + r * dy;
      positions[w + 2] = z + r * dz;
      normals[w] = ax + out * dx;
      normals[w + 1] = ay + out * dy;
      normals[w + 2] = az + out * dz;
      uvs[2 * v] = j * share;
      uvs[2 * v + 1] = far;
      u[v] = rest;
      tip[v] = behind;
      v++;
      w += 3;
    }
  }
}

function writeFaces(indices: Uint32Array, from: number, vertex: number, rings: Rings, sides: number): number {
  let write = from;
  const columns = sides + 1;
  for (let i = 1; i < rings.count; i++) {
    if (!rings.joined[i]) continue;
    const below = rings.radius[i - 1] > 0;
    const above = rings.radius[i] > 0;
    let a = vertex + (i - 1) * columns;
    let c = a + columns;
    for (let j = 0; j < sides; j++, a++, c++) {
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
