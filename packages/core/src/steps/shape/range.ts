import { wholeBoundsOf } from '../../geometry/extent';
import type { Form } from '../../geometry/form';
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

/** The part of a form that a step is limited to: how far into the range each height lies; all of it where no range is set. */
export function withinRange(p: { low: number; high: number }, form: Form): (y: number) => number {
  const bounds = p.low > 0 || p.high > 0 ? wholeBoundsOf(form) : null;
  return bounds ? rangeOf(p, bounds.min[1], bounds.max[1]) : () => 1;
}

/** How far into the range a height lies, 0 below it and 1 above. @param foot and `top`, heights of the whole, metres */
export function rangeOf(p: { low: number; high: number }, foot: number, top: number): (y: number) => number {
  const [a, b] = [foot + p.low * (top - foot), foot + p.high * (top - foot)];
  return (y) => (b > a ? Math.min(1, Math.max(0, (y - a) / (b - a))) : y >= a ? 1 : 0);
}
