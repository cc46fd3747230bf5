import {
  type Attribute,
  type Attributed,
  type Blend,
  type Columns,
  columnsOf,
  type Domain,
  type Named,
  type Table,
} from './attributes';
import { Batch, type Numbers } from './batch';

const { sqrt } = Math;

interface Moved {
  name: string;
  width: number;
  blend: Blend;
  from: Numbers;
  to: Numbers;
  named: Attribute | null;
}

/**
 * Carries elements of one domain over into new arrays, all attributes at once: the one way in which anything is cut,
 * resampled, divided, thinned or merged.
 *
 * @example
 * const paths = pathsFrom([{ positions: [0, 0, 0, 1, 0, 0, 3, 0, 0] }]);
 * const rows = new Carrier(PATHS, paths, 'point', 3);
 * rows.run(0, 2, 0); // points 0 and 1 as they are
 * rows.mix(1, 2, 0.5, 2); // and one halfway from 1 to 2
 * const half = { ...paths, ...rows.result(), offsets: Uint32Array.of(0, 3) };
 * half.positions; // → [0, 0, 0, 1, 0, 0, 2, 0, 0]
 */
export class Carrier<T extends Table> {
  readonly #moved: Moved[];
  readonly #named: Named;
  #count: number;

  /**
   * @param count elements that there will be
   * @param without attributes that are left behind: null, or gone, in what comes out
   */
  constructor(
    table: T,
    from: Attributed<T>,
    domain: Domain,
    count: number,
    private readonly without: readonly (keyof T & string)[] = [],
  ) {
    this.#named = from.named;
    this.#count = count;
    const arrays = new Batch();
    this.#moved = [];
    for (const { name, type, values, builtIn } of columnsOf(table, from, domain)) {
      if (!values || without.includes(name)) continue;
      arrays.add(builtIn?.array ?? 'float', type.width * count);
      const named = builtIn ? null : from.named[name];
      this.#moved.push({ name, width: type.width, blend: type.blend, from: values, to: values, named });
    }
    const made = arrays.make();
    for (let k = 0; k < made.length; k++) this.#moved[k].to = made[k];
  }

  /** Elements that there are, or will be. */
  get count(): number {
    return this.#count;
  }

