import { at, distance, type Vec3 } from '../geometry/vec';
import { type FractalKind, fractalPoints, fractalSegments } from './fractal';
import { roundCorners } from './roundCorners';

const segmentsOf = (points: Float64Array): number => points.length / 3 - 1;
const endDistance = (points: Float64Array): number => distance(at(points, 0), at(points, segmentsOf(points)));

/*
 * Segment counts and end distances with segments of length 1: Prusinkiewicz and Lindenmayer, The Algorithmic Beauty of
 * Plants, 1990, sections 1.3 and 1.4; Mandelbrot, The Fractal Geometry of Nature, 1982.
 */
describe.each<[FractalKind, number, (order: number) => number, (order: number) => number]>([
  ['koch', 6, (n) => 4 ** n, (n) => 3 ** n],
  ['dragon', 12, (n) => 2 ** n, (n) => Math.SQRT2 ** n],
  ['gosper', 5, (n) => 7 ** n, (n) => Math.sqrt(7) ** n],
  ['arrowhead', 8, (n) => 3 ** n, (n) => 2 ** n],
  ['hilbert', 7, (n) => 4 ** n - 1, (n) => 2 ** n - 1],
  ['hilbert-3d', 5, (n) => 8 ** n - 1, (n) => 2 ** n - 1],
])('%s', (kind, most, count, ends) => {
  test('has the known number of segments, all of length 1, and the known distance of its ends', () => {
    for (let order = 1; order <= most; order++) {
      const points = fractalPoints(kind, order);
      expect(segmentsOf(points)).toBe(count(order));
      expect(fractalSegments(kind, order)).toBe(count(order));
      expect(endDistance(points) / ends(order)).toBeCloseTo(1, 9);
    }
    const points = fractalPoints(kind, Math.min(most, 4));
    for (let i = 0; i < segmentsOf(points); i++) expect(distance(at(points, i), at(points, i + 1))).toBeCloseTo(1, 9);
  });
});

// Hilbert, Über die stetige Abbildung einer Linie auf ein Flächenstück, 1891: every cell is met exactly once.
test.each<[FractalKind, number, number]>([
  ['hilbert', 5, 2],
  ['hilbert-3d', 4, 3],
])('%s meets every cell of its grid exactly once', (kind, order, dimensions) => {
  const points = fractalPoints(kind, order);
  const cells = new Set(
    Array.from({ length: points.length / 3 }, (_, i) =>
      at(points, i)
        .map((v) => Math.round(v))
        .join(),
    ),
  );
  expect(cells.size).toBe((2 ** order) ** dimensions);
  expect(cells.size).toBe(points.length / 3);
});

test('the dragon crosses no segment twice', () => {
  const points = fractalPoints('dragon', 11);
  const middles = Array.from({ length: segmentsOf(points) }, (_, i) => {
    const [a, b] = [at(points, i), at(points, i + 1)];
    return `${a[0] + b[0]},${a[1] + b[1]}`;
  });
  expect(new Set(middles).size).toBe(middles.length);
});

// Hausdorff dimension log 4 / log 3 = 1.2619 (Mandelbrot 1982, plate 43); counted in boxes of 3⁻ᵏ of the width.
test('the Koch curve has dimension log 4 / log 3 by box counting', () => {
  const order = 8;
  const points = fractalPoints('koch', order);
  const width = 3 ** order;
  const boxes = (k: number): number => {
    const side = width / 3 ** k;
    const seen = new Set<string>();
    for (let i = 0; i < points.length / 3; i++)
      seen.add(`${Math.floor(points[3 * i] / side + 1e-9)},${Math.floor(points[3 * i + 1] / side + 1e-9)}`);
    return seen.size;
  };
  const slope = Math.log(boxes(6) / boxes(2)) / Math.log(3 ** 4);
  expect(slope).toBeCloseTo(Math.log(4) / Math.log(3), 1);
});

describe('rounded corners', () => {
  const corner = [0, 0, 0, 2, 0, 0, 2, 2, 0];

  test("touch both sides, keep the ends, and never leave the corner's triangle", () => {
    const out = roundCorners(corner, 1, 8, false);
    const points = Array.from({ length: out.length / 3 }, (_, i): Vec3 => at(out, i));
    expect(points[0]).toEqual([0, 0, 0]);
    expect(points.at(-1)).toEqual([2, 2, 0]);
    expect(points[1]).toEqual([1, 0, 0]);
    expect(points.at(-2)).toEqual([2, 1, 0]);
    for (const [x, y] of points) expect(x - y).toBeGreaterThanOrEqual(-1e-12);
  });

  test('are not there at share 0, and on a closed path every corner has one', () => {
    expect([...roundCorners(corner, 0, 8, false)]).toEqual(corner);
    expect(roundCorners(corner, 0.5, 4, true).length / 3).toBe(3 * 5);
  });
});
