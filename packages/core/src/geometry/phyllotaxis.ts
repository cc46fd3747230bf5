import { add, cross, scale, unit, type Vec3 } from './vec';

export type Receptacle = 'disc' | 'dome' | 'cone' | 'cylinder';

/** The surface that florets sit on: its radius and height, metres. */
export interface ReceptacleShape {
  which: Receptacle;
  radius: number;
  height: number;
}

/** Where a floret sits. */
export interface Floret {
  position: Vec3;
  /** Away from the surface. */
  up: Vec3;
  /** Level, square to `up`: with up × along pointing outwards. */
  along: Vec3;
}

/** Surface area that florets share, square metres. */
export function areaOf({ which, radius, height }: ReceptacleShape): number {
  switch (which) {
    case 'disc':
      return Math.PI * radius ** 2;
    case 'cone':
      return Math.PI * radius * Math.hypot(radius, height);
    case 'cylinder':
      return 2 * Math.PI * radius * height;
    case 'dome': {
      // Of half a spheroid, by its closed forms.
      if (Math.abs(height - radius) < 1e-9 * radius) return 2 * Math.PI * radius ** 2;
      if (height < radius) {
        const e = Math.sqrt(1 - (height / radius) ** 2);
        return Math.PI * radius ** 2 * (1 + ((1 - e * e) / e) * Math.atanh(e));
      }
      const e = Math.sqrt(1 - (radius / height) ** 2);
      return Math.PI * radius ** 2 * (1 + (height / (radius * e)) * Math.asin(e));
    }
  }
}

/**
 * A floret by its share of the area inside it, so that all have the same room: on a disc the radius goes with the square
 * root of the number (Vogel, A better way to construct the sunflower head, Mathematical Biosciences 44, 1979).
 * @param inner share 0..1 of the surface that lies inside, or above
 * @param turn about the axis, radians
 */
export function floretAt({ which, radius, height }: ReceptacleShape, inner: number, turn: number): Floret {
  const out: Vec3 = [Math.cos(turn), 0, -Math.sin(turn)];
  const along: Vec3 = [Math.sin(turn), 0, Math.cos(turn)];
  const root = Math.sqrt(Math.max(0, inner));
  const on = (r: number, y: number, up: Vec3): Floret => ({ position: add(scale(out, r), [0, y, 0]), up, along });
  switch (which) {
    case 'disc':
      return on(radius * root, 0, [0, 1, 0]);
    case 'cone':
      return on(radius * root, height * (1 - root), unit([out[0] * height, radius, out[2] * height]));
    case 'cylinder':
      return on(radius, height * (1 - inner), out);
    case 'dome': {
      const cos = heightOfShare(radius, height, inner);
      const sin = Math.sqrt(Math.max(0, 1 - cos * cos));
      return on(radius * sin, height * cos, unit([out[0] * sin * height, radius * cos, out[2] * sin * height]));
    }
  }
}

/**
 * How high on a dome, as a share of its height, the ring lies that has a share of the area above it. The area of a spheroid from its
 * top down to there is 2πR ∫ √(H² + (R² − H²) t²) dt (Bronshtein and Semendyayev, Handbook of Mathematics, section 8.2.2.3, areas
 * of revolution), in closed form; its root by Newton's method, which converges from either side as the integrand never vanishes.
 */
function heightOfShare(radius: number, height: number, inner: number): number {
  const k = radius * radius - height * height;
  const rate = (t: number): number => Math.sqrt(height * height + k * t * t);
  const below = (t: number): number => {
    const root = Math.sqrt(Math.abs(k));
    if (root < 1e-6 * radius) return height * t;
    const turn = k > 0 ? Math.asinh((root * t) / height) : Math.asin(Math.min(1, (root * t) / height));
    return (t * rate(t) + (height * height * turn) / root) / 2;
  };
  const goal = (1 - inner) * below(1);
  let t = 1 - inner;
  for (let round = 0; round < 40; round++) {
    const step = (below(t) - goal) / rate(t);
    t = Math.min(1, Math.max(0, t - step));
    if (Math.abs(step) < 1e-14) break;
  }
  return t;
}

/** The third direction of a floret's frame: towards the axis. */
export const inwards = ({ up, along }: Floret): Vec3 => cross(along, up);
