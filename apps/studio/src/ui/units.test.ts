import { shownFigure, typedValue } from './units';

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
