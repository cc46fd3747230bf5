/** A helix about the Y axis; angles run anticlockwise seen from above. */
export interface HelixShape {
  /** Radius at the base and at the top, metres. */
  below: number;
  above: number;
  /** Rise, metres. */
  height: number;
  /** Full turns; negative ones wind clockwise. */
  turns: number;
  /** Angle of the first point from the X axis towards −Z, degrees. */
  start: number;
}

/** Points of a helix at even angles: `count` xyz triples in metres. On a cylinder they are evenly spaced too. */
export function helixPoints(shape: HelixShape, count: number): Float64Array {
  const out = new Float64Array(3 * count);
  for (let i = 0; i < count; i++) {
    const t = i / (count - 1);
    const angle = (shape.start * Math.PI) / 180 + 2 * Math.PI * shape.turns * t;
    const radius = shape.below + (shape.above - shape.below) * t;
    out[3 * i] = radius * Math.cos(angle);
    out[3 * i + 1] = shape.height * t;
    out[3 * i + 2] = -radius * Math.sin(angle);
  }
  return out;
}
