import { mapped } from '../geometry/filled';
import { withFrames } from '../curves/pathFrames';
import type { Attribute, Named } from '../geometry/attributes';
import { type Mesh, meshWith } from '../geometry/mesh';
import type { FramedPaths, Paths } from '../geometry/paths';
import { circleProfile, type SweepProfile } from './profile';
import { type Rings, type TubeShape, ringFaces, ringsOf } from './rings';
import { sweptIndices } from './sweptIndices';

/** What a sweep asks of its surroundings; all optional. */
export interface SweepHooks {
  /** Told vertices and faces before they are made; may throw. */
  claim?: (vertices: number, faces: number) => void;
  /** Awaited between paths. */
  breathe?: () => Promise<void>;
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
  const rings = await ringsOf(paths, shape, hooks.breathe);
  const { count, fills, start } = rings;
  const faces = ringFaces(rings, strips) + (fills.length * profile.cap.length) / 3;
  hooks.claim?.(count * columns, faces);

  await hooks.breathe?.();
  const mesh = allocate(count * columns, rings, paths, hooks.tips ?? true);
  await hooks.breathe?.();
  const perTurn = shape.radius > 0 ? 1 / (profile.round * shape.radius) : 1;
  let breath = BREATH;
  for (let k = 0; k < rings.paths; k++) {
    mesh.parts[2 * k] = start[k] * columns;
    mesh.parts[2 * k + 1] = rings.id[k];
    writeVertices(mesh, rings, k, paths, profile, perTurn, roll);
    if (start[k + 1] * columns < breath) continue;
    breath = start[k + 1] * columns + BREATH;
    await hooks.breathe?.();
  }
  await hooks.breathe?.();
  mesh.indices = await sweptIndices(rings, profile, faces, hooks.breathe);
  return mesh;
}

/** So many vertices between two breaths. */
const BREATH = 8192;

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

function writeVertices(
  mesh: SweptMesh,
  rings: Rings,
  k: number,
  paths: FramedPaths,
  profile: SweepProfile,
  perTurn: number,
  roll: Roll,
): void {
  const { uvs, u, tip, age } = mesh;
  const { share } = profile;
  const columns = share.length;
  const first = rings.start[k];
  const last = rings.start[k + 1];
  const far = rings.far[k];
  const near = rings.near[k];
  const frames = ringFrames(rings, k, paths, profile, roll);
  writePlaces(mesh.positions, mesh.normals, first * columns, frames, last - first, profile);
  for (let i = first, v = first * columns, f = 0; i < last; i++, f += STRIDE) {
    const arc = rings.arc[i];
    const away = arc * perTurn;
    const rest = frames[f + REST];
    const end = v + columns;
    for (let j = 0; j < columns; j++) {
      uvs[2 * (v + j)] = share[j];
      uvs[2 * (v + j) + 1] = away;
      u[v + j] = rest;
    }
    if (tip) {
      const behind = Math.max(0, Math.min(far - arc, arc - near));
      for (let j = v; j < end; j++) tip[j] = behind;
    }
    if (age) for (let j = v; j < end; j++) age[j] = paths.age![rings.point[i]];
    v = end;
  }
}

/** Numbers of a ring in `ringFrames`: centre, both directions across, the way its normals lean, and these. */
const STRIDE = 20;
const [RADIUS, ACROSS, OUT, REST, SHAPE, BEND_N, BEND_B, AHEAD] = [12, 13, 14, 15, 16, 17, 18, 19];
/** Shapes of rings: a circle square to its path, any other, one that a bend has to hold in. */
const [CIRCLE, PLAIN, TIGHT] = [0, 1, 2];

/** Memory of `ringFrames`, kept: a path's rings are done with before the next one's are made. */
let kept = new Float64Array(0);

/** Where each ring of a path lies and which way it is turned, `STRIDE` numbers a ring: all that its vertices have in common. */
function ringFrames(
  rings: Rings,
  k: number,
  paths: FramedPaths,
  { x: px, nx: mx, ny: my, y: py, reach }: SweepProfile,
  { roll, twist }: Roll,
): Float64Array {
  const first = rings.start[k];
  const end = rings.start[k + 1];
  const count = end - first;
  if (kept.length < STRIDE * count) kept = new Float64Array(2 * STRIDE * count);
  const frames = kept;
  const { point, shift, radius, out: outs, ahead: aheads, deep } = rings;
  const { positions: places, tangents: along, normals: beside, u: rest, lean } = paths;
  // On a circle the normals are the places: most tubes are that.
  const round = mx === px && my === py;
  const turning = lean !== null || roll !== 0 || twist !== 0;
  for (let i = first, f = 0; i < end; i++, f += STRIDE) {
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
      const [ux, uy, uz] = [nx * c + bx * s, ny * c + by * s, nz * c + bz * s];
      bx = bx * c - nx * s;
      by = by * c - ny * s;
      bz = bz * c - nz * s;
      nx = ux;
      ny = uy;
      nz = uz;
    }
    const r = radius[i];
    const across = deep ?? r;
    frames[f] = places[q] + shift[i] * tx;
    frames[f + 1] = places[q + 1] + shift[i] * ty;
    frames[f + 2] = places[q + 2] + shift[i] * tz;
    frames[f + 3] = nx;
    frames[f + 4] = ny;
    frames[f + 5] = nz;
    frames[f + 6] = bx;
    frames[f + 7] = by;
    frames[f + 8] = bz;
    frames[f + 9] = aheads[i] * tx;
    frames[f + 10] = aheads[i] * ty;
    frames[f + 11] = aheads[i] * tz;
    frames[f + RADIUS] = r;
    frames[f + ACROSS] = across;
    frames[f + OUT] = outs[i];
    frames[f + AHEAD] = aheads[i];
    frames[f + REST] = here;
    frames[f + SHAPE] = round && outs[i] === 1 && aheads[i] === 0 && across === r ? CIRCLE : PLAIN;
    if (isTight(rings, k, at, paths, Math.max(r, across) * reach, bend)) {
      frames[f + SHAPE] = TIGHT;
      frames[f + BEND_N] = bend[0] * nx + bend[1] * ny + bend[2] * nz;
      frames[f + BEND_B] = bend[0] * bx + bend[1] * by + bend[2] * bz;
    }
  }
  return frames;
}