  /**
   * Makes room for more elements behind those that there are. Arrays that were given before may go on being used by this
   * carrier, or may not.
   */
  grow(count: number): void {
    for (const moved of this.#moved) {
      const { width, to } = moved;
      if (to.length >= width * count) continue;
      const Kind = to.constructor as new (length: number) => Numbers;
      moved.to = new Kind(width * Math.max(count, Math.ceil(1.5 * this.#count)));
      moved.to.set(to);
    }
    this.#count = count;
  }

  /** Takes the elements `first` up to `end` over as they are, to `at` and on. */
  run(first: number, end: number, at: number): void {
    for (const { width, from, to } of this.#moved) to.set(from.subarray(width * first, width * end), width * at);
  }

  /** Takes elements over by their numbers, to `at` and on. */
  pick(sources: ArrayLike<number>, at = 0): void {
    for (const { width, from, to } of this.#moved) {
      let write = width * at;
      for (let k = 0; k < sources.length; k++) {
        let read = width * sources[k];
        for (let c = 0; c < width; c++) to[write++] = from[read++];
      }
    }
  }

  /** Puts what lies `t` of the way from element i to element j at `at`. */
  mix(i: number, j: number, t: number, at: number): void {
    for (const moved of this.#moved) mixOne(moved, i, j, t, at);
  }

  /**
   * Puts what lies between the two elements of each of some pairs at `at` and on. The same as `mix`, array by array.
   * @param ends 2 · count, the elements of each pair
   * @param share how far of the way from the first to the second
   */
  mixPairs(ends: ArrayLike<number>, count: number, share: (pair: number) => number, at: number): void {
    const shares = new Float64Array(count);
    for (let e = 0; e < count; e++) shares[e] = share(e);
    for (const moved of this.#moved) mixAll(moved, ends, shares, at);
  }

  /** The same halfway between elements that have been put already. */
  halfway(ends: ArrayLike<number>, count: number, at: number): void {
    const shares = new Float64Array(count).fill(0.5);
    for (const moved of this.#moved) mixAll({ ...moved, from: moved.to }, ends, shares, at);
  }

  /**
   * Puts a weighted mean of elements at `at`: a place on a face by its corners, a cluster by its members.
   * @param weights of the sources; they add up to 1
   */
  weigh(sources: ArrayLike<number>, weights: ArrayLike<number>, at: number): void {
    this.#gather(sources, weights, at, false);
  }

  /**
   * Puts weighted means at `first` up to `end`, each of `per` elements: those of element k, and their weights, are at per · k
   * and on. The same as `weigh`, array by array.
   */
  weighEach(sources: Uint32Array, weights: Float32Array, per: number, first = 0, end = this.count): void {
    for (const { width, blend, from, to } of this.#moved) {
      if (blend === 'mix' || blend === 'sum') mixEach(from, to, width, sources, weights, per, first, end);
      else if (blend === 'rotate' && width === 3) {
        mixEach(from, to, 3, sources, weights, per, first, end);
        straightenEach(to as Float32Array, from, sources, weights, per, first, end);
      } else
        for (let k = first; k < end; k++)
          gather(width, blend, from, to, sources, weights, per * k, per * k + per, width * k, false);
    }
  }

  /** Puts elements that become one at `at`: what adds up is added up, the rest is their mean, numbers are the first one's. */
  merge(sources: ArrayLike<number>, at: number): void {
    this.#gather(sources, new Float64Array(sources.length).fill(1 / sources.length), at, true);
  }

  #gather(sources: ArrayLike<number>, weights: ArrayLike<number>, at: number, merging: boolean): void {
    for (const { width, blend, from, to } of this.#moved)
      gather(width, blend, from, to, sources, weights, 0, sources.length, width * at, merging);
  }

  /** The new arrays, to be spread over the geometry that they came from; they may be asked for before they are filled. */
  result(): Partial<Columns<T>> & { named: Named } {
    const columns: Record<string, Numbers | null> = {};
    const named = { ...this.#named };
    for (const name of this.without) columns[name] = null;
    for (const { name, width, to, named: attribute } of this.#moved) {
      const values = to.length === width * this.#count ? to : to.subarray(0, width * this.#count);
      if (attribute) named[name] = { ...attribute, values: values as Float32Array };
      else columns[name] = values;
    }
    return { ...(columns as Partial<Columns<T>>), named };
  }
}

/** Puts what lies between the elements of pairs into one array, at element `at` and on. */
function mixAll(moved: Moved, ends: ArrayLike<number>, shares: Float64Array, at: number): void {
  const { width, blend, from, to } = moved;
  if (blend !== 'nearest' && blend !== 'rotate') mixPairsOf(width, from, to, ends, shares, width * at);
  else for (let e = 0; e < shares.length; e++) mixOne(moved, ends[2 * e], ends[2 * e + 1], shares[e], at + e);
}

/** Puts what lies between the elements of pairs at `write` and on; loops of one and three numbers are written out, being most. */
function mixPairsOf(
  width: number,
  from: Numbers,
  to: Numbers,
  ends: ArrayLike<number>,
  shares: Float64Array,
  write: number,
): void {
  const count = shares.length;
  if (width === 1) {
    for (let e = 0; e < count; e++) {
      const one = from[ends[2 * e]];
      to[write + e] = one + (from[ends[2 * e + 1]] - one) * shares[e];
    }
  } else if (width === 3) {
    for (let e = 0; e < count; e++, write += 3) {
      const p = 3 * ends[2 * e];
      const q = 3 * ends[2 * e + 1];
      const t = shares[e];
      to[write] = from[p] + (from[q] - from[p]) * t;
      to[write + 1] = from[p + 1] + (from[q + 1] - from[p + 1]) * t;
      to[write + 2] = from[p + 2] + (from[q + 2] - from[p + 2]) * t;
    }
  } else {
    for (let e = 0; e < count; e++) {
      const t = shares[e];
      for (let p = width * ends[2 * e], q = width * ends[2 * e + 1], end = p + width; p < end; p++, q++)
        to[write++] = from[p] + (from[q] - from[p]) * t;
    }
  }
}

/** Puts what lies `t` of the way from element i to element j of one array at `at`. */
function mixOne({ width, blend, from, to }: Moved, i: number, j: number, t: number, at: number): void {
  const p = width * i;
  const q = width * j;
  const write = width * at;
  if (blend === 'nearest') {
    const nearer = t < 0.5 ? p : q;
    for (let c = 0; c < width; c++) to[write + c] = from[nearer + c];
    return;
  }
  // Of a turn and its opposite, which are the same, the nearer one.
  let side = 1;
  if (blend === 'rotate' && width === 4) {
    let along = 0;
    for (let c = 0; c < 4; c++) along += from[p + c] * from[q + c];
    if (along < 0) side = -1;
  }
  for (let c = 0; c < width; c++) to[write + c] = from[p + c] + (side * from[q + c] - from[p + c]) * t;
  if (blend === 'rotate') straighten(to as Float32Array, write, width, from, p);
}

/** The number of the heaviest of some weights. */
function heaviestOf(weights: ArrayLike<number>, first: number, end: number): number {
  let heaviest = first;
  for (let k = first + 1; k < end; k++) if (weights[k] > weights[heaviest]) heaviest = k;
  return heaviest;
}

/** Puts the weighted mean of elements, or what they come to as one, into one array. */
function gather(
  width: number,
  blend: Blend,
  from: Numbers,
  to: Numbers,
  sources: ArrayLike<number>,
  weights: ArrayLike<number>,
  first: number,
  end: number,
  write: number,
  merging: boolean,
): void {
  const main = width * sources[heaviestOf(weights, first, end)];
  if (blend === 'nearest') {
    for (let c = 0; c < width; c++) to[write + c] = from[main + c];
    return;
  }
  const adding = merging && blend === 'sum';
  const sums = [0, 0, 0, 0];
  for (let k = first; k < end; k++) {
    const read = width * sources[k];
    let weight = adding ? 1 : weights[k];
    if (blend === 'rotate' && width === 4) {
      let along = 0;
      for (let c = 0; c < 4; c++) along += from[main + c] * from[read + c];
      if (along < 0) weight = -weight;
    }
    for (let c = 0; c < width; c++) sums[c] += weight * from[read + c];
  }
  for (let c = 0; c < width; c++) to[write + c] = sums[c];
  if (blend === 'rotate') straighten(to as Float32Array, write, width, from, main);
}

function mixEach(
  from: Numbers,
  to: Numbers,
  width: number,
  sources: Uint32Array,
  weights: Float32Array,
  per: number,
  first: number,
  end: number,
): void {
  for (let k = first, write = width * first; k < end; k++)
    for (let c = 0; c < width; c++) {
      let sum = 0;
      for (let i = per * k; i < per * k + per; i++) sum += weights[i] * from[width * sources[i] + c];
      to[write++] = sum;
    }
}

/** Brings directions back to length 1; where nothing is left of one, it is that of the heaviest. */
function straightenEach(
  to: Float32Array,
  from: Numbers,
  sources: Uint32Array,
  weights: Float32Array,
  per: number,
  first: number,
  end: number,
): void {
  for (let k = first; k < end; k++) {
    const x = to[3 * k];
    const y = to[3 * k + 1];
    const z = to[3 * k + 2];
    const length = sqrt(x * x + y * y + z * z);
    if (!(length > 1e-12)) {
      straighten(to, 3 * k, 3, from, 3 * sources[heaviestOf(weights, per * k, per * k + per)]);
      continue;
    }
    to[3 * k] = x / length;
    to[3 * k + 1] = y / length;
    to[3 * k + 2] = z / length;
  }
}

/** Brings a direction or turn back to length 1; where nothing is left of it, it is that of `from`. */
function straighten(to: Float32Array, write: number, width: number, from: Numbers, read: number): void {
  let sum = 0;
  for (let c = 0; c < width; c++) sum += to[write + c] ** 2;
  const length = Math.sqrt(sum);
  for (let c = 0; c < width; c++) to[write + c] = length > 1e-12 ? to[write + c] / length : from[read + c];
}

/** Only some elements of a domain, by their numbers; any of them any number of times. */
export function pickColumns<T extends Table>(
  table: T,
  from: Attributed<T>,
  domain: Domain,
  sources: ArrayLike<number>,
  without: readonly (keyof T & string)[] = [],
): Partial<Columns<T>> & { named: Named } {
  const rows = new Carrier(table, from, domain, sources.length, without);
  rows.pick(sources);
  return rows.result();
}

/** So many elements between two yields. */
const PER_YIELD = 16_384;

/** The same with yields in between, for very many. */
export async function pickedInTime<T extends Table>(
  table: T,
  from: Attributed<T>,
  domain: Domain,
  sources: Uint32Array,
  yieldNow: () => Promise<void>,
  without: readonly (keyof T & string)[] = [],
): Promise<Partial<Columns<T>> & { named: Named }> {
  const rows = new Carrier(table, from, domain, sources.length, without);
  for (let first = 0; first < sources.length; first += PER_YIELD) {
    await yieldNow();
    rows.pick(sources.subarray(first, first + PER_YIELD), first);
  }
  return rows.result();
}
