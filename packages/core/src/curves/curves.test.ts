import fc from 'fast-check';
import { arcLengths, fraction, locate, totalLength } from './arclength';
import { catmullRom } from './catmullRom';
import { helixPoints } from './helix';
import { resample } from './resample';
import { distanceToSegment, simplify } from './simplify';
import { strokeToAnchors } from './handStroke';
import { at, cross, distance, sub } from '../geometry/vec';

const coordinates = fc
  .array(fc.double({ min: -10, max: 10, noNaN: true }), { minLength: 6, maxLength: 90 })
  .map((list) => list.slice(0, 3 * Math.floor(list.length / 3)));

describe('helix', () => {
  // do Carmo 1976, section 1-5: length T√(r² + c²), curvature r/(r² + c²), torsion c/(r² + c²) for a rise of c a radian.
  const shape = { below: 0.6, above: 0.6, height: 1.5, turns: 2.5, start: 20 };
  const radians = 2 * Math.PI * shape.turns;
  const c = shape.height / radians;

  test('has the length of the closed form', () => {
    const n = 20001;
    const length = totalLength(arcLengths(helixPoints(shape, n), 0, n, false));
    expect(length).toBeCloseTo(radians * Math.hypot(0.6, c), 6);
  });

  test('has the curvature and torsion of the closed form', () => {
    const n = 4001;
    const p = helixPoints(shape, n);
    const h = radians / (n - 1);
    // Central differences of the first three derivatives at the middle point.
    const q = (k: number) => at(p, 2000 + k);
    const d1 = sub(q(1), q(-1)).map((v) => v / (2 * h)) as [number, number, number];
    const d2 = [0, 1, 2].map((k) => (q(1)[k] - 2 * q(0)[k] + q(-1)[k]) / h ** 2) as [number, number, number];
    const d3 = [0, 1, 2].map((k) => (q(2)[k] - 2 * q(1)[k] + 2 * q(-1)[k] - q(-2)[k]) / (2 * h ** 3)) as [
      number,
      number,
      number,
    ];
    const b = cross(d1, d2);
    const curvature = Math.hypot(...b) / Math.hypot(...d1) ** 3;
    const torsion = (b[0] * d3[0] + b[1] * d3[1] + b[2] * d3[2]) / Math.hypot(...b) ** 2;
    expect(curvature).toBeCloseTo(0.6 / (0.36 + c * c), 4);
    expect(torsion).toBeCloseTo(c / (0.36 + c * c), 3);
  });
});

describe('arc length', () => {
  test('bisection finds what a walk finds', () => {
    fc.assert(
      fc.property(coordinates, fc.double({ min: 0, max: 1, noNaN: true }), fc.boolean(), (list, share, closed) => {
        const table = arcLengths(Float64Array.from(list), 0, list.length / 3, closed);
        const s = share * totalLength(table);
        const k = locate(table, s);
        expect(k).toBeLessThanOrEqual(table.length - 2);
        expect(table[k]).toBeLessThanOrEqual(s + 1e-12);
        expect(table[k + 1]).toBeGreaterThanOrEqual(s - 1e-12);
        expect(table[k] + fraction(table, k, s) * (table[k + 1] - table[k])).toBeCloseTo(s, 9);
      }),
    );
  });

  test('a closed square counts its last side', () => {
    const square = Float64Array.of(0, 0, 0, 1, 0, 0, 1, 1, 0, 0, 1, 0);
    expect([...arcLengths(square, 0, 4, true)]).toEqual([0, 1, 2, 3, 4]);
  });
});

