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
  cache.set('a', formOf(100), emptyForm());
  return cache.bytes;
})();

test('drops what was longest unused, and reading counts as use', () => {
  const cache = new FormCache(3 * ONE);
  for (const key of ['a', 'b', 'c']) cache.set(key, formOf(100), emptyForm());
  cache.get('a');
  cache.set('d', formOf(100), emptyForm());
  expect(['a', 'b', 'c', 'd'].map((key) => cache.get(key) !== undefined)).toEqual([true, false, true, true]);
  expect(cache.bytes).toBe(3 * ONE);
});

test('what is larger than the whole budget is not kept at the cost of everything else', () => {
  const cache = new FormCache(2 * ONE);
  cache.set('a', formOf(100), emptyForm());
  cache.set('huge', formOf(100_000), emptyForm());
  expect([cache.get('a') !== undefined, cache.get('huge')]).toEqual([true, undefined]);
});

test('arrays shared with the input are counted there', () => {
  const cache = new FormCache(1e9);
  const input = formOf(1000);
  cache.set('same', { ...input }, input);
  expect(cache.bytes).toBeLessThan(1000);
});
