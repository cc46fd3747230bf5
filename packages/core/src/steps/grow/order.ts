import { random } from '../../fields/random';
import { type Paths, pathCount } from '../../geometry/paths';
import { at, distance, type Vec3 } from '../../geometry/vec';

/**
 * The place of each path in the order in which they set out.
 * @param places what `distance` is measured from, metres
 */
export function ranksOf(paths: Paths, order: string, seed: number, places: readonly Vec3[]): Float64Array {
  const m = pathCount(paths);
  const weight = (path: number): number => {
    if (order === 'random') return random(seed, paths.ids[path], 3);
    if (order === 'reverse') return -path;
    if (order === 'index') return path;
    const base = at(paths.positions, paths.offsets[path]);
    if (order === 'centre') return Math.hypot(base[0], base[2]);
    return places.reduce((least, place) => Math.min(least, distance(base, place)), Infinity);
  };
  const weights = Array.from({ length: m }, (_, path) => weight(path));
  const ranks = new Float64Array(m);
  [...weights.keys()].sort((a, b) => weights[a] - weights[b] || a - b).forEach((path, rank) => (ranks[path] = rank));
  return ranks;
}
