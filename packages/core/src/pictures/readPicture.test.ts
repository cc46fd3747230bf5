import { crc32, deflateSync } from 'node:zlib';
import sharp, { type Sharp } from 'sharp';
import { MOST_PIXELS, readPicture } from './readPicture';
import { uprightBytes } from './uprightBytes';

// Beside sharp (libvips with libpng and libjpeg): it writes the files, and says what is in them.

/** A picture with all colours and opacities somewhere, as raw values of 8 bits. */
const raw = (width: number, height: number, channels: 3 | 4): Buffer =>
  Buffer.from(
    Array.from({ length: width * height * channels }, (_, i) => {
      const [c, x, y] = [i % channels, Math.floor(i / channels) % width, Math.floor(i / channels / width)];
      return c === 3 ? (x * 37 + y * 11) % 256 : (c * 80 + x * 13 + y * (7 + c)) % 256;
    }),
  );
const picture = (channels: 3 | 4, width = 21, height = 13) =>
  sharp(raw(width, height, channels), { raw: { width, height, channels } });
const bytesOf = async (of: Sharp): Promise<Uint8Array> => new Uint8Array(await of.toBuffer());
const toldBySharp = async (bytes: Uint8Array): Promise<number[]> => [
  ...(await sharp(bytes).toColourspace('srgb').ensureAlpha().raw().toBuffer()),
];

test.each([
  ['three colours', picture(3).png()],
  ['with opacity', picture(4).png()],
  ['interlaced', picture(4).png({ progressive: true })],
  ['with a palette', picture(3).png({ palette: true, colours: 12 })],
  ['with a palette of two', picture(3).png({ palette: true, colours: 2 })],
  ['with a palette and opacity', picture(4).png({ palette: true, colours: 40 })],
  ['greys', picture(3).toColourspace('b-w').png()],
])('PNG: %s', async (_, written) => {
  const bytes = await bytesOf(written);
  const { width, height, rgba, most } = readPicture(bytes);
  expect([width, height, most]).toEqual([21, 13, 255]);
  expect([...rgba]).toEqual(await toldBySharp(bytes));
});

test('PNG: 16 bits keep every step', async () => {
  const values = Uint16Array.from({ length: 300 }, (_, i) => 211 * i);
  const bytes = await bytesOf(
    sharp(values, { raw: { width: 20, height: 15, channels: 1 } })
      .toColourspace('grey16')
      .png(),
  );
  const { rgba, most } = readPicture(bytes);
  expect(most).toBe(65535);
  expect(Array.from(values, (_, i) => rgba[4 * i + 1])).toEqual([...values]);
  expect(new Set(rgba.filter((_, i) => i % 4 === 3))).toEqual(new Set([65535]));
});

/** A PNG by the standard (ISO/IEC 15948): greys of few bits a pixel, and a grey that stands for nothing. */
function greys(depth: 1 | 2 | 4, rows: readonly (readonly number[])[], hidden?: number): Uint8Array {
  const chunk = (name: string, data: Uint8Array): Buffer => {
    const body = Buffer.concat([Buffer.from(name, 'latin1'), data]);
    const ends = Buffer.alloc(8);
    ends.writeUInt32BE(data.length, 0);
    ends.writeUInt32BE(crc32(body), 4);
    return Buffer.concat([ends.subarray(0, 4), body, ends.subarray(4)]);
  };
  const head = Buffer.alloc(13);
  head.writeUInt32BE(rows[0].length, 0);
  head.writeUInt32BE(rows.length, 4);
  head[8] = depth;
  const lines = rows.flatMap((row) => {
    const line = new Uint8Array(1 + Math.ceil((row.length * depth) / 8));
    row.forEach((value, x) => (line[1 + ((x * depth) >> 3)] |= value << (8 - depth - ((x * depth) & 7))));
    return [...line];
  });
  return new Uint8Array(
    Buffer.concat([
      Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
      chunk('IHDR', head),
      ...(hidden === undefined ? [] : [chunk('tRNS', Uint8Array.of(0, hidden))]),
      chunk('IDAT', deflateSync(Uint8Array.from(lines))),
      chunk('IEND', new Uint8Array(0)),
    ]),
  );
}

test.each([
  [1, 1],
  [2, 3],
  [4, 15],
] as const)('PNG: greys of %d bits run from black to white, rows of odd widths', async (depth, white) => {
  const rows = [0, 1, 2].map((y) => Array.from({ length: 7 }, (_, x) => (x + 3 * y) % (white + 1)));
  const bytes = greys(depth, rows);
  const { rgba } = readPicture(bytes);
  expect(rows.flat().map((_, i) => rgba[4 * i])).toEqual(rows.flat().map((value) => (255 / white) * value));
  expect([...rgba]).toEqual(await toldBySharp(bytes));
});

