import { boxAround, middleOf } from '@uvrex/core';

/** A ball round something, metres. */
export interface Ball {
  centre: [number, number, number];
  radius: number;
}

/**
 * A ball round points, about the middle of their box: not the smallest, and quickly found.
 * @param positions 3 numbers a point
 * @returns null where there are none
 */
export function ballRound(positions: ArrayLike<number>): Ball | null {
  if (positions.length === 0) return null;
  const [x, y, z] = middleOf(boxAround(positions));
  let most = 0;
  for (let o = 0; o < positions.length; o += 3) {
    const away = (positions[o] - x) ** 2 + (positions[o + 1] - y) ** 2 + (positions[o + 2] - z) ** 2;
    if (away > most) most = away;
  }
  return { centre: [x, y, z], radius: Math.sqrt(most) };
}
