import { smoothstep } from '../fields/smoothstep';
import { FAR, NEAR, type Paths } from '../geometry/paths';

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
 * The rings that a tube along one path is made of, ends included: everything a vertex needs but the direction around.
 * Each is a circle about path point `point[i]`, pushed along its tangent by `shift[i]`.
 */
export interface Rings {
  /** Id of the path, its place among the paths, and its first and last point. */
  id: number;
  path: number;
  first: number;
  last: number;
  count: number;
  point: Uint32Array;
  shift: Float64Array;
  radius: Float64Array;
  /** Normal of the surface = direction around · out + tangent · ahead. */
  out: Float64Array;
  ahead: Float64Array;
  /** Arc length on the whole path, metres. */
  arc: Float64Array;
  /** Arc lengths of the growing ends, metres; out of reach where an end does not grow. */
  far: number;
  near: number;
  /** 0 where a hard edge separates the ring from the one before. */
  joined: Uint8Array;
  /** Rings that are filled by the profile's cap, 1 where the fill looks ahead, −1 where it looks back. */
  fills: { ring: number; way: 1 | -1 }[];
  /** Arc length at each of the path's points, from what is there of it, metres; one more where it is closed. */
  along: Float64Array;
  /** Half the thickness across, metres; null where it is the radius. */
  deep: number | null;
  closed: boolean;
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

/** Rings along path p, or null where there is nothing to skin. */
export function ringsOf(paths: Paths, p: number, shape: TubeShape): Rings | null {
  const { positions, offsets, cutFrom } = paths;
  const [a, b] = [offsets[p], offsets[p + 1]];
  const n = b - a;
  if (n < 2) return null;
  const closed = paths.closed[p] === 1;
  const body = closed ? n + 1 : n;
  const capRings = Math.max(2, Math.round(shape.sides / 4));
  const room = body + 2 * (capRings + 1);
  // One piece of memory for all: asking for many small ones would cost as much as filling them.
  const memory = new Float64Array(5 * room + 2 * body);
  const part = (k: number): Float64Array => memory.subarray(k * room, (k + 1) * room);
  const arc = memory.subarray(5 * room, 5 * room + body);
  const radius = memory.subarray(5 * room + body);
  const rings: Rings = {
    id: paths.ids[p],
    path: p,
    first: a,
    last: b - 1,
    count: 0,
    point: new Uint32Array(room),
    shift: part(0),
    radius: part(1),
    out: part(2),
    ahead: part(3),
    arc: part(4),
    far: Infinity,
    near: -Infinity,
    joined: new Uint8Array(room),
    fills: [],
    along: arc,
    deep: shape.deep ?? null,
    closed,
  };

  let length = 0;
  for (let k = 1, i = 3 * a; k < body; k++, i += 3) {
    const j = k < n ? i + 3 : 3 * a;
    const x = positions[j] - positions[i];
    const y = positions[j + 1] - positions[i + 1];
    const z = positions[j + 2] - positions[i + 2];
    length += Math.sqrt(x * x + y * y + z * z);
    arc[k] = length;
  }
  if (!(length > 0)) return null;

  writeRadii(paths, p, arc, length, shape, radius);
  if (closed) radius[n] = radius[0];

  const first = cutFrom[p];
  if (paths.fronts[p] & FAR) rings.far = first + length;
  if (paths.fronts[p] & NEAR) rings.near = first;
  const add = (
    point: number,
    shift: number,
    r: number,
    out: number,
    ahead: number,
    s: number,
    joined: boolean,
  ): void => {
    const i = rings.count++;
    rings.point[i] = point;
    rings.shift[i] = shift;
    rings.radius[i] = r;
    rings.out[i] = out;
    rings.ahead[i] = ahead;
    rings.arc[i] = first + s;
    rings.joined[i] = joined ? 1 : 0;
  };
  const cap = (kind: Cap, atEnd: boolean): void => {
    const [point, r, s, way] = atEnd ? [b - 1, radius[n - 1], length, 1] : [a, radius[0], 0, -1];
    if (kind === 'open' || !(r > 0 || shape.deep)) return;
    // Listed from the rim outwards, and read backwards at the start, where the rim comes last.
    const profile: [shift: number, radius: number, out: number, ahead: number][] = [];
    if (kind === 'flat') profile.push([0, r, 0, 1]);
    else if (kind === 'pointed') {
      const slant = Math.hypot(1, POINT_HEIGHT);
      const normal = [POINT_HEIGHT / slant, 1 / slant] as const;
      profile.push([0, r, ...normal], [POINT_HEIGHT * r, 0, ...normal]);
    } else {
      for (let q = 1; q <= capRings; q++) {
        const angle = (q / capRings) * (Math.PI / 2);
        const top = q === capRings;
        profile.push([r * Math.sin(angle), top ? 0 : r * Math.cos(angle), top ? 0 : Math.cos(angle), Math.sin(angle)]);
      }
    }
    if (!atEnd) profile.reverse();
    profile.forEach(([shift, pr, out, ahead], q) => {
      const hard = kind !== 'round' && atEnd && q === 0;
      if (kind === 'flat') rings.fills.push({ ring: rings.count, way: atEnd ? 1 : -1 });
      add(point, way * shift, pr, out, way * ahead, s, !(hard || (!atEnd && q === 0)));
    });
  };

  if (!closed) cap(shape.start, false);
  const capped = rings.count > 0;
  let write = rings.count;
  const { point, out: outs, ahead, arc: arcs, radius: radii, joined } = rings;
  const seam = body > 1 ? arc[1] + length - arc[body - 2] : 0;
  for (let k = 0; k < body; k++, write++) {
    let before = k > 0 ? k - 1 : 0;
    let after = k < body - 1 ? k + 1 : k;
    let run = arc[after] - arc[before];
    if (closed && (k === 0 || k === body - 1)) {
      before = body - 2;
      after = 1;
      run = seam;
    }
    const rise = radius[after] - radius[before];
    point[write] = k < n ? a + k : a;
    radii[write] = radius[k];
    arcs[write] = first + arc[k];
    joined[write] = 1;
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
  joined[rings.count] = capped && shape.start === 'round' ? 1 : 0;
  rings.count = write;
  if (!closed) cap(shape.end, true);
  return rings;
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
