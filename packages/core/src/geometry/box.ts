import type { Vec3 } from './vec';

/** The least and the greatest of what places have along each axis, metres. */
export interface Box {
  low: Vec3;
  high: Vec3;
}

/**
 * The box round places, and round another one with them.
 * @param positions 3n, metres
 * @returns of nothing at all from Infinity to −Infinity
 *
 * @example
 * boxAround([0, 1, 2, 3, 0, 0]); // → { low: [0, 0, 0], high: [3, 1, 2] }
 */
export function boxAround(positions: ArrayLike<number>, { low, high }: Box = NOTHING): Box {
  let [x0, y0, z0] = low;
  let [x1, y1, z1] = high;
  for (let i = 0; i + 2 < positions.length; i += 3) {
    const x = positions[i];
    const y = positions[i + 1];
    const z = positions[i + 2];
    if (x < x0) x0 = x;
    if (x > x1) x1 = x;
    if (y < y0) y0 = y;
    if (y > y1) y1 = y;
    if (z < z0) z0 = z;
    if (z > z1) z1 = z;
  }
  return { low: [x0, y0, z0], high: [x1, y1, z1] };
}

const NOTHING: Box = { low: [Infinity, Infinity, Infinity], high: [-Infinity, -Infinity, -Infinity] };

/** How long a box is along each axis, metres; below 0 where there is nothing in it. */
export const sidesOf = ({ low, high }: Box): Vec3 => [high[0] - low[0], high[1] - low[1], high[2] - low[2]];

/** The middle of a box. */
export const middleOf = ({ low, high }: Box): Vec3 => [
  (low[0] + high[0]) / 2,
  (low[1] + high[1]) / 2,
  (low[2] + high[2]) / 2,
];
