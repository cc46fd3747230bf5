import { after, about, type Turn, turnedBy } from '../geometry/turns';
import { sub, type Vec3 } from '../geometry/vec';

/** A shape in space that weighs what is inside it. */
export interface FalloffShape {
  which: 'plane' | 'ball' | 'box';
  centre: Vec3;
  /** Turns about X, then Y, then Z, degrees. */
  rotation: Vec3;
  /** Widths of the box; a ball takes half of the first for its radius. */
  size: Vec3;
  /** Metres over which the weight goes from 1 inside to 0 outside, half on each side of the border. */
  soft: number;
  /** Metres by which the border lies further out than the shape's own; below 0 further in. */
  shift?: number;
}

export const rotationOf = ([x, y, z]: Vec3): Turn => {
  const rad = Math.PI / 180;
  return after(about([0, 0, 1], z * rad), after(about([0, 1, 0], y * rad), about([1, 0, 0], x * rad)));
};

const back = ([x, y, z, w]: Turn): Turn => [-x, -y, -z, w];

/**
 * Signed distance to a shape's border, metres, below 0 inside: of a plane the side that its Y axis points away from, of
 * a box by the closed form of the rounded box (Quilez, Distance functions).
 */
export function borderDistance(shape: FalloffShape): (place: Vec3) => number {
  const turn = back(rotationOf(shape.rotation));
  const [hx, hy, hz] = [shape.size[0] / 2, shape.size[1] / 2, shape.size[2] / 2];
  return (place) => {
    const [x, y, z] = turnedBy(turn, sub(place, shape.centre));
    if (shape.which === 'plane') return y;
    if (shape.which === 'ball') return Math.hypot(x, y, z) - hx;
    const [dx, dy, dz] = [Math.abs(x) - hx, Math.abs(y) - hy, Math.abs(z) - hz];
    const outside = Math.hypot(Math.max(dx, 0), Math.max(dy, 0), Math.max(dz, 0));
    return outside + Math.min(Math.max(dx, dy, dz), 0);
  };
}

/** Weight 0..1 at a place: 1 well inside, 0 well outside, in a straight line between. */
export function falloffWeight(shape: FalloffShape): (place: Vec3) => number {
  const away = borderDistance(shape);
  return (place) => {
    const d = away(place) - (shape.shift ?? 0);
    if (shape.soft <= 0) return d <= 0 ? 1 : 0;
    return Math.min(1, Math.max(0, 0.5 - d / shape.soft));
  };
}
