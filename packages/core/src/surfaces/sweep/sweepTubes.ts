import { mapped } from '../../geometry/filled';
import { withFrames } from '../../curves/pathFrames';
import type { Attribute, Named } from '../../geometry/attributes';
import { type Mesh, meshWith } from '../../geometry/mesh';
import type { FramedPaths, Paths } from '../../geometry/paths';
import { circleProfile, type SweepProfile } from './sweepProfile';
import { EASY_BEND, emptyRing, isRound, isTight, type RingShape, writeRing } from './ringShape';
import { type Rings, type TubeShape, ringFaces, ringsOf } from './rings';
import { sweptIndices } from './sweptIndices';

/** What a sweep asks of its surroundings; all optional. */
export interface SweepHooks {
  /** Told vertices and faces before they are made; may throw. */
  claim?: (vertices: number, faces: number) => void;
  /** Awaited between paths. */
  yieldNow?: () => Promise<void>;
  /** Whether the distance behind the growing tip is asked for at each vertex; it is where this is left out. */
  tips?: boolean;
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
  const rings = await ringsOf(paths, shape, hooks.yieldNow);
  const { count, fills, start } = rings;
  const faces = ringFaces(rings, strips) + (fills.length * profile.cap.length) / 3;
  hooks.claim?.(count * columns, faces);

  await hooks.yieldNow?.();
  const mesh = allocate(count * columns, rings, paths, hooks.tips ?? true);
  await hooks.yieldNow?.();
  const perTurn = shape.radius > 0 ? 1 / (profile.round * shape.radius) : 1;
  let nextYield = PER_YIELD;
  for (let k = 0; k < rings.paths; k++) {
    mesh.parts[2 * k] = start[k] * columns;
    mesh.parts[2 * k + 1] = rings.id[k];
    writeVertices(mesh, rings, k, paths, profile, perTurn, roll);
    if (start[k + 1] * columns < nextYield) continue;
    nextYield = start[k + 1] * columns + PER_YIELD;
    await hooks.yieldNow?.();
  }
  await hooks.yieldNow?.();
  mesh.indices = await sweptIndices(rings, profile, faces, hooks.yieldNow);
  return mesh;
}

/** So many vertices between two yields. */
const PER_YIELD = 8192;

/** Empty arrays of a mesh, all in one piece of memory: that is asked for in half the time of many. */
function allocate(vertices: number, rings: Rings, paths: Paths, tips: boolean): SweptMesh {
  const widths = [3, 3, 2, 1, ...(tips ? [1] : []), ...(paths.age ? [1] : [])];
  const buffer = new ArrayBuffer(4 * vertices * widths.reduce((sum, width) => sum + width, 0));
  let from = 0;
  const floats = (width: number): Float32Array => {
    const array = new Float32Array(buffer, 4 * from * vertices, width * vertices);
    from += width;
    return array;
  };
  return {
    ...meshWith({
      positions: floats(3),
      normals: floats(3),
      uvs: floats(2),
      u: floats(1),
      tip: tips ? floats(1) : null,
      age: paths.age ? floats(1) : null,
      level: paths.level && mapped(Float32Array, rings.path.subarray(0, rings.paths), (path) => paths.level![path]),
      indices: NO_INDICES,
      named: sweptAttributes(paths, rings, vertices),
    }),
    parts: new Uint32Array(2 * rings.paths),
  } as SweptMesh;
}

const NO_INDICES = new Uint32Array(0);

/** A mesh that knows where on the path its vertices belong. */
type SweptMesh = Mesh & { u: Float32Array; parts: Uint32Array };

/** What points and paths know by names of their own, at the vertices and parts that they become. */
function sweptAttributes({ named }: Paths, { path, paths, point, count }: Rings, vertices: number): Named {
  const swept = Object.entries(named).map(([name, attribute]): [string, Attribute] => {
    const { width, values, domain } = attribute;
    const parts = domain === 'path';
    const [from, each] = parts ? [path, 1] : [point, count > 0 ? vertices / count : 0];
    const sources = parts ? paths : count;
    const out = new Float32Array(width * each * sources);
    let write = 0;
    for (let i = 0; i < sources; i++) {
      const read = width * from[i];
      for (let j = 0; j < each; j++) for (let c = 0; c < width; c++) out[write++] = values[read + c];
    }
    return [name, { ...attribute, domain: parts ? 'path' : 'vertex', values: out }];
  });
  return swept.length > 0 ? Object.fromEntries(swept) : named;
}

