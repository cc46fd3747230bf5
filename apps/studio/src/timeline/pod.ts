/**
 * Outline of a pod: a band about the middle line whose half-height at each frame is the share grown.
 * @param shares one entry a frame, NaN where it is not measured yet: there the last known share carries on
 * @returns an SVG path of `width` × `height` pixels
 */
export function podPath(shares: ArrayLike<number>, width: number, height: number): string {
  const n = shares.length;
  const middle = height / 2;
  const upper: string[] = [];
  const lower: string[] = [];
  let share = 0;
  const stride = Math.max(1, Math.floor(n / width));
  for (let i = 0; i < n; i += stride) {
    if (!Number.isNaN(shares[i])) share = shares[i];
    const x = ((n > 1 ? i / (n - 1) : 0) * width).toFixed(1);
    const half = 0.8 + (middle - 1.8) * Math.min(1, Math.max(0, share));
    upper.push(`${x} ${(middle - half).toFixed(1)}`);
    lower.push(`${x} ${(middle + half).toFixed(1)}`);
  }
  return `M${upper.join('L')}L${lower.reverse().join('L')}Z`;
}
