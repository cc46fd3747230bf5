import { filled } from '../geometry/filled';
/** How evenly a growth moves. */
export interface Pace {
  /** Change of the visible length from each frame to the next, metres a second; one entry fewer than lengths. */
  speed: Float64Array;
  /** Standard deviation of the speed over its mean, on frames where it moves at all; null where nothing moves. 0 is perfectly even. */
  unevenness: number | null;
}

/** Speeds below this share of the fastest count as standing still: a path that waits may sway, which changes its length a little. */
const STILL = 0.03;

/**
 * Measures the pace of a growth.
 * @param lengths visible length at successive frames, metres
 * @param fps frames a second
 */
export function paceOf(lengths: ArrayLike<number>, fps: number): Pace {
  const speed = filled(Float64Array, Math.max(0, lengths.length - 1), (i) => (lengths[i + 1] - lengths[i]) * fps);
  const fastest = speed.reduce((top, v) => Math.max(top, Math.abs(v)), 0);
  const moving = [...speed].map(Math.abs).filter((v) => v > STILL * fastest);
  if (fastest === 0 || moving.length === 0) return { speed, unevenness: null };
  const mean = moving.reduce((sum, v) => sum + v, 0) / moving.length;
  const variance = moving.reduce((sum, v) => sum + (v - mean) ** 2, 0) / moving.length;
  return { speed, unevenness: Math.sqrt(variance) / mean };
}
