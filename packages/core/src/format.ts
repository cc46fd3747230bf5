/**
 * Figures for summaries: up to two decimals, no trailing zeros.
 *
 * @example
 * figure(0.1 + 0.2); // → '0.3'
 */
export const figure = (value: number, decimals = 2): string => String(Number(value.toFixed(decimals)));

/** A length with its unit, as summaries write it. */
export const metres = (value: number): string => `${figure(value)} m`;
/** A share in per cent. */
export const percent = (value: number): string => `${figure(100 * value, 1)} %`;
/** A factor, with its sign. */
export const factor = (value: number): string => `${figure(value)} ×`;
/** A number of things, with the thing in the singular or plural. */
export const formatCount = (n: number, one: string): string =>
  `${n.toLocaleString('en-GB')} ${n === 1 ? one : `${one}s`}`;
