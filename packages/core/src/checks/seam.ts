import type { Evaluator } from '../evaluate/evaluator';
import type { Wanted } from '../evaluate/results';
import type { Form } from '../geometry/form';
import type { Scene } from '../scene/schema';
import { setDistance } from './distance';
import { pointsOf } from '../geometry/formPoints';
import { boxAround, sidesOf } from '../geometry/box';

/** How well one growth closes. */
export interface SeamOfGrowth {
  id: string;
  /** Largest distance between the geometry one frame past the range and the first frame's, metres. */
  gap: number;
  /** The same one frame later on both sides, times the frame rate: by how much the motion differs at the seam, metres a second. */
  jolt: number;
}

export interface Seam {
  growths: SeamOfGrowth[];
  /** Diagonal of everything at the first frame, metres. */
  size: number;
}

/** A range counts as closed when its gap is below this share of the scene's size. */
export const CLOSED = 1e-4;

/** Measures how the end of a scene's range meets its beginning. */
export async function measureSeam(evaluator: Evaluator, scene: Scene, wanted?: Wanted): Promise<Seam> {
  const [first, last] = scene.range;
  const forms = async (frame: number) =>
    new Map((await evaluator.evaluate(scene, frame, wanted)).growths.map(({ id, form }) => [id, form]));
  const begin = await forms(first);
  const past = await forms(last + 1);
  const next = await forms(first + 1);
  const pastNext = await forms(last + 2);
  const growths = [...begin.keys()].map((id): SeamOfGrowth => {
    const gap = setDistance(pointsOf(begin.get(id) ?? null), pointsOf(past.get(id) ?? null));
    const later = setDistance(pointsOf(next.get(id) ?? null), pointsOf(pastNext.get(id) ?? null));
    return { id, gap, jolt: later * scene.fps };
  });
  return { growths, size: sizeOf([...begin.values(), ...past.values()]) };
}

/**
 * Looks for the shortest range from the first frame on that closes, up to the present one and its motion included.
 * @param progress told the share that has been looked at
 * @returns the last frame of that range, or null when none closes
 */
export async function shortestLoop(
  evaluator: Evaluator,
  scene: Scene,
  wanted?: Wanted,
  progress: (share: number) => void = () => {},
): Promise<number | null> {
  const [first, last] = scene.range;
  const points = async (frame: number) =>
    (await evaluator.evaluate(scene, frame, wanted)).growths.map(({ form }) => ({ form, points: pointsOf(form) }));
  const begin = await points(first);
  const next = await points(first + 1);
  const limit = CLOSED * sizeOf(begin.map(({ form }) => form));
  const meets = (a: { points: Float32Array }[], b: { points: Float32Array }[]): boolean =>
    a.length === b.length && a.every(({ points: p }, i) => setDistance(p, b[i].points) <= limit);
  // A scene that stands still closes anywhere: that is no loop.
  if (meets(begin, next)) return null;
  for (let end = first + 2; end <= last + 1; end++) {
    progress((end - first) / (last - first + 1));
    if (meets(begin, await points(end)) && meets(next, await points(end + 1))) return end - 1;
  }
  return null;
}

function sizeOf(forms: readonly (Form | null)[]): number {
  let box = boxAround([]);
  for (const form of forms) box = boxAround(pointsOf(form), box);
  return box.low[0] <= box.high[0] ? Math.hypot(...sidesOf(box)) : 0;
}
