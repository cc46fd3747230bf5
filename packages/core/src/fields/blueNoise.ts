import { Neighbours } from '../geometry/search/spatialHash';
import { boxAround, sidesOf } from '../geometry/box';

/** How much nearer what is taken in the next round may come. */
const CLOSER = 0.9;

/**
 * So many of some places that no two of them are much nearer than they need be: those of a wide distance first, then by and by what
 * finds room at lesser ones (dart throwing with a radius that falls, McCool and Fiume, Hierarchical Poisson disk sampling
 * distributions, 1992). Where there are four times as many or more to choose from, it is blue noise.
 * @param places 3n, metres
 * @returns 3 · count, in the order in which they were found
 */
export async function spreadOut(
  places: Float32Array,
  count: number,
  yieldNow: () => Promise<void>,
): Promise<Float32Array> {
  const n = places.length / 3;
  if (count >= n) return places;
  const positions = Float64Array.from(places);
  // As far apart as they could be in the widest plane of the box at most.
  const sides = [...sidesOf(boxAround(positions))].sort((a, b) => b - a);
  let apart = Math.max(1.1 * Math.sqrt((sides[0] * sides[1]) / count), (1.5 * sides[0]) / count);
  const taken = new Uint8Array(n);
  const found: number[] = [];
  while (found.length < count && apart > 1e-9 * sides[0]) {
    await yieldNow();
    const neighbours = new Neighbours(apart);
    neighbours.put(positions, n);
    const blocked = new Uint8Array(n);
    for (const i of found) neighbours.around(positions, i, (j) => (blocked[j] = 1));
    for (let i = 0; i < n && found.length < count; i++) {
      if (taken[i] || blocked[i]) continue;
      taken[i] = 1;
      found.push(i);
      neighbours.around(positions, i, (j) => (blocked[j] = 1));
    }
    apart *= CLOSER;
  }
  // What is left of places that are all the same.
  for (let i = 0; i < n && found.length < count; i++) if (!taken[i]) found.push(i);
  return Float32Array.from(found.flatMap((i) => [places[3 * i], places[3 * i + 1], places[3 * i + 2]]));
}
