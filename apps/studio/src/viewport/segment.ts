/** A place on screen, pixels. */
export interface Dot {
  x: number;
  y: number;
}

/** How far from `a` to `b` the place of the segment lies that is nearest to a point, 0..1. */
export function nearestShare(point: Dot, a: Dot, b: Dot): number {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const share = ((point.x - a.x) * dx + (point.y - a.y) * dy) / Math.max(1e-9, dx * dx + dy * dy);
  return Math.min(1, Math.max(0, share));
}
