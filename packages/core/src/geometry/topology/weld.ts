import type { Mesh } from '../mesh';

/** Vertices at one place taken as one: m of n. */
export interface Weld {
  /** n, which of the places each vertex stands at. */
  of: Uint32Array;
  /** m, one vertex at each place: the first. */
  first: Uint32Array;
}

/** Takes vertices at the same place, bit for bit, as one: texture seams and hard edges double them. */
export function weld({ positions }: Pick<Mesh, 'positions'>): Weld {
  const welder = new Welder(positions);
  welder.take(positions.length / 3);
  return welder.done();
}

/** The same with yields. */
export async function weldInTime({ positions }: Pick<Mesh, 'positions'>, yieldNow: () => Promise<void>): Promise<Weld> {
  const welder = new Welder(positions);
  const n = positions.length / 3;
  for (let end = 0; end < n;) {
    await yieldNow();
    welder.take((end = Math.min(n, end + PIECE)));
  }
  await yieldNow();
  return welder.done();
}

/** So many vertices between two yields: some milliseconds. */
const PIECE = 3 << 13;

/** Takes vertices as one piece by piece. */
class Welder {
  readonly #words: Uint32Array;
  readonly #slots: Int32Array;
  readonly #of: Uint32Array;
  readonly #first: Uint32Array;
  #taken = 0;
  #count = 0;

  /** @param positions 3n, metres */
  constructor(positions: Float32Array) {
    const n = positions.length / 3;
    this.#words = new Uint32Array(positions.buffer, positions.byteOffset, positions.length);
    this.#slots = slotsFor(n);
    this.#of = new Uint32Array(n);
    this.#first = new Uint32Array(n);
  }

  /** Takes the next vertices, up to number `end`. */
  take(end: number): void {
    const words = this.#words;
    const slots = this.#slots;
    const of = this.#of;
    const first = this.#first;
    const mask = slots.length - 1;
    let count = this.#count;
    for (let i = this.#taken; i < end; i++) {
      const x = wordAt(words, 3 * i);
      const y = wordAt(words, 3 * i + 1);
      const z = wordAt(words, 3 * i + 2);
      const hash = hash3(x, y, z);
      let slot = (hash ^ (hash >>> 15)) & mask;
      let place = slots[slot];
      for (; place >= 0; slot = (slot + 1) & mask, place = slots[slot]) {
        const other = 3 * first[place];
        if (wordAt(words, other) === x && wordAt(words, other + 1) === y && wordAt(words, other + 2) === z) break;
      }
      if (place < 0) {
        first[count] = i;
        slots[slot] = count;
        place = count++;
      }
      of[i] = place;
    }
    this.#taken = end;
    this.#count = count;
  }

  done(): Weld {
    return { of: this.#of, first: this.#first.slice(0, this.#count) };
  }
}

/** −0 is the same place as 0. */
const wordAt = (words: Uint32Array, i: number): number => (words[i] === 0x80000000 ? 0 : words[i]);

/**
 * Empty slots of a hash table for so many entries: open addressing with linear probing (Knuth, TAOCP 3, 6.4, algorithm L).
 */
const slotsFor = (most: number): Int32Array => new Int32Array(2 ** Math.ceil(Math.log2(2 * most + 2))).fill(-1);

const hash3 = (x: number, y: number, z: number): number =>
  Math.imul(x, 0x9e3779b1) ^ Math.imul(y, 0x85ebca6b) ^ Math.imul(z, 0xc2b2ae35);

/** Edges between numbered places, each once whichever way it is run along; numbered as they are met. */
export class EdgeTable {
  readonly #slots: Int32Array;
  readonly #mask: number;
  /** Both ends of each edge, the smaller number first. */
  readonly ends: Uint32Array;
  #count = 0;

  /** @param most edges that will be met */
  constructor(most: number) {
    this.#slots = slotsFor(most);
    this.#mask = this.#slots.length - 1;
    this.ends = new Uint32Array(2 * most);
  }

  get count(): number {
    return this.#count;
  }

  idOf(a: number, b: number): number {
    const low = a < b ? a : b;
    const high = a < b ? b : a;
    const { ends } = this;
    const slots = this.#slots;
    const mask = this.#mask;
    const hash = hash3(low, high, 0);
    let slot = (hash ^ (hash >>> 15)) & mask;
    for (let edge = slots[slot]; edge >= 0; edge = slots[slot]) {
      if (ends[2 * edge] === low && ends[2 * edge + 1] === high) return edge;
      slot = (slot + 1) & mask;
    }
    const edge = this.#count++;
    ends[2 * edge] = low;
    ends[2 * edge + 1] = high;
    slots[slot] = edge;
    return edge;
  }
}
