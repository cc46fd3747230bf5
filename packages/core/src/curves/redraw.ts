import { type Anchor, distance, type Vec3 } from '../geometry/vec';

const placeOf = ([x, y, z]: Anchor): Vec3 => [x, y, z];

/**
 * Puts a stroke in the place of the part of a path that it begins and ends nearest to; the rest stays. A stroke drawn
 * against the path's direction is turned round. Anchors of the stroke take size and lean of the part's ends.
 * @param anchors of an open path, two or more
 * @param stroke anchors of the new part, two or more
 */
export function redrawPart(anchors: readonly Anchor[], stroke: readonly Anchor[]): Anchor[] {
  const nearest = (to: Anchor): number =>
    anchors.reduce(
      (best, anchor, i) =>
        distance(placeOf(anchor), placeOf(to)) < distance(placeOf(anchors[best]), placeOf(to)) ? i : best,
      0,
    );
  let [first, last] = [nearest(stroke[0]), nearest(stroke[stroke.length - 1])];
  let part = [...stroke];
  if (first > last) {
    part.reverse();
    [first, last] = [last, first];
  }
  // Both ends nearest to one anchor: the stroke is a bulge there.
  const [, , , size, lean] = anchors[first];
  if (size !== undefined)
    part = part.map(([x, y, z]) => (lean === undefined ? [x, y, z, size] : [x, y, z, size, lean]));
  return [...anchors.slice(0, first), ...part, ...anchors.slice(last + 1)];
}
