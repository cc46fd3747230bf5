import { type Paths, pathCount } from '../geometry/paths';
import { weld } from '../geometry/weld';
import { Wave } from '../surfaces/wave';

/** Paths as places that are joined: points at one place are one, so that a front goes over from path to path where they meet. */
export interface PathGraph {
  /** n, which place each point stands at. */
  of: Uint32Array;
  /** m, one point at each place. */
  first: Uint32Array;
  /** Both places of each piece, and its length in metres. */
  ends: Uint32Array;
  lengths: Float64Array;
}

/** The pieces that paths are made of, as a graph. */
export function pathGraph(paths: Paths): PathGraph {
  const { of, first } = weld(paths);
  const ends: number[] = [];
  const lengths: number[] = [];
  const { positions: p } = paths;
  for (let path = 0; path < pathCount(paths); path++) {
    const [a, b] = [paths.offsets[path], paths.offsets[path + 1]];
    for (let i = a; i < b; i++) {
      const j = i + 1 < b ? i + 1 : a;
      if ((i + 1 === b && !paths.closed[path]) || of[i] === of[j]) continue;
      ends.push(of[i], of[j]);
      lengths.push(Math.hypot(p[3 * i] - p[3 * j], p[3 * i + 1] - p[3 * j + 1], p[3 * i + 2] - p[3 * j + 2]));
    }
  }
  return { of, first, ends: Uint32Array.from(ends), lengths: Float64Array.from(lengths) };
}

/**
 * Distances along paths from places that have been reached (Dijkstra, A note on two problems in connexion with graphs, 1959).
 * @param slow how slow the front is at each place, Infinity where it stops
 * @returns metres at each place; Infinity where it never comes
 */
export function distancesInGraph(
  { first, ends, lengths }: PathGraph,
  reached: readonly (readonly [place: number, distance: number])[],
  slow: (place: number) => number,
): Float64Array {
  const m = first.length;
  const starts = new Uint32Array(m + 1);
  for (const end of ends) starts[end + 1]++;
  for (let i = 0; i < m; i++) starts[i + 1] += starts[i];
  const filled = starts.slice();
  const pieces = new Uint32Array(ends.length);
  for (let e = 0; e < ends.length; e++) pieces[filled[ends[e]]++] = e >> 1;
  const wave = new Wave(m);
  const d = wave.distances;
  for (const [place, distance] of reached) wave.lower(place, distance, 0);
  for (let i = wave.next(); i >= 0; i = wave.next())
    for (let at = starts[i]; at < starts[i + 1]; at++) {
      const piece = pieces[at];
      const j = ends[2 * piece] === i ? ends[2 * piece + 1] : ends[2 * piece];
      const next = d[i] + (lengths[piece] * (slow(i) + slow(j))) / 2;
      if (next < d[j]) wave.lower(j, next, 0);
    }
  return d;
}
