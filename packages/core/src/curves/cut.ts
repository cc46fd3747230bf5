import { Carrier } from '../geometry/carrier';
import { NO_POINT, PATHS, type Paths, pathCount, restLengthOf } from '../geometry/paths';
import { squareOff } from './frames';
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
  const rows = new Carrier(
    PATHS,
    paths,
    'point',
    plans.reduce((sum, { count }) => sum + count, 0),
  );
  const cut: Paths = {
    ...paths,
    ...rows.result(),
    offsets: new Uint32Array(m + 1),
    closed: paths.closed.slice(),
    cutFrom: paths.cutFrom.slice(),
    fronts: paths.fronts.slice(),
    uncut: paths.uncut === undefined ? paths : paths.uncut,
  };
  // Points keep the numbers that they have on the whole path; cut ends get none.
  const numbers = (cut.number = paths.number ? cut.number! : new Uint32Array(cut.s.length));
  let first = 0;
  plans.forEach(({ kept, from, parts }, p) => {
    const a = paths.offsets[p];
    const rest = restLengthOf(paths, p) ?? paths.whole[p];
    const put = (mixed: Mixed): void => {
      mixPoint(rows, paths, mixed, cut, first, rest);
      numbers[first++] = NO_POINT;
    };
    if (!kept) cut.closed[p] = 0;
    cut.cutFrom[p] += from;
    parts.forEach(({ head, inner, tail }, round) => {
      const begun = first;
      if (head) put(head);
      rows.run(inner[0], inner[1], first);
      for (let i = inner[0]; !paths.number && i < inner[1]; i++) numbers[first + i - inner[0]] = i - a;
      first += inner[1] - inner[0];
      if (tail) put(tail);
      for (let i = begun; round > 0 && i < first; i++) {
        cut.s[i] += rest;
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
  if (over) parts[0].tail = null;
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

function mixPoint(
  rows: Carrier<typeof PATHS>,
  from: Paths,
  [i, j, t]: Mixed,
  to: Paths,
  k: number,
  rest: number,
): void {
  rows.mix(i, j, t, k);
  // The closing segment of a closed path leads to its full rest length, not back to 0.
  const wraps = j < i;
  const s1 = wraps ? rest : from.s[j];
  const u1 = wraps ? 1 : from.u[j];
  to.s[k] = from.s[i] + Math.max(0, s1 - from.s[i]) * t;
  to.u[k] = from.u[i] + (u1 - from.u[i]) * t;
  if (to.tangents && to.normals) squareOff(to.tangents, to.normals, k);
}
