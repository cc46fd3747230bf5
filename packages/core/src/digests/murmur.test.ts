import { murmur128 } from './murmur';

/** The four words as the 16 bytes that the reference implementation writes. */
const bytesOf = (words: number[]): Uint8Array => new Uint8Array(Uint32Array.from(words).buffer);

// SMHasher's verification: keys of 0, 1, … 255 bytes (0, 1, 2, …) hashed with seed 256 − n, then a hash over all the
// hashes with seed 0; its first word is 0xB3ECE62A for MurmurHash3_x86_128 (value from memory).
test("gives SMHasher's verification value", () => {
  const all = new Uint8Array(16 * 256);
  const key = Uint8Array.from({ length: 256 }, (_, i) => i);
  for (let n = 0; n < 256; n++) all.set(bytesOf(murmur128(key.subarray(0, n), 256 - n)), 16 * n);
  expect(murmur128(all)[0]).toBe(0xb3ece62a);
});
