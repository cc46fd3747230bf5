import fc from 'fast-check';
import { coilOf, coilRadius, type Planar, rolledFromMiddle, rolledStrip } from './coil';

const sizes = {
  apart: fc.double({ min: 0.005, max: 0.2, noNaN: true }),
  core: fc.double({ min: 0, max: 0.2, noNaN: true }),
};
const length = fc.double({ min: 0.1, max: 3, noNaN: true });

/** Places along a strip, closely. */
const course = (lay: (along: number) => Planar, from: number, to: number, n: number): Planar[] =>
  Array.from({ length: n + 1 }, (_, i) => lay(from + ((to - from) * i) / n));

/** How far the next turn is from a place, along its normal to either side; Infinity where there is none. */
function nextTurns(p: Planar, others: readonly Planar[]): number[] {
  const across: number[] = [];
  for (let i = 1; i < others.length; i++) {
    const [a, b] = [others[i - 1], others[i]];
    const [s, t] = [a, b].map((q) => (q.x - p.x) * p.tx + (q.y - p.y) * p.ty);
    if (s * t > 0 || s === t) continue;
    const k = s / (s - t);
    across.push(-(a.x + k * (b.x - a.x) - p.x) * p.ty + (a.y + k * (b.y - a.y) - p.y) * p.tx);
  }
  return across.filter((d) => Math.abs(d) > 1e-6).map(Math.abs);
}

const measured = (points: readonly Planar[]): number =>
  points.slice(1).reduce((sum, p, i) => sum + Math.hypot(p.x - points[i].x, p.y - points[i].y), 0);

test('rolled up from its end, a strip keeps its length, begins straight on, and leaves its core', () => {
  fc.assert(
    fc.property(fc.record(sizes), length, ({ apart, core }, rolled) => {
      const coil = coilOf(apart, core);
      const roll = rolledStrip(coil, rolled);
      expect(measured(course(roll, -0.2, rolled, 6000)) / (rolled + 0.2)).toBeCloseTo(1, 3);
      const begins = roll(1e-12);
      expect([begins.x, begins.y, begins.tx, begins.ty]).toEqual([0, 0, 1, 0].map((x) => expect.closeTo(x, 6)));
      expect(coilRadius(coil, 0)).toBeCloseTo(Math.max(core, apart / (2 * Math.PI)), 9);
    }),
    { numRuns: 20 },
  );
});

// Involutes of one circle are parallel curves: Bronshtein and Semendyayev, section 2.14.5.
test('its turns are apart by what is given, measured square to them, from the core to the rim', () => {
  for (const [apart, core] of [
    [0.04, 0.05],
    [0.02, 0.02],
    [0.1, 0.02],
  ]) {
    const points = course(rolledStrip(coilOf(apart, core), 2), 0, 2, 8000);
    let met = 0;
    for (let i = 40; i < 7000; i += 300) {
      const next = Math.min(...nextTurns(points[i], points));
      if (!Number.isFinite(next) || next > 1.5 * apart) continue;
      met++;
      expect(next / apart).toBeCloseTo(1, 3);
    }
    expect(met).toBeGreaterThan(5);
  }
});

test('rolled up from the middle, the halves wind round each other as far apart, and never cut', () => {
  for (const [apart, core] of [
    [0.04, 0],
    [0.04, 0.1],
    [0.02, 0.02],
  ]) {
    const half = course(rolledFromMiddle(apart, core, 1.5), 0, 1.5, 6000);
    const other = half.map(({ x, y, tx, ty }) => ({ x: -x, y: -y, tx, ty }));
    let met = 0;
    for (let i = 1500; i < 5000; i += 170) {
      const next = Math.min(...nextTurns(half[i], [...other.slice().reverse(), ...half]));
      if (!Number.isFinite(next) || next > 1.5 * apart) continue;
      met++;
      expect(next / apart).toBeCloseTo(1, 3);
    }
    expect(met).toBeGreaterThan(5);
    // The arcs in the middle keep the core: the strip bends no tighter than by half of it, nor than its turns need.
    const tightest = Math.min(
      ...half.slice(1).map((p, i) => {
        const bent = Math.abs(half[i].tx * p.ty - half[i].ty * p.tx);
        return Math.hypot(p.x - half[i].x, p.y - half[i].y) / Math.max(1e-12, bent);
      }),
    );
    expect(tightest).toBeGreaterThan(0.99 * Math.max(core / 2, apart / Math.PI));
  }
});

test('rolled up from the middle it keeps its length, and what is left goes straight on', () => {
  fc.assert(
    fc.property(fc.record(sizes), length, ({ apart, core }, rolled) => {
      const lay = rolledFromMiddle(apart, core, rolled);
      expect(measured(course(lay, 0, rolled + 0.5, 8000)) / (rolled + 0.5)).toBeCloseTo(1, 3);
      const [a, b] = [lay(rolled + 1e-9), lay(rolled + 0.5)];
      expect([b.x - a.x, b.y - a.y, a.tx, a.ty]).toEqual([0.5, 0, 1, 0].map((x) => expect.closeTo(x, 6)));
    }),
    { numRuns: 20 },
  );
});

test.each([
  ['an end', rolledStrip(coilOf(0.05, 0.03), 2)],
  ['the middle', rolledFromMiddle(0.05, 0.03, 2)],
])('the direction is that of the curve, rolled from %s', (_, lay) => {
  const points = course(lay, -0.0, 2, 8000);
  for (let i = 1; i < points.length - 1; i += 97) {
    const [dx, dy] = [points[i + 1].x - points[i - 1].x, points[i + 1].y - points[i - 1].y];
    expect((dx * points[i].tx + dy * points[i].ty) / Math.hypot(dx, dy)).toBeCloseTo(1, 5);
  }
});
