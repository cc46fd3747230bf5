/**
 * An Archimedean spiral r = a + bθ, by its arc length from θ = 0 (Bronshtein and Semendyayev, Handbook of Mathematics,
 * section 2.14.1): its turns are 2πb apart.
 */
export interface Spiral {
  /** Radius at its core, metres. */
  a: number;
  /** Growth of the radius, metres a radian. */
  b: number;
}

/** Arc length up to an angle, metres. */
export const spiralLength = ({ a, b }: Spiral, angle: number): number =>
  b === 0 ? a * angle : lengthTo(a + b * angle, b) - lengthTo(a, b);

/** Arc length up to a radius from where the radius is nothing. */
const lengthTo = (r: number, b: number): number => (r * Math.sqrt(r * r + b * b) + b * b * Math.asinh(r / b)) / (2 * b);

/** The angle at an arc length, by Newton's method. */
export function spiralAngle(spiral: Spiral, length: number): number {
  const { a, b } = spiral;
  if (length <= 0) return 0;
  if (b === 0) return length / a;
  // Slow growth of the radius left aside, the length is aθ + bθ²/2: so near the root that few rounds are needed.
  let angle = (Math.sqrt(a * a + 2 * b * length) - a) / b;
  for (let round = 0; round < 8; round++) {
    const step = (spiralLength(spiral, angle) - length) / Math.sqrt((a + b * angle) ** 2 + b * b);
    angle -= step;
    if (Math.abs(step) < 1e-9 * Math.max(1, angle)) break;
  }
  return angle;
}

/** A place in a plane with the direction of the curve there. */
export interface Planar {
  x: number;
  y: number;
  /** Unit vector along the curve. */
  tx: number;
  ty: number;
}

/**
 * A strip of which a length from its end is rolled up: straight along +x up to where the roll begins at the origin, then
 * round in a spiral towards its core, turning to +y. No two turns come closer than the spiral's own spacing.
 * @param rolled length that is rolled up, metres
 * @returns where a length from the beginning of the roll comes to lie, metres: below 0 on the straight part, at `rolled` the core
 */
export function rolledStrip(spiral: Spiral, rolled: number): (along: number) => Planar {
  const straight = (along: number): Planar => ({ x: along, y: 0, tx: 1, ty: 0 });
  if (rolled <= 0) return straight;
  const start = polar(spiral, spiralAngle(spiral, rolled));
  // The spiral is turned and moved so that it begins at the origin, running along +x.
  const turn = -Math.atan2(start.ty, start.tx);
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return (along) => {
    if (along <= 0) return straight(along);
    const point = polar(spiral, spiralAngle(spiral, Math.max(0, rolled - along)));
    const [dx, dy] = [point.x - start.x, point.y - start.y];
    return {
      x: c * dx - s * dy,
      y: s * dx + c * dy,
      tx: c * point.tx - s * point.ty,
      ty: s * point.tx + c * point.ty,
    };
  };
}

/** The spiral run inwards: the angle of travel falls, so that the curve turns to the left. */
function polar({ a, b }: Spiral, angle: number): Planar {
  const r = a + b * angle;
  const [c, s] = [Math.cos(angle), -Math.sin(angle)];
  // d/dt of r(angle)·(cos(−angle), sin(−angle)) as the angle falls.
  const [vx, vy] = [-b * c - r * s, -b * s + r * c];
  const length = Math.sqrt(vx * vx + vy * vy) || 1;
  return { x: r * c, y: r * s, tx: vx / length, ty: vy / length };
}
