/**
 * A roll as the involute of a circle of radius c (Bronshtein and Semendyayev, Handbook of Mathematics, section 2.14.5):
 * (cos θ + θ sin θ, sin θ − θ cos θ) c, of length c θ²/2 from its base. Its turns are parallels, everywhere 2πc apart.
 */
export interface Coil {
  /** Radius of the circle, metres. */
  c: number;
  /** The angle at which the strip ends, next to the core, radians. */
  first: number;
}

/** Radii that are nothing would leave no curve, metres. */
const LEAST = 1e-9;

/** A roll whose turns lie `apart` and leave a core of radius `core` free, metres. */
export function coilOf(apart: number, core: number): Coil {
  const c = Math.max(LEAST, apart / (2 * Math.PI));
  return { c, first: Math.sqrt(Math.max(0, (core / c) ** 2 - 1)) };
}

/** The angle at a length from the core, metres. */
const angleAt = ({ c, first }: Coil, length: number): number => Math.sqrt(first * first + (2 * length) / c);

/** How far from the middle of the roll a length from its core comes to lie, metres. */
export const coilRadius = (coil: Coil, length: number): number => coil.c * Math.hypot(1, angleAt(coil, length));

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
 * round in a coil towards its core, turning to +y.
 * @param rolled length that is rolled up, metres
 * @returns where a length from the beginning of the roll comes to lie, metres: below 0 on the straight part, at `rolled` the core
 */
export function rolledStrip(coil: Coil, rolled: number): (along: number) => Planar {
  const straight = (along: number): Planar => ({ x: along, y: 0, tx: 1, ty: 0 });
  if (rolled <= 0) return straight;
  const start = inwards(coil, angleAt(coil, rolled));
  // The coil is turned and moved so that it begins at the origin, running along +x.
  const [c, s] = [start.tx, -start.ty];
  return (along) => {
    if (along <= 0) return straight(along);
    const point = inwards(coil, angleAt(coil, Math.max(0, rolled - along)));
    const [dx, dy] = [point.x - start.x, point.y - start.y];
    return {
      x: c * dx - s * dy,
      y: s * dx + c * dy,
      tx: c * point.tx - s * point.ty,
      ty: s * point.tx + c * point.ty,
    };
  };
}

/** The coil run inwards, which turns to the left. */
function inwards({ c }: Coil, angle: number): Planar {
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  return { x: c * (cos + angle * sin), y: -c * (sin - angle * cos), tx: -cos, ty: sin };
}

/**
 * A strip rolled up from its middle: its halves wind round each other, each the other turned half round, with all turns
 * `apart`. Two arcs lead from the middle into the coils, as wide as the core that is asked for, and as their turns need.
 * @param rolled length of each half that is rolled up, metres; what is left goes straight on, along +x
 * @returns where a distance along the half comes to lie that runs that way; the middle is the origin
 */
export function rolledFromMiddle(apart: number, core: number, rolled: number): (along: number) => Planar {
  const wide = coilOf(2 * apart, core);
  const coil = { c: wide.c, first: Math.max(1, wide.first) };
  // The one circle through the middle that runs into the coil: from a chord and the angle that it makes with the tangent.
  const half = Math.atan(coil.first);
  const radius = (coil.c * (1 + coil.first ** 2)) / (2 * coil.first);
  const arc = 2 * half * radius;
  const begin = coil.first - 2 * half;
  const on = (along: number): Planar => {
    if (along < arc) {
      const way = begin + along / radius;
      return {
        x: radius * (Math.sin(way) - Math.sin(begin)),
        y: -radius * (Math.cos(begin) - Math.cos(way)),
        tx: Math.cos(way),
        ty: -Math.sin(way),
      };
    }
    const { x, y, tx, ty } = inwards(coil, angleAt(coil, along - arc));
    return { x, y, tx: -tx, ty: -ty };
  };
  const end = rolled > 0 ? on(rolled) : { x: 0, y: 0, tx: 1, ty: 0 };
  return (along) => {
    const here = along < rolled ? on(along) : end;
    const beyond = Math.max(0, along - rolled);
    const [x, y] = [here.x + beyond * here.tx, here.y + beyond * here.ty];
    return {
      x: end.tx * x + end.ty * y,
      y: end.tx * y - end.ty * x,
      tx: end.tx * here.tx + end.ty * here.ty,
      ty: end.tx * here.ty - end.ty * here.tx,
    };
  };
}
