import { linearOf, srgbOf } from './srgb';

// IEC 61966-2-1: linear below 0.04045, a power of 2.4 above; middle grey of 8 bits, 188, is about half the light.
test('sRGB and back, over both parts of the curve', () => {
  for (let c = 0; c <= 1; c += 1 / 512) expect(srgbOf(linearOf(c))).toBeCloseTo(c, 6);
  expect(linearOf(0.04)).toBeCloseTo(0.04 / 12.92, 12);
  expect(linearOf(188 / 255)).toBeCloseTo(0.503, 3);
  expect([linearOf(0), linearOf(1), srgbOf(0), srgbOf(1)].map((x) => Number(x.toFixed(12)))).toEqual([0, 1, 0, 1]);
});
