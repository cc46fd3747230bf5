import { paramFault, STEPS } from '@uvrex/core';
import { draggedValue, shownFigure, typedValue } from './units';

test('shares are shown in percent and stored 0..1', () => {
  expect(shownFigure(0.684, 'share')).toBe('68.4');
  expect(typedValue('68.4 %', 'share')).toBeCloseTo(0.684, 12);
  expect(typedValue('68.4', 'share')).toBeCloseTo(0.684, 12);
});

test('units may be typed, a comma may be the decimal sign, and what is no number is refused', () => {
  expect(typedValue(' 0.12 m', 'm')).toBe(0.12);
  expect(typedValue('0,12', 'm')).toBe(0.12);
  expect(typedValue('-1.5e-2', 'm')).toBe(-0.015);
  for (const text of ['', 'many', '1 2', '%']) expect(typedValue(text, 'share')).toBeNaN();
});

test('sums are worked out, in the unit of the field; names mean nothing there', () => {
  expect(typedValue('2*0.07', 'm')).toBeCloseTo(0.14, 12);
  expect(typedValue('(1 + 2) / 4 m', 'm')).toBe(0.75);
  expect(typedValue('100 / 3 %', 'share')).toBeCloseTo(1 / 3, 12);
  expect(typedValue('360 / 137.508', 'plain')).toBeCloseTo(2.618, 3);
  for (const text of ['frame * 2', '2 *', '1 / 0', '2; 3', 'random(1)(2)'])
    expect(Number.isFinite(typedValue(text, 'm'))).toBe(false);
});

test('whatever a hand does to any number of any step, the field gives a value that its step takes', () => {
  const numbers = STEPS.flatMap(({ params }) => Object.values(params).filter((spec) => spec.type === 'number'));
  expect(numbers.length).toBeGreaterThan(200);
  for (const spec of numbers) {
    const [low, high] = spec.slider ?? [spec.min, spec.max];
    for (const raw of [
      -Infinity,
      spec.min - 1,
      spec.min,
      low,
      0,
      (low + high) / 3,
      high,
      spec.max,
      spec.max + 1,
      1e300,
    ])
      expect([spec.label, raw, paramFault(spec, draggedValue(spec, raw))]).toEqual([spec.label, raw, null]);
  }
});