/** Writes all that is known of the vertices along path k. */
function writeVertices(
  mesh: SweptMesh,
  rings: Rings,
  k: number,
  paths: FramedPaths,
  profile: SweepProfile,
  perTurn: number,
  { roll, twist }: Roll,
): void {
  const { positions, normals, uvs, u, tip, age } = mesh;
  const { x: px, y: py, share, reach } = profile;
  const columns = share.length;
  const first = rings.start[k];
  const last = rings.start[k + 1];
  const far = rings.far[k];
  const near = rings.near[k];
  const { point, shift, radius, out: outs, ahead: aheads, arc: arcs, deep } = rings;
  const { positions: places, tangents: along, normals: beside, u: rest, lean, age: ages } = paths;
  const round = isRound(profile) && deep === null;
  const turning = lean !== null || roll !== 0 || twist !== 0;
  const low = paths.offsets[rings.path[k]] + 1;
  const high = paths.offsets[rings.path[k] + 1] - 2;
  const lengths = rings.along;
  const base = rings.alongFrom[k] - low + 1;
  // All of a vertex is written before the next one's: first touching memory takes longer than working it out.
  for (let i = first, v = first * columns; i < last; i++) {
    const at = point[i];
    const q = 3 * at;
    const tx = along[q];
    const ty = along[q + 1];
    const tz = along[q + 2];
    let nx = beside[q];
    let ny = beside[q + 1];
    let nz = beside[q + 2];
    let bx = ty * nz - tz * ny;
    let by = tz * nx - tx * nz;
    let bz = tx * ny - ty * nx;
    const here = i > first && at < point[i - 1] ? 1 : rest[at];
    if (turning) {
      const angle = roll + twist * here + (lean ? lean[at] : 0);
      const c = Math.cos(angle);
      const s = Math.sin(angle);
      const ux = nx * c + bx * s;
      const uy = ny * c + by * s;
      const uz = nz * c + bz * s;
      bx = bx * c - nx * s;
      by = by * c - ny * s;
      bz = bz * c - nz * s;
      nx = ux;
      ny = uy;
      nz = uz;
    }
    const r = radius[i];
    const out = outs[i];
    const ahead = aheads[i];
    const x = places[q] + shift[i] * tx;
    const y = places[q + 1] + shift[i] * ty;
    const z = places[q + 2] + shift[i] * tz;
    const arc = arcs[i];
    const away = arc * perTurn;
    const behind = Math.max(0, Math.min(far - arc, arc - near));
    const wide = Math.max(r, deep ?? r) * reach;
    let tight = true;
    // What most points are asked, at hand: whether the path turns so much from the one before to the one after.
    if (at > low && at < high) {
      const ex = along[q + 3] - along[q - 3];
      const ey = along[q + 4] - along[q - 2];
      const ez = along[q + 5] - along[q - 1];
      const run = EASY_BEND * (lengths[base + at + 1] - lengths[base + at - 1]);
      tight = (ex * ex + ey * ey + ez * ez) * wide * wide > run * run;
    }
    tight = tight && isTight(rings, k, at, paths, wide, ring.bend);
    if (round && !tight) {
      const ax = ahead * tx;
      const ay = ahead * ty;
      const az = ahead * tz;
      for (let j = 0, w = 3 * v; j < columns; j++, w += 3) {
        const c = px[j];
        const s = py[j];
        const ox = nx * c + bx * s;
        const oy = ny * c + by * s;
        const oz = nz * c + bz * s;
        positions[w] = x + r * ox;
        positions[w + 1] = y + r * oy;
        positions[w + 2] = z + r * oz;
        normals[w] = out * ox + ax;
        normals[w + 1] = out * oy + ay;
        normals[w + 2] = out * oz + az;
        uvs[2 * (v + j)] = share[j];
        uvs[2 * (v + j) + 1] = away;
        u[v + j] = here;
      }
    } else {
      ring.x = x;
      ring.y = y;
      ring.z = z;
      ring.nx = nx;
      ring.ny = ny;
      ring.nz = nz;
      ring.bx = bx;
      ring.by = by;
      ring.bz = bz;
      ring.tx = tx;
      ring.ty = ty;
      ring.tz = tz;
      ring.radius = r;
      ring.across = deep ?? r;
      ring.out = out;
      ring.ahead = ahead;
      writeRing(positions, normals, v, ring, tight, profile);
      for (let j = 0; j < columns; j++) {
        uvs[2 * (v + j)] = share[j];
        uvs[2 * (v + j) + 1] = away;
        u[v + j] = here;
      }
    }
    const end = v + columns;
    if (tip) for (let j = v; j < end; j++) tip[j] = behind;
    if (age) for (let j = v; j < end; j++) age[j] = ages![at];
    v = end;
  }
}

/** What `writeRing` is told of a ring, kept. */
const ring: RingShape = emptyRing();
