import { kerningFault } from './gpos';

const shorts = (...values: number[]): Uint8Array => {
  const bytes = new Uint8Array(2 * values.length);
  values.forEach((value, i) => new DataView(bytes.buffer).setUint16(2 * i, value));
  return bytes;
};

/** A table without scripts and features: version 1.0, then lookups. OpenType 1.9, "GPOS header", "Lookup list table". */
const table = (lookups: number[]): Uint8Array => shorts(1, 0, 0, 0, 10, ...lookups);
/** One lookup of pairs by classes, which are empty: each pair of them has a value of these formats. */
const byClasses = (first: number, second: number, format: number, values: number[] = []): number[] => [
  ...[1, 4, 2, 0, 1, 8],
  ...[2, 0, format, 0, 0, 0, first, second, ...values],
];

test('pairs of classes that stand in the table pass', () => {
  expect(kerningFault(table(byClasses(3, 4, 4, Array<number>(12).fill(-50 & 0xffff))))).toBeNull();
  expect(kerningFault(table(byClasses(1, 1, 0)))).toBeNull();
});

test('pairs of classes without any value, as many as there are glyphs squared, are refused', () => {
  // Four thousand million of them, in 52 bytes.
  expect(kerningFault(table(byClasses(0xffff, 0xffff, 0)))).toMatch(/more than it holds/);
});

test('what is pointed to again and again is counted each time', () => {
  const many = 400;
  const pairs = 300;
  // One set of pairs that hundreds of offsets point to.
  const again = table([
    ...[1, 4, 2, 0, 1, 8],
    ...[1, 0, 4, 0, many, ...Array<number>(many).fill(10 + 2 * many), pairs, ...Array<number>(2 * pairs).fill(1)],
  ]);
  expect(kerningFault(again)).toMatch(/more than it holds/);
  const once = table([...[1, 4, 2, 0, 1, 8], ...[1, 0, 4, 0, 2, 14, 14, pairs, ...Array<number>(2 * pairs).fill(1)]]);
  expect(kerningFault(once)).toBeNull();
  // Scripts of which each lists the same languages.
  const scripts = Array.from({ length: many }, () => [0, 0, 2 + 6 * many]).flat();
  expect(kerningFault(shorts(1, 0, 10, 0, 0, many, ...scripts, 0, many, ...scripts))).toMatch(
    /more than it holds|cut off/,
  );
});

test('offsets that lead out of the table are told', () => {
  expect(kerningFault(shorts(1, 0, 0, 0, 5000))).toMatch(/cut off/);
  expect(kerningFault(shorts(1, 0))).toMatch(/cut off/);
  expect(kerningFault(table([1, 4, 2, 0, 1, 900]))).toMatch(/cut off/);
});
