import {
  allocatePaths,
  FRAME_KEYS,
  MAYBE_PER_POINT,
  PER_PATH,
  PER_POINT,
  type Paths,
  pathCount,
} from '../geometry/paths';
import { at, dot, unit, type Vec3 } from '../geometry/vec';
import { arcLengths, fraction, locate, totalLength } from './arclength';

/**
 * Keeps the part of each path between two shares of its arc length. Points in between stay exactly where and what they
 * are; the cut ends are put in by interpolation, so that a cut moves smoothly. A closed path that is cut becomes open.
 *
 * @param window share of the visible length at which path p begins and ends; nothing is left where begin ≥ end. On a
 *   closed path the window may run past 1 and then goes on from the beginning; rest coordinates run on with it
 */
export function cutPaths(paths: Paths, window: (p: number) => readonly [number, number]): Paths {
  const m = pathCount(paths);
  const plans = Array.from({ length: m }, (_, p) => plan(paths, p, window(p)));
  const cut = allocatePaths(
    plans.reduce((sum, { count }) => sum + count, 0),
    m,
  );
  for (const key of FRAME_KEYS) if (paths[key]) cut[key] = new Float32Array(cut.positions.length);
  for (const key of MAYBE_PER_POINT) if (paths[key]) cut[key] = new Float32Array(cut.s.length);
  for (const key of PER_PATH) cut[key].set(paths[key]);
  cut.level = paths.level;
  cut.uncut = paths.uncut === undefined ? paths : paths.uncut;
  let first = 0;
  plans.forEach(({ kept, from, parts }, p) => {
    cut.closed[p] = kept ? paths.closed[p] : 0;
    cut.cutFrom[p] = paths.cutFrom[p] + from;
    parts.forEach(({ head, inner, tail }, round) => {
      const begun = first;
      if (head) mixPoint(paths, head, cut, first++, p);
      copyPoints(paths, inner[0], inner[1], cut, first);
      first += inner[1] - inner[0];
      if (tail) mixPoint(paths, tail, cut, first++, p);
      for (let i = begun; round > 0 && i < first; i++) {
        cut.s[i] += paths.whole[p];
        cut.u[i] += 1;
      }
    });
    cut.offsets[p + 1] = first;
  });
  return cut;
}

/** A point between two others: `t` of the way from i to j. */
type Mixed = readonly [i: number, j: number, t: number];

/** A run of points with its cut ends. */
interface Part {
  head: Mixed | null;
  /** Points taken over, first and end. */
  inner: readonly [number, number];
  tail: Mixed | null;
}

interface Plan {
  /** Points in all. */
  count: number;
  /** The whole path stays as it is. */
  kept: boolean;
  /** Arc length cut away before the part, metres. */
  from: number;
  /** What is left: one run, or two where it goes over the seam of a closed path. */
  parts: Part[];
}

const sizeOf = ({ head, inner, tail }: Part): number => (head ? 1 : 0) + inner[1] - inner[0] + (tail ? 1 : 0);

function plan(paths: Paths, p: number, [begin, end]: readonly [number, number]): Plan {
  const [a, b] = [paths.offsets[p], paths.offsets[p + 1]];
  const closed = paths.closed[p] === 1;
  const none: Plan = { count: 0, kept: false, from: 0, parts: [] };
  if (!(begin < end) || b - a < 2) return none;
  if (closed && end - begin >= 1) [begin, end] = [0, 1];
  if (begin <= 0 && end >= 1) {
    return { count: b - a, kept: true, from: 0, parts: [{ head: null, inner: [a, b], tail: null }] };
  }
  if (closed && begin >= 1) [begin, end] = [begin - Math.floor(begin), end - Math.floor(begin)];

  const table = arcLengths(paths.positions, a, b, closed);
  const length = totalLength(table);
  const from = Math.max(0, begin) * length;
  const over = closed && end > 1;
  const parts = over
    ? [part(table, a, b, from, length, true), part(table, a, b, 0, (end - 1) * length, true)]
    : [part(table, a, b, from, Math.min(1, end) * length, closed)];
  // The seam's point ends the first run as the mix that it is, and begins the second: once is enough.
  if (over && parts.length === 2) parts[0].tail = null;
  const left = parts.filter((run) => sizeOf(run) > 0);
  const count = left.reduce((sum, run) => sum + sizeOf(run), 0);
  return from < Math.min(1, end) * length || over ? { count, kept: false, from, parts: left } : none;
}

/** The run between two arc lengths of a path's points a to b. */
function part(table: Float64Array, a: number, b: number, from: number, to: number, closed: boolean): Part {
  const length = totalLength(table);
  const index = (k: number): number => (a + k < b ? a + k : a);
  const startsInside = from > 0;
  const endsInside = to < length || closed;
  const k0 = startsInside ? locate(table, from) : 0;
  const k1 = endsInside ? locate(table, to) : table.length - 2;
  const t0 = startsInside ? fraction(table, k0, from) : 0;
  const t1 = endsInside ? fraction(table, k1, to) : 1;
  // A cut exactly on a point keeps that point instead of doubling it.
  const innerFrom = startsInside ? k0 + 1 : 0;
  const innerTo = endsInside ? k1 + 1 : table.length;
  return {
    head: startsInside && !(t0 === 1 && innerFrom < innerTo) ? [index(k0), index(k0 + 1), t0] : null,
    inner: innerFrom < innerTo ? [a + innerFrom, a + innerTo] : [a, a],
    tail: endsInside && !(t1 === 0 && innerFrom < innerTo) ? [index(k1), index(k1 + 1), t1] : null,
  };
}

function copyPoints(from: Paths, a: number, b: number, to: Paths, first: number): void {
  to.positions.set(from.positions.subarray(3 * a, 3 * b), 3 * first);
  for (const key of FRAME_KEYS) if (from[key]) to[key]!.set(from[key].subarray(3 * a, 3 * b), 3 * first);
  for (const key of PER_POINT) to[key].set(from[key].subarray(a, b), first);
  for (const key of MAYBE_PER_POINT) if (from[key]) to[key]!.set(from[key].subarray(a, b), first);
}

function mixPoint(from: Paths, [i, j, t]: Mixed, to: Paths, k: number, p: number): void {
  for (let c = 0; c < 3; c++) {
    const value = from.positions[3 * i + c];
    to.positions[3 * k + c] = value + (from.positions[3 * j + c] - value) * t;
  }
  // The closing segment of a closed path leads to its full rest length, not back to 0.
  const wraps = j < i;
  const s1 = wraps ? from.whole[p] : from.s[j];
  const u1 = wraps ? 1 : from.u[j];
  to.s[k] = from.s[i] + Math.max(0, s1 - from.s[i]) * t;
  to.u[k] = from.u[i] + (u1 - from.u[i]) * t;
  to.size[k] = from.size[i] + (from.size[j] - from.size[i]) * t;
  for (const key of MAYBE_PER_POINT) {
    const values = from[key];
    if (values) to[key]![k] = values[i] + (values[j] - values[i]) * t;
  }
  if (from.tangents && from.normals) {
    const tangent = unit(between(from.tangents, i, j, t));
    const normal = between(from.normals, i, j, t);
    const along = dot(normal, tangent);
    to.tangents!.set(tangent, 3 * k);
    to.normals!.set(
      unit([normal[0] - along * tangent[0], normal[1] - along * tangent[1], normal[2] - along * tangent[2]]),
      3 * k,
    );
  }
}

const between = (flat: Float32Array, i: number, j: number, t: number): Vec3 => {
  const [a, b] = [at(flat, i), at(flat, j)];
  return [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t, a[2] + (b[2] - a[2]) * t];
};
