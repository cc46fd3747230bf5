import { noise3 } from '../fields/noise';
import { random } from '../fields/random';
import { profileCurve } from '../geometry/profile';
import { type Variation } from './schema';

/** What a number can differ by. */
export const VARIATIONS = ['random', 'noise', 'index', 'along'] as const;
export type VariationKind = (typeof VARIATIONS)[number];

/** Where a value is asked for. */
export interface Element {
  /** The path's stable number, which randomness hangs on. */
  id: number;
  /** The path's place among all, and how many there are. */
  index: number;
  count: number;
  /** Rest coordinate on the path, 0..1. */
  u: number;
}

/** A number that differs from place to place: `base` plus the variation, kept within what the parameter allows. */
export type VariedNumber = (element: Element) => number;

/**
 * The value of a varied parameter anywhere.
 * @param channel keeps the randomness of one parameter apart from that of the others
 */
export function variedNumber(
  base: number,
  vary: Variation | null,
  [min, max]: readonly [number, number],
  seed: number,
  channel: number,
): VariedNumber {
  if (!vary || vary.amount === 0) return () => base;
  const { amount, waves } = vary;
  const within = (value: number): number => Math.min(max, Math.max(min, value));
  const curve = profileCurve(vary.shape);
  const out = new Float64Array(3);
  switch (vary.by) {
    case 'random':
      return ({ id }) => within(base + amount * (2 * random(seed, id, channel) - 1));
    case 'noise':
      return ({ id, u }) => {
        const shape = { detail: 1, roughness: 0.5, seed: seed + channel, period: 0 };
        noise3(u * waves, id * 7.31 + 0.5, 0.5, 0, shape, out);
        return within(base + amount * out[0]);
      };
    case 'index':
      return ({ index, count }) => within(base + amount * curve(count > 1 ? index / (count - 1) : 0));
    case 'along':
      return ({ u }) => within(base + amount * curve(u));
  }
}
