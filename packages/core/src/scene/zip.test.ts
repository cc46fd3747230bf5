import { unzipSync, zipSync } from 'fflate';
import { LIMITS } from './limits';
import { unzipFiles, zipFiles } from './zip';

const all = (): boolean => true;
/** Bytes that hardly compress, the same in every run (Numerical Recipes, ranqd1). */
const noise = (length: number): Uint8Array => {
  let state = 1;
  return Uint8Array.from({ length }, () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) >>> 24);
};

test('entries of some megabytes come back byte for byte, and another reader of zips reads them', () => {
  const entries = { 'scene.json': new Uint8Array(3_000_000).fill(32), 'files/a.form': noise(2_000_000) };
  const bytes = zipFiles(entries);
  for (const read of [unzipFiles(bytes, all), unzipSync(bytes)]) {
    expect(Object.keys(read)).toEqual(Object.keys(entries));
    for (const [name, whole] of Object.entries(entries)) expect(Buffer.from(read[name]).equals(whole)).toBe(true);
  }
  expect(Object.keys(unzipFiles(bytes, (name) => name === 'scene.json'))).toEqual(['scene.json']);
});

test('a zip that claims less than it holds is refused at the claim, not unpacked to its end', () => {
  const bytes = zipSync({ 'scene.json': new Uint8Array(6_000_000) });
  const view = new DataView(bytes.buffer, bytes.byteOffset);
  // APPNOTE.TXT 4.3.7: the uncompressed size stands 22 bytes into the local header.
  view.setUint32(22, 1000, true);
  expect(() => unzipFiles(bytes, all)).toThrow('“scene.json” in the zip unpacks to more than the zip says');
});

/** Limits a hundredth of those in force. */
const FEW = { fileText: LIMITS.fileText / 100, fileBytes: LIMITS.fileBytes / 100, zipBytes: LIMITS.zipBytes / 100 };

test('what comes out counts: an entry, and all of them together', () => {
  const text = zipSync({ 'scene.json': new Uint8Array(FEW.fileText + 1) });
  expect(() => unzipFiles(text, all, FEW)).toThrow('1 MB; 0.64 MB is the most for one entry');
  const half = new Uint8Array(FEW.fileBytes);
  const three = zipSync({ a: half, b: half, c: new Uint8Array(1) });
  expect(() => unzipFiles(three, all, FEW)).toThrow('3 MB; 2.56 MB is the most');
  expect(Object.keys(unzipFiles(three, (name) => name !== 'c', FEW))).toEqual(['a', 'b']);
});

test('what a reader would refuse is not written', () => {
  const [few, most] = [new Uint8Array(900_000), new Uint8Array(FEW.fileBytes)];
  expect(() => zipFiles({ a: few, b: few, c: few }, FEW)).toThrow('3 MB; 2.56 MB is the most');
  expect(() => zipFiles({ 'scene.json': few }, FEW)).toThrow('0.64 MB is the most for one entry');
  expect(Object.keys(unzipFiles(zipFiles({ a: most, b: most }, FEW), all, FEW))).toEqual(['a', 'b']);
});

test('a zip that is cut off anywhere is damaged', () => {
  const bytes = zipFiles({ 'scene.json': noise(40_000), 'files/a.svg': noise(100) });
  for (const length of [2, 30, 20_000, 40_100, bytes.length - 30, bytes.length - 1])
    expect(() => unzipFiles(bytes.slice(0, length), all)).toThrow(/damaged or cut off/);
});
