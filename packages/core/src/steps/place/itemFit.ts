import type { Hang } from '../../curves/slots';
import { about, NO_TURN, type Turn, turnedBy } from '../../geometry/turns';
import { add, scale, sub, type Vec3 } from '../../geometry/vec';
import type { ItemShape } from './items';

/** What placing has to know of an item: its forward axis, its length along it, and where its middle lies on it. */
export interface Fit {
  axis: number;
  length: number;
  /** How it hangs in its neighbours. */
  hang: Hang;
  /** Its way across once its forward axis is Y: the wider one. */
  across: Vec3;
  middle: number;
  /** The middle of its box. */
  centre: Vec3;
  aligned: Turn;
}

/** How an item lies along its forward axis. @param forward `x`, `y`, `z`, or `auto` for its longest side */
export function fitOf({ min, max, pitch }: ItemShape, forward: string): Fit {
  const sizes = sub(max, min);
  const axis = forward === 'auto' ? sizes.indexOf(Math.max(...sizes)) : 'xyz'.indexOf(forward);
  const aligned = alignment(axis);
  // A link reaches into the next by its wire at both ends.
  const wire = pitch === null ? 0 : Math.max(0, (sizes[axis] - pitch) / 2);
  const wide = Math.max(...sizes.filter((_, c) => c !== axis));
  const hang = { wire, wide, room: Math.max(1e-6, wide - 3 * wire) };
  return {
    axis,
    length: pitch ?? sizes[axis],
    hang,
    across: turnedBy(
      aligned,
      axisOf(sizes.reduce((best, size, c) => (c !== axis && (best === axis || size > sizes[best]) ? c : best), axis)),
    ),
    middle: (min[axis] + max[axis]) / 2,
    centre: scale(add(min, max), 0.5),
    aligned,
  };
}

/** The unit vector of an axis, by its number. */
export const axisOf = (axis: number): Vec3 => [axis === 0 ? 1 : 0, axis === 1 ? 1 : 0, axis === 2 ? 1 : 0];

/** The turn that brings an item's forward axis to Y. */
function alignment(axis: number): Turn {
  if (axis === 0) return about([0, 0, 1], Math.PI / 2);
  return axis === 2 ? about([1, 0, 0], -Math.PI / 2) : NO_TURN;
}
