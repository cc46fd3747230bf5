import { boxAround, middleOf, sidesOf } from '@uvrex/core';
import type { Viewpoint } from './rendering';

/** How often an item is drawn from a quarter of what the form before has; the item itself is the first. */
export const DETAIL_LEVELS = 4;
/** Vertices and faces of the lightest form; less has no shape. */
const LEAST = 60;
/** Vertices and faces of an item's form at a level. */
export const loadAt = (load: number, level: number): number => Math.round(load / 4 ** level);

/** The ball round an item's own box. */
export function ballOf(positions: Float32Array): { middle: readonly number[]; radius: number } {
  const box = boxAround(positions);
  return { middle: middleOf(box), radius: Math.hypot(...sidesOf(box)) / 2 };
}

/**
 * How finely each copy is drawn: the lightest form whose faces are still about a pixel large (a form that covers A pixels
 * shows half of its faces, so it needs 2 A of them, and A vertices). An item that fills its ball covers most.
 * @param matrices 16 numbers a copy, column by column
 * @returns a level for each copy from `first` to before `end`, 0 the item itself
 */
export function detailLevels(
  ball: ReturnType<typeof ballOf>,
  load: number,
  matrices: Float32Array,
  [first, end]: readonly [number, number],
  { eye, pixels }: Viewpoint,
): Uint8Array {
  const levels = new Uint8Array(end - first);
  const [mx, my, mz] = ball.middle;
  let most = 0;
  while (most + 1 < DETAIL_LEVELS && loadAt(load, most + 1) >= LEAST) most++;
  for (let k = first; k < end; k++) {
    const m = 16 * k;
    const x = matrices[m] * mx + matrices[m + 4] * my + matrices[m + 8] * mz + matrices[m + 12] - eye[0];
    const y = matrices[m + 1] * mx + matrices[m + 5] * my + matrices[m + 9] * mz + matrices[m + 13] - eye[1];
    const z = matrices[m + 2] * mx + matrices[m + 6] * my + matrices[m + 10] * mz + matrices[m + 14] - eye[2];
    // The longest of the three sides: a copy that is stretched is not drawn too coarsely.
    const size = Math.sqrt(
      Math.max(
        matrices[m] ** 2 + matrices[m + 1] ** 2 + matrices[m + 2] ** 2,
        matrices[m + 4] ** 2 + matrices[m + 5] ** 2 + matrices[m + 6] ** 2,
        matrices[m + 8] ** 2 + matrices[m + 9] ** 2 + matrices[m + 10] ** 2,
      ),
    );
    const radius = ball.radius * size;
    const distance = Math.sqrt(x * x + y * y + z * z) - radius;
    if (distance <= 0) continue;
    const covered = Math.PI * ((pixels * radius) / distance) ** 2;
    const level = Math.floor(Math.log2(load / (3 * covered)) / 2);
    levels[k - first] = Math.min(most, Math.max(0, level));
  }
  return levels;
}
