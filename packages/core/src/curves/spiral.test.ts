import fc from 'fast-check';
import { rolledStrip, type Spiral, spiralAngle, spiralLength } from './spiral';

const spirals = fc.record({
  a: fc.double({ min: 0.001, max: 1, noNaN: true }),
  b: fc.double({ min: 1e-4, max: 0.2, noNaN: true }),
});
/** Places along a strip, closely. */
const course = (spiral: Spiral, rolled: number, n: number) => {
  const roll = rolledStrip(spiral, rolled);
  return Array.from({ length: n + 1 }, (_, i) => roll((rolled * i) / n));
};

// Bronshtein and Semendyayev, 2.14.1: from the pole, with r = aθ, the length is a/2 (θ √(θ² + 1) + arsinh θ).
test('arc lengths by the handbook, and back', () => {
  const b = 0.3;
  for (const angle of [0.5, 3, 20])
    expect(spiralLength({ a: 0, b }, angle)).toBeCloseTo(
      (b / 2) * (angle * Math.sqrt(angle ** 2 + 1) + Math.asinh(angle)),
      12,
    );
  fc.assert(
    fc.property(spirals, fc.double({ min: 1e-4, max: 100, noNaN: true }), (spiral, length) => {
      expect(spiralLength(spiral, spiralAngle(spiral, length)) / length).toBeCloseTo(1, 6);
    }),
  );
});

test('rolled up, a strip keeps its length, and begins straight on', () => {
  fc.assert(
    fc.property(spirals, fc.double({ min: 0.1, max: 5, noNaN: true }), (spiral, rolled) => {
      fc.pre(spiralAngle(spiral, rolled) < 100);
      const points = course(spiral, rolled, 4000);
      let length = 0;
      for (let i = 1; i < points.length; i++)
        length += Math.hypot(points[i].x - points[i - 1].x, points[i].y - points[i - 1].y);
      expect(length / rolled).toBeCloseTo(1, 3);
      const begins = rolledStrip(spiral, rolled)(1e-12);
      expect([begins.x, begins.y, begins.tx, begins.ty]).toEqual([0, 0, 1, 0].map((x) => expect.closeTo(x, 6)));
    }),
    { numRuns: 20 },
  );
});

test('its turns are apart by what is given, measured across', () => {
  const spiral = { a: 0.05, b: 0.04 / (2 * Math.PI) };
  const points = course(spiral, 3, 6000);
  // Along the normal of each place, the next turn further in is a spacing away.
  for (const i of [10, 500, 1500, 2500]) {
    const p = points[i];
    const [nx, ny] = [-p.ty, p.tx];
    const further = points
      .slice(i + 60)
      .map((q) => ({
        across: (q.x - p.x) * nx + (q.y - p.y) * ny,
        aside: Math.abs((q.x - p.x) * p.tx + (q.y - p.y) * p.ty),
      }))
      .filter(({ across, aside }) => aside < 0.002 && across > 0)
      .map(({ across }) => across);
    expect(Math.min(...further) / 0.04).toBeCloseTo(1, 1);
  }
});

test('the direction is that of the curve', () => {
  const spiral = { a: 0.1, b: 0.02 };
  const points = course(spiral, 2, 4000);
  for (let i = 1; i < points.length - 1; i += 97) {
    const [dx, dy] = [points[i + 1].x - points[i - 1].x, points[i + 1].y - points[i - 1].y];
    expect((dx * points[i].tx + dy * points[i].ty) / Math.hypot(dx, dy)).toBeCloseTo(1, 5);
  }
});
