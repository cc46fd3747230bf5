import { zlibSync } from 'fflate';
import { soundFont } from './sfnt';

/** Sum of 32-bit words, big end first; OpenType 1.9, "Calculating checksums". */
function checksum(tag: string, bytes: Uint8Array): number {
  let sum = 0;
  for (let i = 0; i < bytes.length; i++)
    if (tag !== 'head' || i < 8 || i >= 12) sum += bytes[i] * 2 ** (8 * (3 - (i % 4)));
  return sum % 2 ** 32;
}

type Table = [tag: string, bytes: Uint8Array];
const words = (...values: [number, 16 | 32][]): Uint8Array => {
  const bytes = new Uint8Array(values.reduce((sum, [, bits]) => sum + bits / 8, 0));
  const view = new DataView(bytes.buffer);
  let at = 0;
  for (const [value, bits] of values) {
    if (bits === 16) view.setUint16(at, value);
    else view.setUint32(at, value);
    at += bits / 8;
  }
  return bytes;
};
const plain = (tag: string): Table => [tag, new Uint8Array(16)];
const OTHERS = ['head', 'hhea', 'hmtx', 'maxp'].map(plain);

/** A font file of some tables, TrueType or packed as WOFF 1.0. */
function fontOf(tables: Table[], woff = false, claimed?: number): Uint8Array {
  const [head, entry] = woff ? [44, 20] : [12, 16];
  const packed = tables.map(([, bytes]) => (woff ? zlibSync(bytes) : bytes));
  let at = head + entry * tables.length;
  const out = new Uint8Array(packed.reduce((sum, bytes) => sum + Math.ceil(bytes.length / 4) * 4, at));
  const view = new DataView(out.buffer);
  if (woff) {
    out.set(new TextEncoder().encode('wOFF'));
    view.setUint32(4, 0x00010000);
    view.setUint16(12, tables.length);
  } else {
    view.setUint32(0, 0x00010000);
    view.setUint16(4, tables.length);
  }
  tables.forEach(([tag, bytes], i) => {
    const place = head + entry * i;
    out.set(new TextEncoder().encode(tag), place);
    const numbers = woff
      ? [at, packed[i].length, claimed ?? bytes.length, checksum(tag, bytes)]
      : [checksum(tag, bytes), at, bytes.length];
    numbers.forEach((value, k) => view.setUint32(place + 4 + 4 * k, value));
    out.set(packed[i], at);
    at += Math.ceil(packed[i].length / 4) * 4;
  });
  return out;
}

/** A letter map of one subtable. */
const letterMap = (...subtable: [number, 16 | 32][]): Table => [
  'cmap',
  words([0, 16], [1, 16], [3, 16], [10, 16], [12, 32], ...subtable),
];
const groups = (...ranges: [number, number][]): Table =>
  letterMap(
    [12, 16],
    [0, 16],
    [16 + 12 * ranges.length, 32],
    [0, 32],
    [ranges.length, 32],
    ...ranges.flatMap(([first, last]): [number, 32][] => [
      [first, 32],
      [last, 32],
      [1, 32],
    ]),
  );

test('sound tables pass, packed or not', () => {
  const tables: Table[] = [groups([65, 90]), ...OTHERS];
  expect(soundFont(fontOf(tables)).byteLength).toBeGreaterThan(100);
  expect(soundFont(fontOf(tables, true)).byteLength).toBe(soundFont(fontOf(tables)).byteLength);
});

test('a letter map that claims more letters than there are is refused before anybody writes them down', () => {
  expect(() => soundFont(fontOf([groups([0, 0xffffffff]), ...OTHERS]))).toThrow(/more letters than there are/);
  expect(() => soundFont(fontOf([groups([0, 700_000], [0, 700_000]), ...OTHERS]))).toThrow(/more letters/);
  expect(() => soundFont(fontOf([groups([0, 0x10ffff]), ...OTHERS]))).not.toThrow();
  const segments = 4000;
  const many: [number, 16][] = [
    [4, 16],
    [0, 16],
    [0, 16],
    [2 * segments, 16],
    [0, 16],
    [0, 16],
    [0, 16],
    ...Array.from({ length: segments }, (): [number, 16] => [0xffff, 16]),
    ...Array.from({ length: 3 * segments + 1 }, (): [number, 16] => [0, 16]),
  ];
  expect(() => soundFont(fontOf([letterMap(...many), ...OTHERS]))).toThrow(/more letters/);
  expect(() => soundFont(fontOf([['cmap', words([0, 16], [9, 16])], ...OTHERS]))).toThrow(/cut off/);
});

test('tables that are listed twice, or unpack to more than a font holds, are refused unread', () => {
  const twice: Table[] = [groups([65, 90]), ...OTHERS, plain('head')];
  expect(() => soundFont(fontOf(twice, true))).toThrow(/lists a table twice/);
  const large: Table[] = [groups([65, 90]), ...OTHERS, plain('GPOS')];
  expect(() => soundFont(fontOf(large, true, 40e6))).toThrow(/unpack to more than 48 MB/);
});

test('kerning that claims more pairs than it holds is refused before anybody writes them down', () => {
  // All classes squared, each pair without a value.
  const claims = [1, 0, 0, 0, 10, 1, 4, 2, 0, 1, 8, 2, 0, 0, 0, 0, 0, 0xffff, 0xffff];
  const kerning: Table = ['GPOS', words(...claims.map((value): [number, 16] => [value, 16]))];
  expect(() => soundFont(fontOf([groups([65, 90]), ...OTHERS, kerning]))).toThrow(/kerning claims more/);
});