const bend: [number, number, number] = [0, 0, 0];

/** Positions and normals of all vertices of a path's rings. */
function writePlaces(
  positions: Float32Array,
  normals: Float32Array,
  first: number,
  frames: Float64Array,
  count: number,
  { x: px, y: py, nx: mx, ny: my }: SweepProfile,
): void {
  const columns = px.length;
  const circle = mx === px && my === py;
  let w = 3 * first;
  for (let i = 0, f = 0; i < count; i++, f += STRIDE) {
    const x = frames[f];
    const y = frames[f + 1];
    const z = frames[f + 2];
    const nx = frames[f + 3];
    const ny = frames[f + 4];
    const nz = frames[f + 5];
    const bx = frames[f + 6];
    const by = frames[f + 7];
    const bz = frames[f + 8];
    const r = frames[f + RADIUS];
    if (frames[f + SHAPE] === CIRCLE) {
      for (let j = 0; j < columns; j++, w += 3) {
        const c = px[j];
        const s = py[j];
        const ox = nx * c + bx * s;
        const oy = ny * c + by * s;
        const oz = nz * c + bz * s;
        positions[w] = x + r * ox;
        positions[w + 1] = y + r * oy;
        positions[w + 2] = z + r * oz;
        normals[w] = ox;
        normals[w + 1] = oy;
        normals[w + 2] = oz;
      }
      continue;
    }
    const across = frames[f + ACROSS];
    const out = frames[f + OUT];
    // How much a ring's normals lean ahead is told for what grows straight outwards, as a circle does. A place that lies off
    // its own normal grows less in its direction; one that faces the middle, as in a hollow, shrinks.
    const leans = !circle && frames[f + AHEAD] !== 0 && (r === 0 || out !== 0);
    const flatwise = across !== r;
    const tight = frames[f + SHAPE] === TIGHT;
    const kn = frames[f + BEND_N];
    const kb = frames[f + BEND_B];
    for (let j = 0; j < columns; j++, w += 3) {
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
      let beside = out;
      let lean = 1;
      if (leans) {
        lean = flatwise ? px[j] * mx[j] : px[j] * mx[j] + py[j] * my[j];
        const ahead = lean * frames[f + AHEAD];
        const length = Math.sqrt(out * out + ahead * ahead);
        // At the very tip, what lies in a plane with it looks straight aside.
        beside = length > 1e-9 ? out / length : 1;
        lean = length > 1e-9 ? lean / length : 0;
      }
      const ox = beside * mx[j];
      const oy = beside * my[j];
      normals[w] = lean * frames[f + 9] + nx * ox + bx * oy;
      normals[w + 1] = lean * frames[f + 10] + ny * ox + by * oy;
      normals[w + 2] = lean * frames[f + 11] + nz * ox + bz * oy;
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

/**
 * Whether a path bends so much at a point that what reaches so far from it has to be held in.
 * @param bend is told the bend then: change of the tangent per metre, of the size 1 / radius
 */
function isTight(
  rings: Rings,
  k: number,
  ring: number,
  { tangents, offsets, closed: ways }: FramedPaths,
  reach: number,
  bend: [number, number, number],
): boolean {
  const p = rings.path[k];
  const first = offsets[p];
  const last = offsets[p + 1] - 1;
  const closed = ways[p] === 1;
  const { along } = rings;
  const base = rings.alongFrom[k] - first;
  // The direction at an open end is its segment's, which has turned half as far as the path: bends are told without it.
  const [low, high] = closed || last - first < 3 ? [first, last] : [first + 1, last - 1];
  const point = Math.min(high, Math.max(low, ring));
  const before = point > low ? point - 1 : closed ? last : point;
  const after = point < high ? point + 1 : closed ? first : point;
  const total = along[rings.alongFrom[k + 1] - 1];
  const from = point > first ? along[base + before] : closed ? along[base + before] - total : 0;
  const to = point < last ? along[base + after] : closed ? total : along[base + point];
  const run = to - from;
  if (!(run > 0)) return false;
  const [a, b] = [3 * before, 3 * after];
  const x = tangents[b] - tangents[a];
  const y = tangents[b + 1] - tangents[a + 1];
  const z = tangents[b + 2] - tangents[a + 2];
  const limit = EASY_BEND * run;
  if ((x * x + y * y + z * z) * reach * reach <= limit * limit) return false;
  bend[0] = x / run;
  bend[1] = y / run;
  bend[2] = z / run;
  return true;
}
