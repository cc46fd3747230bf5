import { noise3 } from '../fields/noise';
import { random } from '../fields/random';
import { profileCurve } from '../geometry/profile';
import type { VariedNumber } from '../geometry/element';
import type { Variation } from './schema';

/** What a number can differ by. */
export const VARIATIONS = ['random', 'noise', 'index', 'along', 'attribute'] as const;
export type VariationKind = (typeof VARIATIONS)[number];

/** An attribute that numbers can be driven by, for people: what it is called, in which unit, and what it mostly lies between. */
export interface Drivable {
  label: string;
  domain: 'point' | 'path';
  unit: 'm' | 's' | 'share' | 'plain';
  span: readonly [number, number];
}

/** The built-in attributes that numbers can be driven by. */
export const DRIVABLE: Readonly<Record<string, Drivable>> = {
  age: { label: 'Age', domain: 'point', unit: 's', span: [0, 1] },
  size: { label: 'Thickness', domain: 'point', unit: 'plain', span: [0, 1] },
  s: { label: 'From the base', domain: 'point', unit: 'm', span: [0, 1] },
  whole: { label: 'Path length', domain: 'path', unit: 'm', span: [0, 5] },
  level: { label: 'Level', domain: 'path', unit: 'share', span: [0, 1] },
};

/** What other attributes that steps go by are called, and what they mostly lie between. */
export const WRITTEN: Readonly<Record<string, Drivable>> = {
  height: { label: 'Height', domain: 'point', unit: 'm', span: [0, 2] },
  front: { label: 'Front', domain: 'point', unit: 'share', span: [0, 1] },
  distance: { label: 'Distance of the front', domain: 'point', unit: 'm', span: [0, 2] },
  tip: { label: 'Behind the front', domain: 'point', unit: 'm', span: [0, 1] },
  slope: { label: 'Slope', domain: 'point', unit: 'plain', span: [0, 1] },
  curvature: { label: 'Curvature', domain: 'point', unit: 'plain', span: [0, 1] },
  thickness: { label: 'Thickness', domain: 'point', unit: 'plain', span: [0, 1] },
  area: { label: 'Area of faces', domain: 'point', unit: 'plain', span: [0, 1] },
  guide: { label: 'Distance to a guide', domain: 'point', unit: 'plain', span: [0, 1] },
  growth: { label: 'Distance to a growth', domain: 'point', unit: 'plain', span: [0, 1] },
  direction: { label: 'Along a direction', domain: 'point', unit: 'plain', span: [0, 1] },
  random: { label: 'Chance', domain: 'point', unit: 'plain', span: [0, 1] },
  number: { label: 'Number', domain: 'point', unit: 'plain', span: [0, 1] },
  noise: { label: 'Noise', domain: 'point', unit: 'plain', span: [0, 1] },
};

/** An attribute as people know it; undefined for one by a name of its own. */
export const attributeOf = (name: string): Drivable | undefined =>
  Object.hasOwn(DRIVABLE, name) ? DRIVABLE[name] : Object.hasOwn(WRITTEN, name) ? WRITTEN[name] : undefined;

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
  const out = new Float64Array(1);
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
    case 'attribute': {
      const { attribute = '', span: [low, high] = [0, 1] } = vary;
      return ({ read }) => {
        const value = read(attribute);
        if (value === null || Number.isNaN(value)) return base;
        const share = high === low ? (value < low ? 0 : 1) : (value - low) / (high - low);
        return within(base + amount * curve(Math.min(1, Math.max(0, share))));
      };
    }
  }
}
