import { gradientTable, type Stop } from './gradient';

/**
 * The scale in which attributes are shown: even steps of a value are even steps in Oklab, lightness rises all the way, and it
 * reads in grey as well (Kovesi, Good colour maps: how to design them, 2015).
 */
export const VALUE_SCALE: readonly Stop[] = [
  { at: 0, color: '#311969' },
  { at: 0.1052, color: '#273582' },
  { at: 0.2112, color: '#035194' },
  { at: 0.2965, color: '#016693' },
  { at: 0.3945, color: '#067e98' },
  { at: 0.4955, color: '#03979d' },
  { at: 0.5859, color: '#0dad9d' },
  { at: 0.6817, color: '#40c296' },
  { at: 0.7878, color: '#80d48c' },
  { at: 0.8934, color: '#b8e385' },
  { at: 1, color: '#edf085' },
];

const SIZE = 256;
let table: Float32Array | null = null;

/**
 * Colours of values, linear RGB each, from the scale's beginning at `low` to its end at `high`; what has no value is grey.
 * @returns 3n
 */
export function falseColours(values: ArrayLike<number>, low: number, high: number): Float32Array {
  const colours = new Float32Array(3 * values.length);
  for (let i = 0; i < values.length; i++) putFalseColour(colours, i, values[i], low, high);
  return colours;
}

/** Puts the colour of one value at place i of an array of colours. */
export function putFalseColour(to: Float32Array, i: number, value: number, low: number, high: number): void {
  table ??= gradientTable(VALUE_SCALE, SIZE);
  if (Number.isNaN(value)) {
    to.fill(0.12, 3 * i, 3 * i + 3);
    return;
  }
  const share = high > low ? (value - low) / (high - low) : value >= high ? 1 : 0;
  const at = 3 * Math.round((SIZE - 1) * Math.min(1, Math.max(0, share)));
  for (let c = 0; c < 3; c++) to[3 * i + c] = table[at + c];
}
