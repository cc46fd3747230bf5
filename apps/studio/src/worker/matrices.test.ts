import { type Copies, digest } from '@uvrex/core';
import { Matrix4, Quaternion, Vector3 } from 'three';
import { Made } from './columns';
import { dealingStride, placedCopies } from './matrices';

/** Copies as they are sent, made. */
const sentOf = (copies: Copies) =>
  placedCopies(copies, (key) => `of ${key}`).map(({ item, matrices, tints, ids }) => ({
    item,
    matrices: made(matrices),
    tints: tints && made(tints),
    ids: made(ids),
  }));
const made = <T extends ArrayBufferView>(column: T | Made<T>): T => (column instanceof Made ? column.make() : column);

const copiesOf = (n: number, kinds: number): Copies => {
  const turns = new Float32Array(4 * n);
  for (let k = 0; k < n; k++) turns.set(new Quaternion(0.1 + k, 0.3, -0.2 * k, 0.9).normalize().toArray(), 4 * k);
  return {
    items: Array.from({ length: kinds }, (_, i) => ({ key: digest(String(i)) })),
    item: Uint16Array.from({ length: n }, (_, k) => k % kinds),
    positions: Float32Array.from({ length: 3 * n }, (_, i) => (i % 3 === 0 ? Math.floor(i / 3) : i % 3)),
    turns,
    sizes: Float32Array.from({ length: 3 * n }, (_, i) => 1 + (i % 5)),
    tints: Float32Array.from({ length: 3 * n }, (_, i) => i),
    ids: Uint32Array.from({ length: n }, (_, k) => 7 * k),
  } as unknown as Copies;
};

test('every copy has the matrix, tint and number of its own', () => {
  const copies = copiesOf(50, 3);
  const dealt = sentOf(copies);
  expect(dealt.map(({ item }) => item)).toEqual(copies.items.map(({ key }) => `of ${key}`));
  const seen = new Set<number>();
  dealt.forEach(({ matrices, tints, ids }, i) =>
    ids.forEach((id, at) => {
      const k = id / 7;
      seen.add(k);
      expect(copies.item[k]).toBe(i);
      const whole = new Matrix4().compose(
        new Vector3(...copies.positions.subarray(3 * k, 3 * k + 3)),
        new Quaternion(...copies.turns.subarray(4 * k, 4 * k + 4)),
        new Vector3(...copies.sizes.subarray(3 * k, 3 * k + 3)),
      );
      whole.elements.forEach((value, c) => expect(matrices[16 * at + c]).toBeCloseTo(value, 4));
      expect(Array.from(tints!.subarray(3 * at, 3 * at + 3))).toEqual([3 * k, 3 * k + 1, 3 * k + 2]);
    }),
  );
  expect(seen.size).toBe(50);
});

test('an item of which there is no copy is left out', () => {
  const copies = copiesOf(6, 2);
  expect(sentOf({ ...copies, item: copies.item.map(() => 1) }).map(({ item }) => item)).toEqual([
    `of ${copies.items[1].key}`,
  ]);
});

test('what is made of the same columns is the same, and nothing else', () => {
  const copies = copiesOf(6, 2);
  const of = (changed: Partial<Copies>) =>
    placedCopies({ ...copies, ...changed }, String).map(({ matrices, tints, ids }) =>
      [matrices, tints, ids].map((column) => (column as Made<Float32Array>).of),
    );
  const [[matrices, tints, ids], [others]] = of({});
  expect(others).not.toBe(matrices);
  expect(new Set([matrices, tints, ids]).size).toBe(3);
  const same = (changed: Partial<Copies>) => of(changed)[0].map((one, i) => one === [matrices, tints, ids][i]);
  expect(same({})).toEqual([true, true, true]);
  for (const moved of ['positions', 'turns', 'sizes'] as const)
    expect(same({ [moved]: copies[moved].slice() })).toEqual([false, true, true]);
  expect(same({ tints: copies.tints!.slice() })).toEqual([true, false, true]);
  expect(same({ ids: copies.ids.slice() })).toEqual([true, true, false]);
  expect(same({ item: copies.item.slice() })).toEqual([false, false, false]);
});

test('the first so many copies are spread over all, and all come once', () => {
  for (const n of [1, 2, 3, 10, 100, 4000, 10946, 99_999]) {
    const stride = dealingStride(n);
    const order = Array.from({ length: n }, (_, i) => (i * stride) % n);
    expect(new Set(order).size).toBe(n);
    if (n < 100) continue;
    const first = order.slice(0, Math.floor(n / 10)).sort((a, b) => a - b);
    const gaps = first.map((k, i) => (i + 1 < first.length ? first[i + 1] : n + first[0]) - k);
    // An even spread of a tenth leaves gaps of ten; multiples of the golden section leave at most three widths of them.
    expect(Math.max(...gaps)).toBeLessThanOrEqual(32);
  }
});
