import { squaredFrames } from '../../curves/pathFrames';
import { simplify } from '../../curves/simplify';
import { pickedInTime } from '../../geometry/carrier';
import { PATHS, type Paths, pathCount, uncut } from '../../geometry/paths';
import { rejoin } from '../../geometry/tree';
import type { StepContext } from '../declare';
import type { ThinParams } from './thin';

/** Paths with only the points that their course needs. */
export async function runThin(old: Paths, p: ThinParams, context: StepContext): Promise<Paths> {
  const kept: number[][] = [];
  for (let path = 0; path < pathCount(old); path++) {
    await context.yieldNow();
    const [a, b] = [old.offsets[path], old.offsets[path + 1]];
    const points = Array.from(old.positions.subarray(3 * a, 3 * b));
    // A closed path keeps its first point, and the one furthest from it, so that it stays a loop.
    if (old.closed[path] && b - a > 3) points.push(...points.slice(0, 3));
    const indices = simplify(points, p.within).filter((i) => i < b - a);
    kept.push(
      (old.closed[path] && indices.length < 3 ? [0, 1, 2].map((k) => Math.floor((k * (b - a)) / 3)) : indices).map(
        (i) => a + i,
      ),
    );
  }
  return only(old, kept, context);
}

/** The paths with only the points given, by number, for each. */
async function only(old: Paths, kept: readonly number[][], context: StepContext): Promise<Paths> {
  const offsets = new Uint32Array(kept.length + 1);
  kept.forEach((points, path) => (offsets[path + 1] = offsets[path] + points.length));
  const sources = new Uint32Array(offsets[kept.length]);
  kept.forEach((points, path) => sources.set(points, offsets[path]));
  const yieldNow = (): Promise<void> => context.yieldNow();
  const points = await pickedInTime(PATHS, old, 'point', sources, yieldNow);
  const paths: Paths = { ...uncut(old), ...points, number: null, offsets };
  await yieldNow();
  rejoin(paths, paths.positions);
  return squaredFrames(paths, yieldNow);
}
