import { movedPaths } from '../../curves/pathFrames';
import { pathCount, type Paths } from '../../geometry/paths';
import { rejoin } from '../../geometry/tree';
import type { StepContext } from '../declare';
import type { SmoothParams } from './smooth';

/** Paths whose kinks are evened out. */
export async function runSmooth(paths: Paths, p: SmoothParams, context: StepContext): Promise<Paths> {
  let positions = paths.positions;
  for (let round = 0; round < p.rounds; round++) {
    await context.yieldNow();
    const next = new Float32Array(positions);
    for (let path = 0; path < pathCount(paths); path++) {
      if (path % 512 === 511) await context.yieldNow();
      const [a, b] = [paths.offsets[path], paths.offsets[path + 1]];
      const closed = paths.closed[path] === 1;
      for (let i = closed ? a : a + 1; i < (closed ? b : b - 1); i++) {
        const [before, after] = [i > a ? i - 1 : b - 1, i < b - 1 ? i + 1 : a];
        for (let c = 0; c < 3; c++)
          next[3 * i + c] = (positions[3 * before + c] + 2 * positions[3 * i + c] + positions[3 * after + c]) / 4;
      }
    }
    positions = next;
  }
  if (positions === paths.positions) return paths;
  rejoin(paths, positions);
  return movedPaths(paths, positions, () => context.yieldNow());
}
