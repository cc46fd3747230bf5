import { type Paths, pathsFrom } from '../../geometry/paths';
import type { DrawnContour } from '../../outline/svg';
import type { StepContext } from '../declare';
import { lies } from './planeParam';

/** Contours in a plane as paths in space. */
export function outlinePaths(
  contours: readonly DrawnContour[],
  p: { scale: number; lies: string; centre: boolean },
  context: StepContext,
): Paths {
  context.claim(
    'points',
    contours.reduce((sum, { points }) => sum + points.length / 2, 0),
    'the number of contours',
  );
  let [left, right, low] = [Infinity, -Infinity, Infinity];
  for (const { points } of contours) {
    for (let i = 0; i < points.length; i += 2) {
      [left, right] = [Math.min(left, points[i]), Math.max(right, points[i])];
      low = Math.min(low, points[i + 1]);
    }
  }
  const [x0, y0] = p.centre ? [(left + right) / 2, low] : [0, 0];
  return pathsFrom(
    contours.map(({ points, closed }) => ({
      closed,
      positions: Array.from({ length: points.length / 2 }, (_, i) =>
        lies(p.lies, p.scale * (points[2 * i] - x0), p.scale * (points[2 * i + 1] - y0)),
      ).flat(),
    })),
  );
}
