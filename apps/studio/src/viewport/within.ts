import type { NumberParam } from '@uvrex/core';

/** A value as a parameter takes it from a hand: within its limits, whole or to a tenth of a millimetre. */
export function within({ min, max, whole }: NumberParam, value: number): number {
  const inside = Math.min(max, Math.max(min, value));
  return whole ? Math.round(inside) : Math.round(inside * 1e4) / 1e4;
}
