import { type Mesh } from './mesh';

/** Vertices at one place taken as one: m of n. */
export interface Weld {
  /** n, which of the places each vertex stands at. */
  of: Uint32Array;
  /** m, one vertex at each place: the first. */
  first: Uint32Array;
}

/** Takes vertices at the same place, bit for bit, as one: texture seams and hard edges double them. */
export function weld({ positions }: Pick<Mesh, 'positions'>): Weld {
  const n = positions.length / 3;
  const words = new Uint32Array(positions.buffer, positions.byteOffset, positions.length);
  /** −0 is the same place as 0. */
  const word = (i: number): number => (words[i] === 0x80000000 ? 0 : words[i]);
  const table = new HashTable(n);
  const of = new Uint32Array(n);
  const first = new Uint32Array(n);
  let count = 0;
  for (let i = 0; i < n; i++) {
    const [x, y, z] = [word(3 * i), word(3 * i + 1), word(3 * i + 2)];
    const place = table.find(hash3(x, y, z), (entry) => {
      const other = 3 * first[entry];
      return word(other) === x && word(other + 1) === y && word(other + 2) === z;
    });
    if (place < 0) {
      first[count] = i;
      table.put(count);
      of[i] = count++;
    } else of[i] = place;
  }
  return { of, first: first.slice(0, count) };
}

const hash3 = (x: number, y: number, z: number): number =>
  Math.imul(x, 0x9e3779b1) ^ Math.imul(y, 0x85ebca6b) ^ Math.imul(z, 0xc2b2ae35);

/** Numbers found by their hash: open addressing with linear probing (Knuth, TAOCP 3, 6.4, algorithm L). */
class HashTable {
  readonly #slots: Int32Array;
  readonly #mask: number;
  #free = 0;

  /** @param most entries that will be put in */
  constructor(most: number) {
    const size = 2 ** Math.ceil(Math.log2(2 * most + 2));
    this.#slots = new Int32Array(size).fill(-1);
    this.#mask = size - 1;
  }

  /** The entry of that hash for which `same` holds, or −1; `put` then goes where it was looked for. */
  find(hash: number, same: (entry: number) => boolean): number {
    let slot = (hash ^ (hash >>> 15)) & this.#mask;
    for (let entry = this.#slots[slot]; entry >= 0; entry = this.#slots[slot]) {
      if (same(entry)) return entry;
      slot = (slot + 1) & this.#mask;
    }
    this.#free = slot;
    return -1;
  }

  put(entry: number): void {
    this.#slots[this.#free] = entry;
  }
}

/** Edges between numbered places, each once whichever way it is run along; numbered as they are met. */
export class EdgeTable {
  readonly #slots: Int32Array;
  readonly #mask: number;
  /** Both ends of each edge, the smaller number first. */
  readonly ends: Uint32Array;
  #count = 0;

  /** @param most edges that will be met */
  constructor(most: number) {
    const size = 2 ** Math.ceil(Math.log2(2 * most + 2));
    this.#slots = new Int32Array(size).fill(-1);
    this.#mask = size - 1;
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
