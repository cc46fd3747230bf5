import { arcLengths, totalLength } from '../../curves/arclength';
import { squaredFrames } from '../../curves/pathFrames';
import { eachAlong, sampleAt } from '../../curves/resample';
import { Carrier } from '../../geometry/carrier';
import { filled } from '../../geometry/filled';
import { PATHS, type Paths, pathCount, restLengthOf, uncut } from '../../geometry/paths';
import { rejoin } from '../../geometry/tree';
import type { StepContext } from '../declare';
import type { RespaceParams } from './respace';

/** Paths whose points stand anew at equal lengths. */
export async function runRespace(old: Paths, p: RespaceParams, context: StepContext): Promise<Paths> {
  const m = pathCount(old);
  const tables: Float64Array[] = [];
  for (let k = 0; k < m; k++) {
    if (k % PATHS_AT_ONCE === 0) await context.yieldNow();
    tables.push(arcLengths(old.positions, old.offsets[k], old.offsets[k + 1], old.closed[k] === 1));
  }
  const spacing = p.by === 'density' ? 1 / p.density : p.spacing;
  const fixed = p.by === 'count' ? p.count : null;
  const wanted = tables.reduce(
    (sum, table, k) => sum + countAlong(totalLength(table), old.closed[k] === 1, fixed, spacing),
    0,
  );
  context.claim(
    'points',
    wanted,
    { count: 'Count', spacing: 'the number of points by a larger Spacing', density: 'Per metre' }[p.by],
  );
  const plans = tables.map((table, k) =>
    old.offsets[k + 1] - old.offsets[k] < 2
      ? Float64Array.from(table)
      : placesAlong(totalLength(table), old.closed[k] === 1, fixed, spacing, p.rest),
  );
  const total = plans.reduce((sum, arcs) => sum + arcs.length, 0);
  await context.yieldNow();
  const rows = new Carrier(PATHS, old, 'point', total);
  const paths: Paths = { ...uncut(old), ...rows.result(), number: null, offsets: new Uint32Array(m + 1) };
  let first = 0;
  for (let k = 0; k < m; k++) {
    await context.yieldNow();
    const [a, b, arcs, table] = [old.offsets[k], old.offsets[k + 1], plans[k], tables[k]];
    eachAlong(b - a, table, arcs, (i, j, t, at) => rows.mix(a + i, a + j, t, first + at));
    if (old.closed[k]) restOnClosed(old, a, b, restLengthOf(old, k) ?? old.whole[k], table, arcs, paths, first);
    first += arcs.length;
    paths.offsets[k + 1] = first;
  }
  await context.yieldNow();
  // New points lie on chords of the old ones: branches go along.
  rejoin(paths, paths.positions);
  return squaredFrames(paths, () => context.yieldNow());
}

/** Paths that are measured between two yields. */
const PATHS_AT_ONCE = 256;

/** How many points a path comes to, or one more: asked for before anything is made. */
const countAlong = (length: number, closed: boolean, count: number | null, spacing: number): number =>
  count ?? (closed ? Math.max(3, Math.round(length / spacing)) : Math.ceil(length / spacing) + 1);

/**
 * Arc lengths at which points stand.
 * @param count of points, or null to go by `spacing`
 * @param rest what becomes of a remainder; a closed path always takes a whole number of equal pieces
 */
function placesAlong(
  length: number,
  closed: boolean,
  count: number | null,
  spacing: number,
  rest: string,
): Float64Array {
  if (closed) {
    const n = Math.max(3, count ?? Math.round(length / spacing));
    return filled(Float64Array, n, (i) => (i * length) / n);
  }
  if (count !== null || rest === 'fit') {
    const pieces = count === null ? Math.max(1, Math.round(length / spacing)) : count - 1;
    const places = filled(Float64Array, pieces + 1, (i) => (i * length) / pieces);
    places[pieces] = length;
    return places;
  }
  // A hair of tolerance, so that a length that means whole pieces is not cut short by rounding.
  const pieces = Math.floor(length / spacing + 1e-6);
  const places = Array.from({ length: pieces + 1 }, (_, i) => Math.min(length, i * spacing));
  if (rest === 'keep' && length - pieces * spacing > 1e-6 * spacing) places.push(length);
  return Float64Array.from(places);
}

/** On the closing segment the rest coordinate runs up to its full value instead of back to 0. */
function restOnClosed(
  old: { s: Float32Array; u: Float32Array },
  a: number,
  b: number,
  rest: number,
  table: Float64Array,
  arcs: Float64Array,
  out: { s: Float32Array; u: Float32Array },
  first: number,
): void {
  const s = Float64Array.from([...old.s.subarray(a, b), rest]);
  const u = Float64Array.from([...old.u.subarray(a, b), 1]);
  sampleAt(s, 0, s.length, table, arcs, 1, out.s, first);
  sampleAt(u, 0, u.length, table, arcs, 1, out.u, first);
}
