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

  const mesh = {
    positions: new Float32Array(3 * vertices),
    normals: new Float32Array(3 * vertices),
    uvs: new Float32Array(2 * vertices),
    indices: new Uint32Array(3 * faces),
    u: new Float32Array(vertices),
    tip: new Float32Array(vertices),
    colors: null,
    glow: null,
  } satisfies Mesh;
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
  mesh: { positions: Float32Array; normals: Float32Array; uvs: Float32Array; u: Float32Array; tip: Float32Array },
  first: number,
  rings: Rings,
  paths: FramedPaths,
  around: { cos: Float64Array; sin: Float64Array },
  perTurn: number,
): void {
  const { positions, normals, uvs, u, tip } = mesh;
  const { cos, sin } = around;
  const columns = cos.length;
  let v = first;
  for (let i = 0; i < rings.count; i++) {
    const q = 3 * rings.point[i];
    const [tx, ty, tz] = [paths.tangents[q], paths.tangents[q + 1], paths.tangents[q + 2]];
    const [nx, ny, nz] = [paths.normals[q], paths.normals[q + 1], paths.normals[q + 2]];
    const [bx, by, bz] = [ty * nz - tz * ny, tz * nx - tx * nz, tx * ny - ty * nx];
    const shift = rings.shift[i];
    const x = paths.positions[q] + shift * tx;
    const y = paths.positions[q + 1] + shift * ty;
    const z = paths.positions[q + 2] + shift * tz;
    const r = rings.radius[i];
    const out = rings.out[i];
    const ahead = rings.ahead[i];
    const along = rings.arc[i] * perTurn;
    const rest = i > 0 && rings.point[i] < rings.point[i - 1] ? 1 : paths.u[rings.point[i]];
    const behind = rings.tip[i];
    for (let j = 0; j < columns; j++) {
      const c = cos[j];
      const s = sin[j];
      const dx = nx * c + bx * s;
      const dy = ny * c + by * s;
      const dz = nz * c + bz * s;
      const w = 3 * v;
      positions[w] = x + r * dx;
      positions[w + 1] = y + r * dy;
      positions[w + 2] = z + r * dz;
      normals[w] = out * dx + ahead * tx;
      normals[w + 1] = out * dy + ahead * ty;
      normals[w + 2] = out * dz + ahead * tz;
      uvs[2 * v] = j / (columns - 1);
      uvs[2 * v + 1] = along;
      u[v] = rest;
      tip[v] = behind;
      v++;
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
