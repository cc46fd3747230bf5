import { random } from './random';
import { spreadOut } from './blueNoise';

const yieldNow = (): Promise<void> => Promise.resolve();
const square = (n: number): Float32Array =>
  Float32Array.from({ length: 3 * n }, (_, i) => (i % 3 === 2 ? 0 : random(3, i)));
const nearest = (places: Float32Array): number => {
  let least = Infinity;
  for (let i = 0; i < places.length; i += 3)
    for (let j = 0; j < i; j += 3)
      least = Math.min(
        least,
        Math.hypot(places[i] - places[j], places[i + 1] - places[j + 1], places[i + 2] - places[j + 2]),
      );
  return least;
};

// The widest that n points of a unit square can be apart is about √(2 / (√3 n)), in hexagons. Point sets between 0.65 and 0.85 of that
// are well spread and not regular: Lagae and Dutré, A comparison of methods for generating Poisson disk distributions, 2008.
test('what is spread out keeps the distances of blue noise, and is as many of what was given', async () => {
  const all = square(2000);
  const some = await spreadOut(all, 400, yieldNow);
  expect(some).toHaveLength(1200);
  const given = new Set(Array.from({ length: 2000 }, (_, i) => all.subarray(3 * i, 3 * i + 3).join()));
  const taken = Array.from({ length: 400 }, (_, i) => some.subarray(3 * i, 3 * i + 3).join());
  expect(new Set(taken).size).toBe(400);
  expect(taken.every((place) => given.has(place))).toBe(true);
  const widest = Math.sqrt(2 / (Math.sqrt(3) * 400));
  expect(nearest(some) / widest).toBeGreaterThan(0.6);
  expect(nearest(some) / widest).toBeLessThan(0.9);
  expect(nearest(square(400)) / widest).toBeLessThan(0.2);
});

test('places that are all the same, or too few, are given as they are', async () => {
  const same = new Float32Array(30);
  expect(await spreadOut(same, 4, yieldNow)).toHaveLength(12);
  expect(await spreadOut(same, 40, yieldNow)).toBe(same);
});
