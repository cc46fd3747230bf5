import { filled } from '../geometry/filled';
import type { Evaluator } from '../evaluate/evaluator';
import type { Wanted } from '../evaluate/results';
import type { Form } from '../geometry/form';
import { poseOf } from '../geometry/search/meshPairs';
import { pathCount } from '../geometry/paths';
import { turnedBy } from '../geometry/turns';
import { at, byAxis, partWay, type Vec3 } from '../geometry/vec';
import type { Scene } from '../scene/schema';

/** A point that is followed: of a copy, in its item's own axes; or of a path, at a rest coordinate. */
export type TrailTarget =
  { growth: string; of: 'copy'; copy: number; local: Vec3 } | { growth: string; of: 'path'; path: number; u: number };

/** Where a point travels over the range. */
export interface Trail {
  /** Frame of the first entry. */
  first: number;
  /** xyz per frame, metres; NaN where it is not there. */
  positions: Float32Array;
  /** Metres a second, per frame; NaN where it is not there. */
  speed: Float32Array;
  /** How suddenly its acceleration changes, metres a second cubed, per frame; NaN next to where it is not there. */
  jerk: Float32Array;
}

/** Follows a point over a scene's range. @param progress told the share that is done */
export async function trailOf(
  evaluator: Evaluator,
  scene: Scene,
  target: TrailTarget,
  wanted?: Wanted,
  progress: (share: number) => void = () => {},
): Promise<Trail> {
  const [first, last] = scene.range;
  const count = last - first + 1;
  const positions = new Float32Array(3 * count).fill(NaN);
  const only = new Set([target.growth]);
  for (let i = 0; i < count; i++) {
    progress(i / count);
    const [{ form }] = (await evaluator.evaluate(scene, first + i, wanted, only)).growths;
    const place = form && placeOf(form, target);
    if (place) positions.set(place, 3 * i);
  }
  return { first, positions, ...motionOf(positions, scene.fps) };
}

/** Where the point is in one form; null where it is not there. */
function placeOf(form: Form, target: TrailTarget): Vec3 | null {
  if (target.of === 'copy') {
    const k = form.copies?.ids.indexOf(target.copy) ?? -1;
    if (k < 0) return null;
    const { position, turn, size } = poseOf(form.copies!, k);
    const [x, y, z] = turnedBy(
      turn,
      byAxis((c) => size[c] * target.local[c]),
    );
    return [position[0] + x, position[1] + y, position[2] + z];
  }
  const { paths } = form;
  for (let p = 0; paths && p < pathCount(paths); p++) {
    if (paths.ids[p] !== target.path) continue;
    for (let i = paths.offsets[p]; i + 1 < paths.offsets[p + 1]; i++) {
      const [a, b] = [paths.u[i], paths.u[i + 1]];
      if (target.u < a || target.u > b) continue;
      const t = b > a ? (target.u - a) / (b - a) : 0;
      const [from, to] = [at(paths.positions, i), at(paths.positions, i + 1)];
      return partWay(from, to, t);
    }
  }
  return null;
}

/** Speed and jerk of a point by central differences. @param positions xyz per frame, NaN where it is not there */
export function motionOf(positions: Float32Array, fps: number): Pick<Trail, 'speed' | 'jerk'> {
  const n = positions.length / 3;
  const size = (weights: readonly (readonly [number, number])[], i: number, k: number): number => {
    let sum = 0;
    for (let c = 0; c < 3; c++) {
      let part = 0;
      for (const [step, weight] of weights) {
        const j = i + step;
        part += j < 0 || j >= n ? NaN : weight * positions[3 * j + c];
      }
      sum += part * part;
    }
    return Math.sqrt(sum) * k;
  };
  const speed = filled(Float32Array, n, (i) => {
    // At both ends the difference to the one neighbour there is.
    const step: [number, number][] =
      i === 0
        ? [[1, 1], [0, -1]] // prettier-ignore
        : i === n - 1
          ? [[0, 1], [-1, -1]] // prettier-ignore
          : [[1, 0.5], [-1, -0.5]]; // prettier-ignore
    return size(step, i, fps);
  });
  const third = [
    [2, 0.5],
    [1, -1],
    [-1, 1],
    [-2, -0.5],
  ] as const;
  return { speed, jerk: filled(Float32Array, n, (i) => size(third, i, fps ** 3)) };
}
