import { orderOf } from './order';
import { columnLabel } from './words';

test('rows are sorted by value, up and down; what has none comes last, equals keep their order', () => {
  const values = Float32Array.of(3, NaN, 1, 2, 1);
  expect([...orderOf(values, 'asc')]).toEqual([2, 4, 3, 0, 1]);
  expect([...orderOf(values, 'desc')]).toEqual([0, 3, 2, 4, 1]);
});

test('columns are called by words, with their axis or channel', () => {
  expect(columnLabel({ name: 'positions', part: 1 })).toBe('Position Y');
  expect(columnLabel({ name: 'colors', part: 2 })).toBe('Colour Blue');
  expect(columnLabel({ name: 'tide mark', part: null })).toBe('tide mark');
});