test('PNG: a grey that stands for nothing is transparent, others are not', () => {
  const { rgba } = readPicture(greys(4, [[3, 9, 3]], 9));
  expect([rgba[3], rgba[7], rgba[11]]).toEqual([255, 0, 255]);
});

test('JPEG: within the rounding of its transform', async () => {
  const smooth = Buffer.from(
    Array.from({ length: 3 * 48 * 40 }, (_, i) => 128 + 100 * Math.sin(Math.floor(i / 3) / 190 + (i % 3))),
  );
  const bytes = await bytesOf(
    sharp(smooth, { raw: { width: 48, height: 40, channels: 3 } }).jpeg({ quality: 95, chromaSubsampling: '4:4:4' }),
  );
  const { width, height, rgba, most } = readPicture(bytes);
  expect([width, height, most]).toEqual([48, 40, 255]);
  const told = await toldBySharp(bytes);
  expect(Math.max(...told.map((value, i) => Math.abs(value - rgba[i])))).toBeLessThanOrEqual(3);
  expect(readPicture(bytes)).toBe(readPicture(bytes));
});

// sharp writes Exif's orientation, and turns by it (libvips autorot).
test.each([1, 2, 3, 4, 5, 6, 7, 8])('JPEG: stands as its camera was held, orientation %i', async (orientation) => {
  const bytes = await bytesOf(
    picture(3, 24, 16).jpeg({ quality: 100, chromaSubsampling: '4:4:4' }).withMetadata({ orientation }),
  );
  const { data, info } = await sharp(bytes).autoOrient().ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  const { width, height, rgba } = readPicture(bytes);
  expect([width, height]).toEqual([info.width, info.height]);
  rgba.forEach((value, i) => expect(Math.abs(value - data[i])).toBeLessThanOrEqual(3));
});

test('for readers that go by pixels alone a turned JPEG becomes a PNG that stands so; others stay as they are', async () => {
  const turned = await bytesOf(picture(3, 24, 16).jpeg({ quality: 100 }).withMetadata({ orientation: 8 }));
  const upright = uprightBytes(turned);
  const { format, width, orientation } = await sharp(upright).metadata();
  expect({ format, width, orientation }).toEqual({ format: 'png', width: 16, orientation: undefined });
  expect([...readPicture(upright).rgba]).toEqual([...readPicture(turned).rgba]);
  for (const as of [await bytesOf(picture(3).jpeg()), await bytesOf(picture(4).png())])
    expect(uprightBytes(as)).toBe(as);
});

test('JPEG: Exif data that is cut short or wrong turns nothing', async () => {
  const bytes = await bytesOf(picture(3, 24, 16).jpeg().withMetadata({ orientation: 6 }));
  const at = bytes.findIndex((byte, i) => byte === 0xff && bytes[i + 1] === 0xe1);
  const little = bytes[at + 10] === 0x49;
  const [view, tiff] = [new DataView(bytes.buffer, bytes.byteOffset), at + 10];
  expect(readPicture(bytes.slice()).width).toBe(16);
  // The directory lies beyond its segment.
  view.setUint32(tiff + 4, 0x7fffff, little);
  expect(readPicture(bytes.slice()).width).toBe(24);
});

test('what is no picture, damaged or too large is told', async () => {
  expect(() => readPicture(new TextEncoder().encode('<svg/>'))).toThrow('The file is no PNG or JPEG.');
  expect(() => readPicture(new Uint8Array(0))).toThrow('The file is no PNG or JPEG.');
  const whole = await bytesOf(picture(4).png());
  expect(() => readPicture(whole.slice(0, 60))).toThrow(/^The picture could not be read: /);
  expect(() => readPicture(whole.slice(0, 20))).toThrow(/^The picture could not be read: /);
  const jpeg = await bytesOf(picture(3).jpeg());
  expect(() => readPicture(jpeg.slice(0, 30))).toThrow(/^The picture could not be read: /);
  // Told by the header alone, before anything is decoded.
  const claims = (bytes: Uint8Array, at: number, width: number): Uint8Array => {
    const made = bytes.slice();
    new DataView(made.buffer).setUint16(at, width);
    return made;
  };
  expect(() => readPicture(claims(whole, 16, 500))).toThrow(/ pixels; 40 million are the most\.$/);
  const frame = jpeg.findIndex((byte, i) => byte === 0xff && jpeg[i + 1] === 0xc0);
  const wide = claims(claims(jpeg, frame + 5, 60000), frame + 7, 50000);
  expect(() => readPicture(wide)).toThrow('The picture has 50000 × 60000 pixels; 40 million are the most.');
  expect(MOST_PIXELS).toBe(40e6);
});
