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
  let [x0, y0, z0] = [Infinity, Infinity, Infinity];
  let [x1, y1, z1] = [-Infinity, -Infinity, -Infinity];
  for (let o = 0; o < positions.length; o += 3) {
    const x = positions[o];
    const y = positions[o + 1];
    const z = positions[o + 2];
    if (x < x0) x0 = x;
    if (x > x1) x1 = x;
    if (y < y0) y0 = y;
    if (y > y1) y1 = y;
    if (z < z0) z0 = z;
    if (z > z1) z1 = z;
  }
  const [x, y, z] = [(x0 + x1) / 2, (y0 + y1) / 2, (z0 + z1) / 2];
  let most = 0;
  for (let o = 0; o < positions.length; o += 3) {
    const away = (positions[o] - x) ** 2 + (positions[o + 1] - y) ** 2 + (positions[o + 2] - z) ** 2;
    if (away > most) most = away;
  }
  return { centre: [x, y, z], radius: Math.sqrt(most) };
}
