/** Golden angle: 360° (1 − 1/φ), degrees, to double precision. */
export const GOLDEN_ANGLE = 360 * (1 - 2 / (1 + Math.sqrt(5)));
