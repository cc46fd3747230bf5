import type { NumberParam } from '../declare';

/** Two heights that limit a deforming step to a part of what it deforms, as shares of the whole height. */
export const rangeParams = {
  low: {
    type: 'number',
    unit: 'share',
    label: 'From',
    help: 'Height at which it begins; below it nothing changes.',
    default: 0,
    min: 0,
    max: 1,
    group: 'Range',
  },
  high: {
    type: 'number',
    unit: 'share',
    label: 'To',
    help: 'Height from which it is complete; no higher than the other, it begins at once.',
    default: 0,
    min: 0,
    max: 1,
    group: 'Range',
  },
} satisfies Record<string, NumberParam>;