describe('even respacing', () => {
  test('puts points at equal arc lengths of the circle', () => {
    // On a circle of radius 1, equal arcs are equal angles.
    const fine = Float64Array.from({ length: 3 * 7200 }, (_, i) => {
      const t = 2 * Math.PI * (Math.floor(i / 3) / 7200) ** 1.7; // far from even
      return [Math.cos(t), 0, Math.sin(t)][i % 3];
    });
    const even = resample(fine, 36, true);
    const whole = totalLength(arcLengths(fine, 0, 7200, true));
    for (let i = 0; i < 36; i++) {
      const angle = (Math.atan2(even[3 * i + 2], even[3 * i]) + 2 * Math.PI) % (2 * Math.PI);
      expect(angle).toBeCloseTo((2 * Math.PI * i) / 36, 4);
    }
    expect(whole).toBeCloseTo(2 * Math.PI, 4);
  });

  test('keeps both ends exactly', () => {
    fc.assert(
      fc.property(coordinates, fc.integer({ min: 2, max: 50 }), (list, count) => {
        const out = resample(Float64Array.from(list), count, false);
        expect(at(out, 0)).toEqual(at(list, 0));
        expect(at(out, count - 1)).toEqual(at(list, list.length / 3 - 1));
      }),
    );
  });

  test('goes along an open line, whatever its pieces are', () => {
    const line = Float64Array.of(0, 0, 0, 1, 0, 0, 4, 0, 0, 4, 2, 0);
    expect([...resample(line, 4, false)]).toEqual([0, 0, 0, 2, 0, 0, 4, 0, 0, 4, 2, 0]);
  });

  test('goes round a closed square, its last side and doubled corners too', () => {
    const square = Float64Array.of(0, 0, 0, 0, 0, 0, 1, 0, 0, 1, 1, 0, 1, 1, 0, 0, 1, 0);
    const even = [0, 0, 0, 0.5, 0, 0, 1, 0, 0, 1, 0.5, 0, 1, 1, 0, 0.5, 1, 0, 0, 1, 0, 0, 0.5, 0];
    expect([...resample(square, 8, true)]).toEqual(even);
  });

  test('stays where all points are in one place', () => {
    expect([...resample(Float64Array.of(1, 2, 3, 1, 2, 3), 3, false)]).toEqual([1, 2, 3, 1, 2, 3, 1, 2, 3]);
    expect([...resample(Float64Array.of(1, 2, 3), 2, true)]).toEqual([1, 2, 3, 1, 2, 3]);
  });
});

describe('centripetal Catmull-Rom', () => {
  test('runs exactly through its anchors, open and closed', () => {
    fc.assert(
      fc.property(coordinates, fc.integer({ min: 1, max: 9 }), fc.boolean(), (list, per, closed) => {
        const curve = catmullRom(list, per, closed);
        for (let i = 0; i < list.length / 3; i++) expect(at(curve, i * per)).toEqual(at(list, i));
        expect(curve.every(Number.isFinite)).toBe(true);
      }),
    );
  });

  test('reproduces a straight line with even speed from even anchors', () => {
    const curve = catmullRom([0, 0, 0, 1, 2, 0, 2, 4, 0], 4, false);
    for (let i = 0; i <= 8; i++) expect(at(curve, i).map((v) => Number(v.toFixed(12)))).toEqual([i / 4, i / 2, 0]);
  });

  // Yuksel, Schaefer, Keyser 2011, section 3: no cusp and no self-intersection within a segment; a short segment
  // between long ones is where uniform knots make a loop.
  test('makes no loop in a short segment between long ones', () => {
    const curve = catmullRom([0, 0, 0, 10, 0, 0, 10.2, 0.2, 0, 0, 0.4, 0], 64, false);
    const d = sub([10.2, 0.2, 0], [10, 0, 0]);
    const along = Array.from({ length: 65 }, (_, i) => {
      const p = at(curve, 64 + i);
      return (p[0] - 10) * d[0] + p[1] * d[1];
    });
    expect(Math.min(...along)).toBeGreaterThanOrEqual(-1e-9);
  });
});

describe('simplifying', () => {
  test('leaves no dropped point further than the tolerance from what is kept', () => {
    fc.assert(
      fc.property(coordinates, fc.double({ min: 0.01, max: 5, noNaN: true }), (list, tolerance) => {
        const kept = simplify(list, tolerance);
        expect([kept[0], kept.at(-1)]).toEqual([0, list.length / 3 - 1]);
        for (let k = 0; k < kept.length - 1; k++) {
          for (let i = kept[k] + 1; i < kept[k + 1]; i++) {
            expect(distanceToSegment(list, i, kept[k], kept[k + 1])).toBeLessThanOrEqual(tolerance);
          }
        }
      }),
    );
  });

  test('a trembling stroke becomes few anchors near the intended line', () => {
    const raw = Array.from({ length: 300 }, (_, i) => [i / 100, Math.sin(i / 60) + 0.004 * (i % 2 ? 1 : -1), 0]).flat();
    const anchors = strokeToAnchors(raw);
    expect(anchors.length).toBeGreaterThan(3);
    expect(anchors.length).toBeLessThan(25);
    for (const [x, y] of anchors) expect(Math.abs(y - Math.sin((100 * x) / 60))).toBeLessThan(0.03);
    expect(distance(anchors[0], [0, raw[1], 0])).toBeLessThan(1e-4);
    expect(strokeToAnchors([1, 1, 1, 1, 1, 1])).toEqual([]);
  });
});
