/** How a growth's band is drawn. */
export interface PodOutline {
  /** Outline where it has been measured: about the middle line, its half-height at each frame is the share grown. */
  known: string;
  /** The middle line where it has not, to be drawn broken. */
  unknown: string;
}

/**
 * The band of a growth over the range, as SVG paths of `width` × `height` pixels.
 * @param shares one entry a frame, NaN where it is not measured yet
 */
export function podOutline(shares: ArrayLike<number>, width: number, height: number): PodOutline {
  const n = shares.length;
  const middle = height / 2;
  const stride = Math.max(1, Math.floor(n / width));
  const pixel = (i: number): string => ((n > 1 ? i / (n - 1) : 0) * width).toFixed(1);
  const known: string[] = [];
  const unknown: string[] = [];
  for (let i = 0; i < n;) {
    const first = i;
    const missing = Number.isNaN(shares[i]);
    const upper: string[] = [];
    const lower: string[] = [];
    for (; i < n && Number.isNaN(shares[i]) === missing; i += stride) {
      const half = 0.8 + (middle - 1.8) * Math.min(1, Math.max(0, shares[i]));
      upper.push(`${pixel(i)} ${(middle - half).toFixed(1)}`);
      lower.push(`${pixel(i)} ${(middle + half).toFixed(1)}`);
    }
    if (!missing) known.push(`M${upper.join('L')}L${lower.reverse().join('L')}Z`);
    // From the frame known last to the one known next.
    else unknown.push(`M${pixel(Math.max(0, first - stride))} ${middle}H${pixel(Math.min(n - 1, i))}`);
  }
  return { known: known.join(''), unknown: unknown.join('') };
}
