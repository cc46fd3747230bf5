import { smoothstep } from '../../fields/smoothstep';
import { FAR, NEAR, type Paths } from '../../geometry/paths';

/** How the end of a tube is made. */
export type Cap = 'open' | 'flat' | 'round' | 'pointed';

export interface TubeShape {
  /** Thickness at the base, metres. */
  radius: number;
  /** Factor on the radius at position 0..1. */
  along: (position: number) => number;
  /** Whether that position runs over the whole path, what has grown of it, or a length back from the tip. */
  follows: 'whole' | 'grown' | 'tip';
  /** Length from the tip that the position runs over when it follows the tip, metres. */
  reach?: number;
  /** Length of growth over which thickness comes up from nothing, metres. */
  swell: number;
  /** Corners of the circle, which tell how finely round ends are made. */
  sides: number;
  start: Cap;
  end: Cap;
  /** Half the thickness across, metres, where it does not follow the radius: for ribbons. */
  deep?: number;
}

/** A cone's height over its base radius, for pointed ends. */
export const POINT_HEIGHT = 2.5;

/**
 * The rings that tubes along paths are made of, ends included: everything a vertex needs but the direction around. Those of a path
 * follow each other, path after path; one array holds them all, since there may be thousands of paths of two points each. A ring is a
 * circle about path point `point[i]`, pushed along its tangent by `shift[i]`.
 */
export interface Rings {
  /** Paths that have rings: id, place among the paths, and after their first rings that of the next, one more than paths. */
  paths: number;
  id: Uint32Array;
  path: Uint32Array;
  start: Uint32Array;
  /** Arc lengths of each path's growing ends, metres; out of reach where an end does not grow. */
  far: Float64Array;
  near: Float64Array;
  /** Arc length at each of a path's points, from what is there of it, metres, and where they begin; one more where it is closed. */
  along: Float64Array;
  alongFrom: Uint32Array;
  /** Rings of all paths. */
  count: number;
  point: Uint32Array;
  shift: Float64Array;
  radius: Float64Array;
  /** Normal of the surface = direction around · out + tangent · ahead. */
  out: Float64Array;
  ahead: Float64Array;
  /** Arc length on the whole path, metres. */
  arc: Float64Array;
  /** 0 where a hard edge, or another path, separates the ring from the one before. */
  joined: Uint8Array;
  /** Rings that are filled by the profile's cap, 1 where the fill looks ahead, −1 where it looks back. */
  fills: { ring: number; way: 1 | -1 }[];
  /** Half the thickness across, metres; null where it is the radius. */
  deep: number | null;
}

/**
 * Thickness at each point of path p.
 * @param arc arc lengths of the points, metres, and `length` of the whole that is there
 * @param radius receives one entry a point, metres
 */
export function writeRadii(
  { u, size, closed, offsets }: Paths,
  p: number,
  arc: Float64Array,
  length: number,
  { radius: plain, along, follows, reach: wanted, swell }: TubeShape,
  radius: Float64Array,
): void {
  const a = offsets[p];
  const n = offsets[p + 1] - a;
  const thickness = plain * (swell > 0 && !closed[p] ? smoothstep(length / swell) : 1);
  const reach = wanted && wanted > 0 ? wanted : length;
  // From the tip, the profile's far end lies on the tip, and all beyond its length is as its base.
  for (let k = 0; k < n; k++) {
    const position =
      follows === 'whole'
        ? u[a + k]
        : follows === 'grown'
          ? arc[k] / length
          : Math.max(0, 1 - (length - arc[k]) / reach);
    const r = thickness * size[a + k] * along(position);
    radius[k] = r > 0 ? r : 0;
  }
}

/** The rings of one end, for a radius of 1, from the rim outwards: shift, radius, out and ahead of each. */
type CapRings = readonly (readonly [shift: number, radius: number, out: number, ahead: number])[];

function capRings(kind: Cap, sides: number): CapRings {
  if (kind === 'open') return [];
  if (kind === 'flat') return [[0, 1, 0, 1]];
  if (kind === 'pointed') {
    const slant = Math.hypot(1, POINT_HEIGHT);
    const normal = [POINT_HEIGHT / slant, 1 / slant] as const;
    return [
      [0, 1, ...normal],
      [POINT_HEIGHT, 0, ...normal],
    ];
  }
  const count = Math.max(2, Math.round(sides / 4));
  return Array.from({ length: count }, (_, q) => {
    const angle = ((q + 1) / count) * (Math.PI / 2);
    const top = q === count - 1;
    return [Math.sin(angle), top ? 0 : Math.cos(angle), top ? 0 : Math.cos(angle), Math.sin(angle)] as const;
  });
}

/** Empty rings for all that paths can come to. */
function roomFor({ offsets, closed }: Paths, deep: number | null, ends: number): Rings {
  let paths = 0;
  let points = 0;
  let room = 0;
  for (let p = 0; p + 1 < offsets.length; p++) {
    const n = offsets[p + 1] - offsets[p];
    if (n < 2) continue;
    paths++;
    points += n + closed[p];
    room += n + (closed[p] ? 1 : ends);
  }
  // One piece of memory for all: asking for many small ones would cost as much as filling them.
  const memory = new Float64Array(5 * room + points);
  const part = (k: number): Float64Array => memory.subarray(k * room, (k + 1) * room);
  return {
    paths: 0,
    id: new Uint32Array(paths),
    path: new Uint32Array(paths),
    start: new Uint32Array(paths + 1),
    far: new Float64Array(paths).fill(Infinity),
    near: new Float64Array(paths).fill(-Infinity),
    along: memory.subarray(5 * room),
    alongFrom: new Uint32Array(paths + 1),
    count: 0,
    point: new Uint32Array(room),
    shift: part(0),
    radius: part(1),
    out: part(2),
    ahead: part(3),
    arc: part(4),
    joined: new Uint8Array(room),
    fills: [],
    deep,
  };
}

