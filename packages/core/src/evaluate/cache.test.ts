import { emptyForm, type Form } from '../geometry/form';
import { pathsFrom } from '../geometry/paths';
import { FormCache } from './cache';

const formOf = (points: number): Form => ({
  ...emptyForm(),
  paths: pathsFrom([{ positions: new Float32Array(3 * points) }]),
});
/** Bytes that a form of 100 points takes in the cache. */
const ONE = (() => {
  const cache = new FormCache(1e9);
  cache.set('a', formOf(100));
  return cache.bytes;
})();

/** Goes through a loop of frames again and again; gives how many were still there in the last round. */
function kept(frames: number, room: number, rounds = 3): number {
  const cache = new FormCache(room * ONE);
  let hits = 0;
  for (let round = 0; round < rounds; round++) {
    hits = 0;
    for (let frame = 0; frame < frames; frame++) {
      cache.begin(false);
      if (cache.has(`${frame}`)) hits++;
      else {
        cache.set(`way ${frame}`, formOf(100));
        cache.set(`${frame}`, formOf(100));
      }
      cache.show(`${frame}`);
    }
  }
  return hits;
}

test('a loop that fits is kept, and one that does not still gains by what fits', () => {
  expect(kept(100, 206)).toBe(100);
  expect(kept(100, 104)).toBeGreaterThan(95);
  // Dropping the longest unused would keep none of them.
  expect(kept(100, 60)).toBeGreaterThan(35);
  expect(kept(100, 20)).toBeGreaterThan(8);
});

test('what is only on the way goes before what is shown, but not what an edit begins with', () => {
  const cache = new FormCache(6 * ONE);
  for (const frame of ['1', '2', '3']) {
    cache.begin(false);
    cache.set(`way ${frame}`, formOf(100));
    cache.set(frame, formOf(100));
    cache.show(frame);
  }
  for (let i = 0; i < 5; i++) cache.begin(false);
  cache.set('way 4', formOf(100));
  cache.set('4', formOf(100));
  cache.show('4');
  expect(['1', '2', '3', '4', 'way 4'].map((key) => cache.has(key))).toEqual([true, true, true, true, true]);
  expect(['way 1', 'way 2', 'way 3'].filter((key) => cache.has(key))).toHaveLength(1);
});

test('what belongs to an earlier scene goes first, the longest unused before the others', () => {
  const cache = new FormCache(4 * ONE);
  for (const key of ['a', 'b', 'c']) {
    cache.begin(false);
    cache.set(key, formOf(100));
    cache.show(key);
  }
  for (let i = 0; i < 5; i++) cache.begin(true);
  cache.show('a');
  for (const key of ['d', 'e', 'f']) {
    cache.begin(false);
    cache.set(key, formOf(100));
    cache.show(key);
  }
  expect(['a', 'b', 'c', 'd', 'e', 'f'].map((key) => cache.has(key))).toEqual([true, false, false, true, true, true]);
});

test('what is larger than the whole budget is not kept at the cost of everything else', () => {
  const cache = new FormCache(2 * ONE);
  cache.set('a', formOf(100));
  cache.set('huge', formOf(100_000));
  expect([cache.get('a') !== undefined, cache.get('huge')]).toEqual([true, undefined]);
});

test('every buffer counts once, wherever it is held: in items, in what was cut, in two forms at a time', () => {
  const cache = new FormCache(1e9);
  const item = new Float32Array(3e6);
  const mesh = { positions: item } as never;
  const copies = { items: [{ key: 'x', mesh, surface: null }], ids: new Uint32Array(1) } as never;
  cache.set('copies', { ...emptyForm(), copies });
  expect(cache.bytes).toBeGreaterThan(12e6);
  expect(cache.bytes).toBeLessThan(12.01e6);
  cache.set('again', { ...emptyForm(), mesh });
  cache.set('again', { ...emptyForm(), mesh });
  expect(cache.bytes).toBeLessThan(12.01e6);
  const whole = formOf(1e6).paths!;
  const before = cache.bytes;
  cache.set('cut', { ...emptyForm(), paths: { ...formOf(1).paths!, uncut: whole } });
  expect(cache.bytes - before).toBeGreaterThan(20e6);
});

test('bytes come back when the last that holds them goes', () => {
  const shared = formOf(1000);
  const cache = new FormCache(3 * ONE + 30_000);
  cache.set('one', shared);
  cache.set('two', { ...shared, pitch: 1 });
  const both = cache.bytes;
  for (let i = 0; i < 40; i++) {
    cache.begin(true);
    cache.set(`${i}`, formOf(100));
  }
  expect(cache.has('one') || cache.has('two')).toBe(false);
  expect(cache.bytes).toBeLessThanOrEqual(3 * ONE + 30_000);
  expect(cache.bytes).toBe(cache.size * ONE);
  expect(both).toBeGreaterThan(20_000);
});

test('a smaller budget drops what is past it at once; a larger one takes more', () => {
  const cache = new FormCache(10 * ONE);
  const fill = (from: number, end: number): void => {
    for (let k = from; k < end; k++) cache.set(`${k}`, formOf(100));
  };
  fill(0, 10);
  expect(cache.size).toBe(10);
  cache.resize(3 * ONE);
  expect(cache.size).toBe(3);
  expect(cache.bytes).toBe(3 * ONE);
  cache.resize(0);
  expect(cache.bytes).toBe(0);
  cache.resize(20 * ONE);
  fill(20, 45);
  expect(cache.size).toBe(20);
});
