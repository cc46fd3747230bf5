import { Problem } from '../problem';

/** A hanging chain in a vertical plane: y = a·cosh((x − x0) / a) + y0 between x = 0 and x = span. */
export interface Catenary {
  a: number;
  x0: number;
  y0: number;
  /** Length between the ends, metres. */
  length: number;
}

/**
 * The catenary between (0, 0) and (span, rise) of a given length. With L² − rise² = (2a sinh(span / 2a))²: Bronshtein
 * and Semendyayev, Handbook of Mathematics, plane curves. Solved by Newton's method for the reduced span.
 * @param span horizontal distance of the ends, metres, above 0
 * @param rise height of the far end over the near one, metres
 * @throws Problem when the chain is shorter than the distance of its ends
 */
export function catenaryByLength(span: number, rise: number, length: number): Catenary {
  const straight = Math.hypot(span, rise);
  if (!(length > straight * (1 + 1e-9))) {
    throw new Problem(
      `A chain of ${length.toFixed(3)} m does not reach over ${straight.toFixed(3)} m.`,
      'Make it longer, or bring the ends together.',
    );
  }
  // sinh(q) / q = r for q = span / 2a: begins on the side where Newton's steps cannot overshoot.
  const r = Math.sqrt(length * length - rise * rise) / span;
  let q = r < 3 ? Math.sqrt(6 * (r - 1)) : Math.log(2 * r) + Math.log(Math.log(2 * r));
  for (let i = 0; i < 100; i++) {
    const f = Math.sinh(q) / q - r;
    const slope = (q * Math.cosh(q) - Math.sinh(q)) / (q * q);
    const next = q - f / slope;
    if (Math.abs(next - q) <= 1e-15 * q) break;
    q = next;
  }
  const a = span / (2 * q);
  const x0 = span / 2 - a * Math.atanh(rise / length);
  return { a, x0, y0: -a * Math.cosh(x0 / a), length };
}

/**
 * The catenary between (0, 0) and (span, rise) that hangs `sag` below the middle of the straight line between its ends.
 * @param sag metres, above 0
 */
export function catenaryBySag(span: number, rise: number, sag: number): Catenary {
  const straight = Math.hypot(span, rise);
  const sagOf = ({ a, x0, y0 }: Catenary): number => rise / 2 - (a * Math.cosh((span / 2 - x0) / a) + y0);
  // The sag rises with the length: doubled until it is enough, then bisected.
  let low = straight * (1 + 1e-8);
  let high = straight + 2 * sag + span;
  while (sagOf(catenaryByLength(span, rise, high)) < sag) high *= 2;
  for (let i = 0; i < 200 && high - low > 1e-13 * high; i++) {
    const middle = (low + high) / 2;
    if (sagOf(catenaryByLength(span, rise, middle)) < sag) low = middle;
    else high = middle;
  }
  return catenaryByLength(span, rise, (low + high) / 2);
}

/** Points at even lengths along a catenary: `count` pairs of distance and height, metres. The arc length is a·sinh, in closed form. */
export function catenaryPoints({ a, x0, y0, length }: Catenary, count: number): Float64Array {
  const out = new Float64Array(2 * count);
  const start = a * Math.sinh(-x0 / a);
  for (let i = 0; i < count; i++) {
    const s = start + (length * i) / (count - 1);
    const x = x0 + a * Math.asinh(s / a);
    out[2 * i] = x;
    out[2 * i + 1] = a * Math.cosh((x - x0) / a) + y0;
  }
  return out;
}