/** So many rings between two yields. */
const PER_YIELD = 4096;

/** Rings along all paths; those of which there is nothing to skin have none. */
export async function ringsOf(
  paths: Paths,
  shape: TubeShape,
  yieldNow: (() => Promise<void>) | undefined,
): Promise<Rings> {
  const begins = capRings(shape.start, shape.sides);
  const ends = capRings(shape.end, shape.sides);
  const rings = roomFor(paths, shape.deep ?? null, begins.length + ends.length);
  let radii = new Float64Array(64);
  let nextYield = PER_YIELD;
  for (let p = 0; p + 1 < paths.offsets.length; p++) {
    const n = paths.offsets[p + 1] - paths.offsets[p];
    if (n < 2) continue;
    if (radii.length <= n) radii = new Float64Array(2 * n);
    addRings(rings, paths, p, shape, begins, ends, radii);
    if (rings.count < nextYield) continue;
    nextYield = rings.count + PER_YIELD;
    await yieldNow?.();
  }
  return rings;
}

/** Adds the rings along path p. @param radii memory for one number a point and one more */
function addRings(
  rings: Rings,
  paths: Paths,
  p: number,
  shape: TubeShape,
  begins: CapRings,
  ends: CapRings,
  radii: Float64Array,
): void {
  const { positions, offsets } = paths;
  const a = offsets[p];
  const n = offsets[p + 1] - a;
  const closed = paths.closed[p] === 1;
  const body = closed ? n + 1 : n;
  const k = rings.paths;
  const from = rings.alongFrom[k];
  const along = rings.along;
  along[from] = 0;
  let length = 0;
  for (let i = 1, q = 3 * a; i < body; i++, q += 3) {
    const j = i < n ? q + 3 : 3 * a;
    const x = positions[j] - positions[q];
    const y = positions[j + 1] - positions[q + 1];
    const z = positions[j + 2] - positions[q + 2];
    length += Math.sqrt(x * x + y * y + z * z);
    along[from + i] = length;
  }
  if (!(length > 0)) return;

  writeRadii(paths, p, along.subarray(from, from + n), length, shape, radii);
  if (closed) radii[n] = radii[0];

  const first = paths.cutFrom[p];
  if (paths.fronts[p] & FAR) rings.far[k] = first + length;
  if (paths.fronts[p] & NEAR) rings.near[k] = first;
  rings.id[k] = paths.ids[p];
  rings.path[k] = p;
  const begin = rings.count;
  if (!closed) addCap(rings, shape.start, begins, false, a, radii[0], first);
  const { point, out: outs, ahead, arc: arcs, radius, joined } = rings;
  let write = rings.count;
  joined[write] = write > begin && shape.start === 'round' ? 1 : 0;
  const seam = along[from + 1] + length - along[from + body - 2];
  for (let i = 0; i < body; i++, write++) {
    let before = i > 0 ? i - 1 : 0;
    let after = i < body - 1 ? i + 1 : i;
    let run = along[from + after] - along[from + before];
    if (closed && (i === 0 || i === body - 1)) {
      before = body - 2;
      after = 1;
      run = seam;
    }
    const rise = radii[after] - radii[before];
    point[write] = i < n ? a + i : a;
    radius[write] = radii[i];
    arcs[write] = first + along[from + i];
    if (i > 0) joined[write] = 1;
    if (rise === 0 || !(run > 0)) {
      outs[write] = 1;
      ahead[write] = 0;
    } else {
      const slope = rise / run;
      const out = 1 / Math.sqrt(1 + slope * slope);
      outs[write] = out;
      ahead[write] = -slope * out;
    }
  }
  rings.count = write;
  if (!closed) addCap(rings, shape.end, ends, true, a + n - 1, radii[n - 1], first + length);
  rings.paths = k + 1;
  rings.start[k + 1] = rings.count;
  rings.alongFrom[k + 1] = from + body;
}

/** Adds the rings of an end. @param r the radius there @param arc where it lies on the whole path, metres */
function addCap(rings: Rings, kind: Cap, cap: CapRings, atEnd: boolean, at: number, r: number, arc: number): void {
  if (cap.length === 0 || !(r > 0 || rings.deep)) return;
  const way = atEnd ? 1 : -1;
  for (let q = 0; q < cap.length; q++) {
    // Listed from the rim outwards, and read backwards at the start, where the rim comes last.
    const [shift, radius, out, ahead] = cap[atEnd ? q : cap.length - 1 - q];
    const i = rings.count++;
    if (kind === 'flat') rings.fills.push({ ring: i, way });
    rings.point[i] = at;
    rings.shift[i] = way * r * shift;
    rings.radius[i] = r * radius;
    rings.out[i] = out;
    rings.ahead[i] = way * ahead;
    rings.arc[i] = arc;
    const apart = atEnd ? kind !== 'round' : true;
    rings.joined[i] = q === 0 && apart ? 0 : 1;
  }
}

/** Whether a ring has any extent: rows at one without have one triangle a side instead of two. */
export const hasExtent = (rings: Rings, i: number): boolean => rings.radius[i] > 0 || rings.deep !== null;

/** Triangles between rings of this many sides. */
export function ringFaces(rings: Rings, sides: number): number {
  let faces = 0;
  for (let i = 1; i < rings.count; i++)
    if (rings.joined[i]) faces += sides * ((hasExtent(rings, i - 1) ? 1 : 0) + (hasExtent(rings, i) ? 1 : 0));
  return faces;
}
