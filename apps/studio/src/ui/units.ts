import { figure, fittedNumber, formulaValue, type NumberParam, type Unit } from '@uvrex/core';

interface UnitStyle {
  /** Written behind the figure. */
  sign: string;
  /** Shown figure = stored value × factor. */
  factor: number;
  decimals: number;
}

const UNITS: Record<Unit, UnitStyle> = {
  m: { sign: 'm', factor: 1, decimals: 3 },
  deg: { sign: '°', factor: 1, decimals: 1 },
  share: { sign: '%', factor: 100, decimals: 1 },
  count: { sign: '', factor: 1, decimals: 0 },
  turns: { sign: 'turns', factor: 1, decimals: 2 },
  s: { sign: 's', factor: 1, decimals: 2 },
  frames: { sign: 'frames', factor: 1, decimals: 1 },
  'per-second': { sign: '/ s', factor: 1, decimals: 2 },
  hz: { sign: 'Hz', factor: 1, decimals: 0 },
  plain: { sign: '', factor: 1, decimals: 3 },
};

export const unitOf = (unit: Unit): UnitStyle => UNITS[unit];

/** A stored value as people read it, without its sign. */
export const shownFigure = (value: number, unit: Unit): string =>
  figure(value * UNITS[unit].factor, UNITS[unit].decimals);

/** What a sum such as 2*0.07 comes to; NaN for what is none. */
function worked(text: string): number {
  if (/[;=]/.test(text)) return NaN;
  try {
    return formulaValue(text, () => undefined);
  } catch {
    return NaN;
  }
}

/** The stored value that a person's text means, a sum worked out, its sign allowed behind it; NaN when it is no number. */
export function typedValue(text: string, unit: Unit): number {
  const { sign, factor } = UNITS[unit];
  let bare = text.trim();
  if (sign && bare.endsWith(sign)) bare = bare.slice(0, -sign.length).trim();
  // A comma as the decimal sign, as many keyboards write it.
  if (/^[-+]?\d*,\d+$/.test(bare)) bare = bare.replace(',', '.');
  if (bare === '') return NaN;
  const plain = Number(bare);
  return (Number.isNaN(plain) ? worked(bare) : plain) / factor;
}

/** What a hand means that drags, slides or steps a number: a figure without dust, within what the field allows. */
export function draggedValue(spec: NumberParam, raw: number): number {
  if (spec.whole) return fittedNumber(spec, raw);
  const [low, high] = spec.slider ?? [spec.min, spec.max];
  // A thousandth of the reach is finer than any hand.
  const grain = 10 ** Math.floor(Math.log10((high - low) / 1000));
  return fittedNumber(spec, Number((Math.round(fittedNumber(spec, raw) / grain) * grain).toPrecision(12)));
}
