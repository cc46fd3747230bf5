/** A helix about the Y axis; angles run anticlockwise seen from above. */
export interface HelixShape {
  /** Radius at the base and at the top, metres. */
  below: number;
  above: number;
  /** Rise, metres. */
  height: number;
  /** Full turns; negative ones wind clockwise. */
  turns: number;
  /** Whether the radius changes by even amounts, or by an even factor as on a logarithmic spiral. */
  widens?: 'evenly' | 'by-factor';
  /** Angle of the first point from the X axis towards −Z, degrees. */
  start: number;
}

/**
 * Points of a helix at even angles: `count` xyz triples in metres. On a cylinder they are evenly spaced too. Where the
 * radius changes by a factor, height goes with the radius: the conical spiral r = a e^(bθ) of shells (H. Moseley, On
 * the geometrical forms of turbinated and discoid shells, Philosophical Transactions 128, 1838).
 */
export function helixPoints(shape: HelixShape, count: number): Float64Array {
  const out = new Float64Array(3 * count);
  writeHelix(shape, out, 0, count);
  return out;
}

/** So many points between two yields. */
const CHUNK = 1 << 15;

/** The same with yields in between. */
export async function helixInTime(
  shape: HelixShape,
  count: number,
  yieldNow: () => Promise<void>,
): Promise<Float64Array> {
  const out = new Float64Array(3 * count);
  for (let i = 0; i < count; i += CHUNK) {
    await yieldNow();
    writeHelix(shape, out, i, Math.min(count, i + CHUNK));
  }
  await yieldNow();
  return out;
}

/** Points `first` up to `end` of those that `out` has room for. */
function writeHelix(shape: HelixShape, out: Float64Array, first: number, end: number): void {
  const count = out.length / 3;
  const below = Math.max(shape.below, 1e-6);
  const above = Math.max(shape.above, 1e-6);
  const shell = shape.widens === 'by-factor' && below !== above;
  for (let i = first; i < end; i++) {
    const t = i / (count - 1);
    const angle = (shape.start * Math.PI) / 180 + 2 * Math.PI * shape.turns * t;
    const radius = shell ? below * (above / below) ** t : shape.below + (shape.above - shape.below) * t;
    const rise = shell ? (radius - below) / (above - below) : t;
    out[3 * i] = radius * Math.cos(angle);
    out[3 * i + 1] = shape.height * rise;
    out[3 * i + 2] = -radius * Math.sin(angle);
  }
}
