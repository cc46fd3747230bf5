const { imul } = Math;

const C1 = 0x239b961b;
const C2 = 0xab0e9789;
const C3 = 0x38b34ae5;
const C4 = 0xa1e38b93;

const rotate = (x: number, by: number): number => (x << by) | (x >>> (32 - by));

function finish(h: number): number {
  h ^= h >>> 16;
  h = imul(h, 0x85ebca6b);
  h ^= h >>> 13;
  h = imul(h, 0xc2b2ae35);
  return h ^ (h >>> 16);
}

/**
 * MurmurHash3_x86_128 (Austin Appleby, public domain): quick and well mixed, for names of results; no protection
 * against forgery.
 * @returns four 32-bit words, unsigned
 */
export function murmur128(bytes: Uint8Array, seed = 0): [number, number, number, number] {
  const { length } = bytes;
  let [h1, h2, h3, h4] = [seed | 0, seed | 0, seed | 0, seed | 0];
  const word = (i: number): number => bytes[i] | (bytes[i + 1] << 8) | (bytes[i + 2] << 16) | (bytes[i + 3] << 24);
  const whole = length - (length % 16);
  for (let i = 0; i < whole; i += 16) {
    h1 ^= imul(rotate(imul(word(i), C1), 15), C2);
    h1 = (imul((rotate(h1, 19) + h2) | 0, 5) + 0x561ccd1b) | 0;
    h2 ^= imul(rotate(imul(word(i + 4), C2), 16), C3);
    h2 = (imul((rotate(h2, 17) + h3) | 0, 5) + 0x0bcaa747) | 0;
    h3 ^= imul(rotate(imul(word(i + 8), C3), 17), C4);
    h3 = (imul((rotate(h3, 15) + h4) | 0, 5) + 0x96cd1c35) | 0;
    h4 ^= imul(rotate(imul(word(i + 12), C4), 18), C1);
    h4 = (imul((rotate(h4, 13) + h1) | 0, 5) + 0x32ac3b17) | 0;
  }
  // The rest is read as four words that end in zeros.
  if (whole < length) {
    const tail = new Uint8Array(16);
    tail.set(bytes.subarray(whole));
    const at = (i: number): number => tail[i] | (tail[i + 1] << 8) | (tail[i + 2] << 16) | (tail[i + 3] << 24);
    h1 ^= imul(rotate(imul(at(0), C1), 15), C2);
    h2 ^= imul(rotate(imul(at(4), C2), 16), C3);
    h3 ^= imul(rotate(imul(at(8), C3), 17), C4);
    h4 ^= imul(rotate(imul(at(12), C4), 18), C1);
  }
  h1 ^= length;
  h2 ^= length;
  h3 ^= length;
  h4 ^= length;
  h1 = (h1 + h2 + h3 + h4) | 0;
  h2 = (h2 + h1) | 0;
  h3 = (h3 + h1) | 0;
  h4 = (h4 + h1) | 0;
  h1 = finish(h1);
  h2 = finish(h2);
  h3 = finish(h3);
  h4 = finish(h4);
  h1 = (h1 + h2 + h3 + h4) | 0;
  h2 = (h2 + h1) | 0;
  h3 = (h3 + h1) | 0;
  h4 = (h4 + h1) | 0;
  return [h1 >>> 0, h2 >>> 0, h3 >>> 0, h4 >>> 0];
}
