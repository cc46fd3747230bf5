import { type Copies, filled } from '@uvrex/core';
import { type Draft, Made } from './columns';
import type { Shown } from './protocol';

/** Columns of copies that places and looks on screen hang on. */
type Placed = Pick<Copies, 'items' | 'item' | 'positions' | 'turns' | 'sizes' | 'tints' | 'ids'>;

/**
 * Where each copy of each item stands, and how it is tinted. Copies are dealt out evenly, so that the first so many of
 * them are a fair sample of all: whoever cannot draw all at once draws those first. What is made of the same columns is the
 * same: where copies keep still and are coloured anew, only their tints are made.
 * @param nameOf the name under which the screen holds an item, by its key
 */
export function placedCopies(
  { items, item, positions, turns, sizes, tints, ids }: Placed,
  nameOf: (key: string) => string,
): Draft<Shown['copies']> {
  const orders = dealt(item, items.length);
  return items.flatMap(({ key }, i) => {
    const order = orders[i];
    if (order.length === 0) return [];
    return [
      {
        item: nameOf(key),
        matrices: new Made(identity(order, positions, turns, sizes), () => matricesOf(order, positions, turns, sizes)),
        tints: tints && new Made(identity(order, tints), () => tintsOf(order, tints)),
        ids: new Made(identity(order, ids), () => filled(Uint32Array, order.length, (at) => ids[order[at]])),
      },
    ];
  });
}

/** Places, turns and sizes of some copies as matrices, 16 numbers each, columns first. */
function matricesOf(
  order: Uint32Array,
  positions: Float32Array,
  turns: Float32Array,
  sizes: Float32Array,
): Float32Array {
  const m = new Float32Array(16 * order.length);
  for (let at = 0, o = 0; at < order.length; at++, o += 16) {
    const k = order[at];
    const x = turns[4 * k];
    const y = turns[4 * k + 1];
    const z = turns[4 * k + 2];
    const w = turns[4 * k + 3];
    const a = sizes[3 * k];
    const b = sizes[3 * k + 1];
    const c = sizes[3 * k + 2];
    m[o] = a * (1 - 2 * (y * y + z * z));
    m[o + 1] = a * 2 * (x * y + z * w);
    m[o + 2] = a * 2 * (x * z - y * w);
    m[o + 4] = b * 2 * (x * y - z * w);
    m[o + 5] = b * (1 - 2 * (x * x + z * z));
    m[o + 6] = b * 2 * (y * z + x * w);
    m[o + 8] = c * 2 * (x * z + y * w);
    m[o + 9] = c * 2 * (y * z - x * w);
    m[o + 10] = c * (1 - 2 * (x * x + y * y));
    m[o + 12] = positions[3 * k];
    m[o + 13] = positions[3 * k + 1];
    m[o + 14] = positions[3 * k + 2];
    m[o + 15] = 1;
  }
  return m;
}

function tintsOf(order: Uint32Array, tints: Float32Array): Float32Array {
  const out = new Float32Array(3 * order.length);
  for (let at = 0; at < order.length; at++) {
    const k = 3 * order[at];
    out[3 * at] = tints[k];
    out[3 * at + 1] = tints[k + 1];
    out[3 * at + 2] = tints[k + 2];
  }
  return out;
}

const orders = new WeakMap<Copies['item'], Uint32Array[]>();

/** The copies of each item in the order in which they are dealt out. */
function dealt(item: Copies['item'], items: number): Uint32Array[] {
  const known = orders.get(item);
  if (known?.length === items) return known;
  const counts = new Uint32Array(items);
  for (let k = 0; k < item.length; k++) counts[item[k]]++;
  const made = Array.from(counts, (count) => new Uint32Array(count));
  counts.fill(0);
  const n = item.length;
  const stride = dealingStride(n);
  for (let dealt = 0, k = 0; dealt < n; dealt++, k = (k + stride) % n) made[item[k]][counts[item[k]]++] = k;
  orders.set(item, made);
  return made;
}

/** What stands for some arrays together, the same for the same ones. */
interface Together {
  with: WeakMap<object, Together>;
}
const root: Together = { with: new WeakMap() };

function identity(...arrays: object[]): object {
  let at = root;
  for (const array of arrays) {
    let next = at.with.get(array);
    if (!next) at.with.set(array, (next = { with: new WeakMap() }));
    at = next;
  }
  return at;
}

/**
 * A step that visits each of n places once, any first few of them spread evenly: next to the golden section of n, and
 * without a common divisor with it (Knuth, The Art of Computer Programming 3, 6.4, of the golden section's multiples).
 */
export function dealingStride(n: number): number {
  const common = (a: number, b: number): number => (b === 0 ? a : common(b, a % b));
  let stride = Math.max(1, Math.round(n * (Math.sqrt(5) - 1) * 0.5));
  while (common(stride, n) !== 1) stride++;
  return stride;
}
