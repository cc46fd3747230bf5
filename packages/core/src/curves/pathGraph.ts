import type { YieldNow } from '../yieldNow';
import { type Paths, pathCount } from '../geometry/paths';
import { jointOn, pathTreeOf } from '../geometry/tree';
import { at, distance } from '../geometry/vec';
import { weldInTime } from '../geometry/topology/weld';
import { Wave } from '../geometry/search/dijkstra';

/**
 * Paths as places that are joined: points at one place are one, and a branch begins where it holds on to its parent, between
 * two points of that too; so a front goes over from path to path where they meet.
 */
export interface PathGraph {
  /** n, which place each point stands at. */
  of: Uint32Array;
  /** m, one point at each place. */
  first: Uint32Array;
  /** Both places of each piece, and its length in metres. */
  ends: Uint32Array;
  lengths: Float64Array;
}

/** Rest coordinate up to which a path is there from its base. */
const BEGUN = 1e-6;

/** So many points between two yields. */
const CHUNK = 8192;

/** The pieces that paths are made of, as a graph. */
export async function pathGraph(paths: Paths, yieldNow: YieldNow): Promise<PathGraph> {
  const { of, first } = await weldInTime(paths, yieldNow);
  const { positions: p, offsets, closed } = paths;
  const points = of.length;
  // At most one piece a point, and two a joint.
  const most = points + 2 * (paths.parent ? pathCount(paths) : 0);
  const ends = new Uint32Array(2 * most);
  const lengths = new Float64Array(most);
  let count = 0;
  for (let path = 0; path < pathCount(paths); path++) {
    const a = offsets[path];
    const b = offsets[path + 1];
    for (let i = a; i < b; i++) {
      if (i % CHUNK === 0) await yieldNow();
      const j = i + 1 < b ? i + 1 : a;
      if ((i + 1 === b && !closed[path]) || of[i] === of[j]) continue;
      ends[2 * count] = of[i];
      ends[2 * count + 1] = of[j];
      const x = p[3 * i] - p[3 * j];
      const y = p[3 * i + 1] - p[3 * j + 1];
      const z = p[3 * i + 2] - p[3 * j + 2];
      lengths[count++] = Math.sqrt(x * x + y * y + z * z);
    }
  }
  if (paths.parent) {
    const { parents } = pathTreeOf(paths);
    for (let path = 0; path < parents.length; path++) {
      const base = offsets[path];
      const joint = parents[path] < 0 ? null : jointOn(paths, parents[path], paths.attach![path]);
      // What has lost its base to growth hangs on nothing.
      if (!joint || base === offsets[path + 1] || paths.u[base] > BEGUN) continue;
      const ways = [
        [joint.low, joint.t],
        [joint.high, 1 - joint.t],
      ] as const;
      const length = distance(at(p, joint.low), at(p, joint.high));
      for (const [point, share] of ways) {
        if (of[point] === of[base]) continue;
        ends[2 * count] = of[point];
        ends[2 * count + 1] = of[base];
        lengths[count++] = share * length;
      }
    }
  }
  return { of, first, ends: ends.subarray(0, 2 * count), lengths: lengths.subarray(0, count) };
}

/**
 * Distances along paths from places that have been reached (Dijkstra, A note on two problems in connexion with graphs, 1959).
 * @param slow how slow the front is at each place, Infinity where it stops
 * @returns metres at each place; Infinity where it never comes
 */
export async function distancesInGraph(
  { first, ends, lengths }: PathGraph,
  reached: readonly (readonly [place: number, distance: number])[],
  slow: (place: number) => number,
  yieldNow: YieldNow,
): Promise<Float64Array> {
  const m = first.length;
  const starts = new Uint32Array(m + 1);
  for (let e = 0; e < ends.length; e++) starts[ends[e] + 1]++;
  for (let i = 0; i < m; i++) starts[i + 1] += starts[i];
  const filled = starts.slice();
  const pieces = new Uint32Array(ends.length);
  for (let e = 0; e < ends.length; e++) pieces[filled[ends[e]]++] = e >> 1;
  await yieldNow();
  const wave = new Wave(m);
  const d = wave.distances;
  for (const [place, distance] of reached) wave.lower(place, distance, 0);
  let visited = 0;
  for (let i = wave.next(); i >= 0; i = wave.next()) {
    if (++visited % CHUNK === 0) await yieldNow();
    for (let at = starts[i]; at < starts[i + 1]; at++) {
      const piece = pieces[at];
      const j = ends[2 * piece] === i ? ends[2 * piece + 1] : ends[2 * piece];
      const next = d[i] + (lengths[piece] * (slow(i) + slow(j))) / 2;
      if (next < d[j]) wave.lower(j, next, 0);
    }
  }
  return d;
}
