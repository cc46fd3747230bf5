import fc from 'fast-check';
import { catenaryByLength, catenaryBySag, catenaryPoints } from './catenary';

const span = fc.double({ min: 0.05, max: 50, noNaN: true });
const rise = fc.double({ min: -20, max: 20, noNaN: true });
const slack = fc.double({ min: 1.001, max: 6, noNaN: true });

// Closed forms of the catenary: Bronshtein and Semendyayev, Handbook of Mathematics, plane curves.
describe('catenary', () => {
  test('hangs through both ends, with the length asked for, at even lengths', () => {
    fc.assert(
      fc.property(span, rise, slack, (h, v, k) => {
        const length = k * Math.hypot(h, v);
        const points = catenaryPoints(catenaryByLength(h, v, length), 2001);
        const size = Math.max(1, length);
        expect(Math.abs(points[0]) / size).toBeLessThan(1e-6);
        expect(Math.abs(points[1]) / size).toBeLessThan(1e-6);
        expect(Math.abs(points[4000] - h) / size).toBeLessThan(1e-6);
        expect(Math.abs(points[4001] - v) / size).toBeLessThan(1e-6);
        let sum = 0;
        for (let i = 1; i <= 2000; i++)
          sum += Math.hypot(points[2 * i] - points[2 * i - 2], points[2 * i + 1] - points[2 * i - 1]);
        expect(sum / length).toBeCloseTo(1, 3);
      }),
    );
  });

  test('between level ends it sags by a (cosh(h / 2a) − 1)', () => {
    fc.assert(
      fc.property(span, slack, (h, k) => {
        const chain = catenaryByLength(h, 0, k * h);
        const sag = chain.a * (Math.cosh(h / 2 / chain.a) - 1);
        expect(catenaryBySag(h, 0, sag).length / chain.length).toBeCloseTo(1, 5);
        expect(chain.length).toBeCloseTo(2 * chain.a * Math.sinh(h / 2 / chain.a), 6);
      }),
    );
  });

  test('its slope is the length from the lowest point over a, everywhere', () => {
    const chain = catenaryByLength(3, 1, 5);
    const points = catenaryPoints(chain, 401);
    for (let i = 1; i < 400; i++) {
      const slope = (points[2 * i + 3] - points[2 * i - 1]) / (points[2 * i + 2] - points[2 * i - 2]);
      const s = chain.a * Math.sinh(-chain.x0 / chain.a) + (5 * i) / 400;
      expect(slope).toBeCloseTo(s / chain.a, 2);
    }
  });

  test('a chain that is too short is refused', () => {
    expect(() => catenaryByLength(3, 4, 5)).toThrow(/does not reach/);
  });
});
