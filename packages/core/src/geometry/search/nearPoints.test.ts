import { random } from '../../fields/random';
import { CellGrid } from './cellGrid';
import { PlacesGrid } from './placesGrid';
import { PointTree } from './pointTree';

/** Points at random in a flat box, some of them in one place. */
const points = Float64Array.from({ length: 3 * 400 }, (_, i) =>
  i < 60 ? [0.2, 0.3, 0.1][i % 3] : random(1, i) * [4, 1, 0.5][i % 3] - 1,
);
const n = points.length / 3;
const places = Array.from({ length: 60 }, (_, k): [number, number, number] => [
  6 * random(2, 3 * k) - 2,
  3 * random(2, 3 * k + 1) - 1.5,
  2 * random(2, 3 * k + 2) - 1,
]);
const away = (k: number, [x, y, z]: readonly number[]): number =>
  Math.hypot(points[3 * k] - x, points[3 * k + 1] - y, points[3 * k + 2] - z);
const all = Array.from({ length: n }, (_, k) => k);
const inOrder = (list: Iterable<number>): number[] => [...new Set(list)].sort((a, b) => a - b);

test.each([0.05, 0.3, 2, 50])(
  'a grid and a hash find all points within %d m, as looking at every one does',
  (reach) => {
    const grid = new CellGrid(points, reach);
    const hash = new PlacesGrid({ positions: points, count: n }, reach);
    for (const place of places) {
      const wanted = all.filter((k) => away(k, place) < reach);
      const seen: number[] = [];
      const [low, high] = [-1, 1].map((side) => place.map((x) => x + side * reach));
      grid.near(low, high, (k) => void seen.push(k));
      expect(new Set(seen).size).toBe(seen.length);
      expect(inOrder(seen.filter((k) => away(k, place) < reach))).toEqual(wanted);
      const found = hash.gather(...place, reach);
      expect(inOrder(hash.found.slice(0, found))).toEqual(wanted);
      expect(hash.isNear(...place, reach)).toBe(wanted.length > 0);
    }
  },
);

test('points that are not there any more are not visited, and those beside them are', () => {
  const grid = new CellGrid(points, 0.3);
  const there = new Uint8Array(n).fill(1);
  const everywhere = (): number[] => {
    const seen: number[] = [];
    grid.near([-9, -9, -9], [9, 9, 9], (k) => void seen.push(k), there);
    expect(new Set(seen).size).toBe(seen.length);
    return inOrder(seen);
  };
  expect(everywhere()).toEqual(all);
  for (let round = 0; round < 6; round++) {
    for (let k = round; k < n; k += 7) there[k] = 0;
    expect(everywhere()).toEqual(all.filter((k) => there[k]));
  }
});

test('no points, and points in one place', () => {
  const seen: number[] = [];
  new CellGrid(new Float32Array(0), 1).near([-1, -1, -1], [1, 1, 1], (k) => void seen.push(k));
  expect(seen).toEqual([]);
  new CellGrid(new Float32Array(9).fill(2), 1).near([1, 1, 1], [3, 3, 3], (k) => void seen.push(k));
  expect(inOrder(seen)).toEqual([0, 1, 2]);
  expect(new PointTree(new Float32Array(0)).distanceTo(0, 0, 0)).toBe(Infinity);
});

test('a tree tells the distance of the nearest point, as looking at every one does', () => {
  const tree = new PointTree(points);
  for (const place of places) {
    const least = Math.min(...all.map((k) => away(k, place)));
    expect(tree.distanceTo(...place)).toBeCloseTo(least, 12);
    // Less than is enough need not be exact, and is not told as more.
    expect(tree.distanceTo(...place, 2 * least)).toBeLessThanOrEqual(2 * least);
    expect(tree.distanceTo(...place, least / 2)).toBeCloseTo(least, 12);
  }
});

test('a tree tells the nearest neighbours of a point, the nearest first', () => {
  const tree = new PointTree(points);
  for (let k = 25; k < n; k += 31) {
    const place = points.subarray(3 * k, 3 * k + 3);
    const wanted = all.filter((j) => j !== k).sort((a, b) => away(a, [...place]) - away(b, [...place]) || a - b);
    expect(tree.nearest(k, 9)).toEqual(wanted.slice(0, 9));
  }
});
