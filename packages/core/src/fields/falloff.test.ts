import fc from 'fast-check';
import { borderDistance, type FalloffShape, falloffWeight, rotationOf } from './falloff';
import { turnedBy } from '../geometry/turns';
import { add, distance, norm, scale, sub, type Vec3 } from '../geometry/vec';

const coordinate = fc.double({ min: -3, max: 3, noNaN: true });
const place = fc.tuple(coordinate, coordinate, coordinate) as fc.Arbitrary<Vec3>;
const size = fc.double({ min: 0.2, max: 3, noNaN: true });
const shape: fc.Arbitrary<FalloffShape> = fc.record({
  which: fc.constantFrom('plane' as const, 'ball' as const, 'box' as const),
  centre: place,
  rotation: place.map((of) => scale(of, 60)),
  size: fc.tuple(size, size, size) as fc.Arbitrary<Vec3>,
  soft: fc.double({ min: 0.05, max: 2, noNaN: true }),
});

/** Many places on the border of a box or ball, no further apart than `gap`. */
function border({ which, centre, rotation, size: widths }: FalloffShape, n: number): { places: Vec3[]; gap: number } {
  const places: Vec3[] = [];
  for (let face = 0; face < 6; face++)
    for (let i = 0; i <= n; i++)
      for (let j = 0; j <= n; j++) {
        const on: [number, number, number] = [0, 0, 0];
        on[face % 3] = face < 3 ? 1 : -1;
        on[(face + 1) % 3] = (2 * i) / n - 1;
        on[(face + 2) % 3] = (2 * j) / n - 1;
        const local: Vec3 =
          which === 'ball'
            ? scale(on, widths[0] / 2 / norm(...on))
            : [(on[0] * widths[0]) / 2, (on[1] * widths[1]) / 2, (on[2] * widths[2]) / 2];
        places.push(add(centre, turnedBy(rotationOf(rotation), local)));
      }
  return { places, gap: (Math.SQRT2 * Math.max(...widths)) / n };
}

describe('distances from the border of what weighs', () => {
  test('of balls and boxes, turned or not, are those to the nearest of very many places on it', () => {
    fc.assert(
      fc.property(
        shape.filter(({ which }) => which !== 'plane'),
        place,
        (of, here) => {
          const { places, gap } = border(of, 40);
          const nearest = Math.min(...places.map((on) => distance(on, here)));
          const told = Math.abs(borderDistance(of)(here));
          expect(told).toBeLessThanOrEqual(nearest + 1e-6);
          expect(nearest).toBeLessThan(told + gap);
        },
      ),
      { numRuns: 60 },
    );
  });

  // |∇d| = 1: the eikonal equation, which distances obey (Osher, Fedkiw, Level Set Methods and Dynamic Implicit Surfaces, 2003, 2.3).
  test('rise by a metre a metre, away from edges', () => {
    fc.assert(
      fc.property(shape, place, (of, here) => {
        const d = borderDistance(of);
        const h = 1e-5;
        const slopes = [0, 1, 2].map((c) => {
          const by: Vec3 = [c === 0 ? h : 0, c === 1 ? h : 0, c === 2 ? h : 0];
          return [(d(add(here, by)) - d(here)) / h, (d(here) - d(sub(here, by))) / h];
        });
        // On the few places that are as near to two sides it turns.
        fc.pre(slopes.every(([on, back]) => Math.abs(on - back) < 1e-3));
        const [x, y, z] = slopes.map(([on, back]) => (on + back) / 2);
        expect(norm(x, y, z)).toBeCloseTo(1, 4);
      }),
      { numRuns: 200 },
    );
  });

  test('weights go from all to nothing in a straight line over the softness, half of it at the border', () => {
    fc.assert(
      fc.property(shape, place, (of, here) => {
        const d = borderDistance(of)(here);
        const w = falloffWeight(of)(here);
        if (d <= -of.soft / 2) expect(w).toBe(1);
        else if (d >= of.soft / 2) expect(w).toBe(0);
        else expect(w).toBeCloseTo(0.5 - d / of.soft, 12);
      }),
    );
  });
});
