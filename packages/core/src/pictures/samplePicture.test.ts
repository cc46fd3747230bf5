import type { Picture } from './readPicture';
import { type Wrap, lumaOf, pictureSampler } from './samplePicture';
import { TEXTURE_SIDE, texturePixels } from './texturePixels';

const of = (width: number, pixels: readonly (readonly number[])[], most = 255): Picture => ({
  width,
  height: pixels.length / width,
  rgba: most === 255 ? Uint8Array.from(pixels.flat()) : Uint16Array.from(pixels.flat()),
  most,
});
const read = (picture: Picture, wrap: Wrap, x: number, y: number): number[] => {
  const out = new Float64Array(4);
  pictureSampler(picture, wrap)(x, y, out);
  return [...out];
};
const grey = (value: number): number[] => [value, value, value, 255];

test('linear between the middles of pixels, from the bottom up', () => {
  // Rows from the top: 0 100 / 200 50.
  const picture = of(2, [0, 100, 200, 50].map(grey));
  const value = (x: number, y: number): number => 255 * read(picture, 'edge', x, y)[0];
  expect([value(0.25, 0.75), value(0.75, 0.75), value(0.25, 0.25), value(0.75, 0.25)]).toEqual(
    [0, 100, 200, 50].map((exact) => expect.closeTo(exact, 9)),
  );
  // In the middle of all four: their mean; a quarter of the way between two.
  expect(value(0.5, 0.5)).toBeCloseTo(350 / 4, 9);
  expect(value(0.375, 0.25)).toBeCloseTo(200 - 150 / 4, 9);
});

test('beyond the edge: its outermost pixels, it again, or nothing', () => {
  const picture = of(2, [grey(0), grey(255)]);
  expect(read(picture, 'edge', 1.7, 0.5)[0]).toBe(1);
  expect(read(picture, 'edge', -3, 9)).toEqual([0, 0, 0, 1]);
  expect(read(picture, 'repeat', 1.25, -4.2)[0]).toBeCloseTo(0, 9);
  expect(read(picture, 'repeat', -0.25, 0.5)[0]).toBeCloseTo(1, 9);
  // The seam of what repeats lies half-way between the last pixel and the first.
  expect(read(picture, 'repeat', 1, 0.5)[0]).toBeCloseTo(0.5, 9);
  expect(read(picture, 'nothing', 1.01, 0.5)).toEqual([0, 0, 0, 0]);
  expect(read(picture, 'nothing', 0.99, 0.5)[0]).toBe(1);
});

test('16 bits count to their own most; what is transparent lends no colour', () => {
  expect(read(of(1, [[65535, 32768, 0, 65535]], 65535), 'edge', 0.5, 0.5)).toEqual([1, expect.closeTo(0.5, 4), 0, 1]);
  const [red, green, , opaque] = read(
    of(2, [
      [255, 0, 0, 255],
      [0, 255, 0, 0],
    ]),
    'edge',
    0.5,
    0.5,
  );
  expect([red, green, opaque]).toEqual([1, 0, 0.5]);
});

test('brightness weighs colours as ITU-R BT.709 does', () => {
  expect([lumaOf([1, 0, 0]), lumaOf([0, 1, 0]), lumaOf([0, 0, 1])]).toEqual([0.2126, 0.7152, 0.0722]);
});

describe('as a texture', () => {
  test('rows run from the bottom; what is opaque keeps its colours', () => {
    const picture = of(1, [
      [10, 20, 30, 255],
      [40, 50, 60, 128],
    ]);
    expect([...texturePixels(picture).rgba]).toEqual([40, 50, 60, 128, 10, 20, 30, 255]);
    expect(texturePixels(picture)).toBe(texturePixels(picture));
  });

  test('what is transparent takes the colours beside it, so that no rim shows', () => {
    const width = 16;
    const pixels = Array.from({ length: width * width }, (_, k) =>
      k % width < 6 ? [200, 100, 50, 255] : [0, 0, 0, 0],
    );
    const { rgba } = texturePixels(of(width, pixels));
    for (let k = 0; k < width * width; k++) {
      expect([...rgba.subarray(4 * k, 4 * k + 3)]).toEqual([200, 100, 50]);
      expect(rgba[4 * k + 3]).toBe(k % width < 6 ? 255 : 0);
    }
  });

  test('what is transparent weighs nothing in the mean of a block', () => {
    const wide = TEXTURE_SIDE + 2;
    const { rgba } = texturePixels(
      of(
        wide,
        Array.from({ length: wide }, (_, x) => (x % 2 === 0 ? [240, 0, 0, 255] : [0, 0, 240, 0])),
      ),
    );
    expect([...rgba.subarray(0, 4)]).toEqual([240, 0, 0, 128]);
  });

  test('too large ones are halved; each pixel the mean of four, of odd sides too', () => {
    const wide = TEXTURE_SIDE + 2;
    const values = Array.from({ length: wide }, (_, x) => grey(x % 2 === 0 ? 0 : 200));
    const { width, height, rgba } = texturePixels(of(wide, values));
    expect([width, height]).toEqual([TEXTURE_SIDE / 2 + 1, 1]);
    expect(new Set(rgba.filter((_, i) => i % 4 === 0))).toEqual(new Set([100]));
    // A side is divided by powers of two: five times as long comes to an eighth.
    expect(
      texturePixels(
        of(
          5 * TEXTURE_SIDE,
          Array.from({ length: 5 * TEXTURE_SIDE }, () => grey(7)),
        ),
      ).width,
    ).toBe((5 * TEXTURE_SIDE) / 8);
  });
});
