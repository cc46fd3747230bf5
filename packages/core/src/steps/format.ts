/**
 * Figures for summaries: up to two decimals, no trailing zeros.
 *
 * @example
 * figure(0.1 + 0.2); // → '0.3'
 */
export const figure = (value: number, decimals = 2): string => String(Number(value.toFixed(decimals)));

export const metres = (value: number): string => `${figure(value)} m`;
export const percent = (value: number): string => `${figure(100 * value, 1)} %`;
export const factor = (value: number): string => `${figure(value)} ×`;
export const formatCount = (n: number, one: string): string =>
  `${n.toLocaleString('en-GB')} ${n === 1 ? one : `${one}s`}`;
