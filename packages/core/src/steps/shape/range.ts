import { wholeBoundsOf } from '../../geometry/extent';
import type { Form } from '../../geometry/form';

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
