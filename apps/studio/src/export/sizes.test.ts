import { rangeFault, sizeFault, SIZES } from './sizes';

test('every offered size can be made', () => {
  for (const { width, height } of SIZES) expect(sizeFault(width, height)).toBeNull();
});

test.each([
  [641, 360],
  [640, 8],
  [5000, 360],
  [NaN, 360],
  [640.5, 360],
])('%p × %p is refused', (width, height) => {
  expect(sizeFault(width, height)).toMatch(/must be/);
});

test('ranges run forwards over whole frames, within reason', () => {
  expect(rangeFault(1, 144)).toBeNull();
  expect(rangeFault(5, 5)).toBeNull();
  expect(rangeFault(9, 2)).toMatch(/before/);
  expect(rangeFault(1.5, 2)).toMatch(/whole/);
  expect(rangeFault(0, 50000)).toMatch(/parts/);
});
