import fc from 'fast-check';
import { about, after, fromAxes, turnedBy } from '../geometry/turns';
import { cross, distance, unit, type Vec3 } from '../geometry/vec';

describe('turns', () => {
  test('from axes, and one after another, turn points as the axes say', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 6, maxLength: 6 }), (n) => {
        const x = unit([n[0], n[1], n[2] + 0.01]);
        const side = cross(x, unit([n[3], n[4] + 0.3, n[5]]));
        if (Math.hypot(...side) < 0.05) return;
        const y = unit(side);
        const turn = fromAxes(x, y);
        expect(distance(turnedBy(turn, [1, 0, 0]), x)).toBeLessThan(1e-9);
        expect(distance(turnedBy(turn, [0, 1, 0]), y)).toBeLessThan(1e-9);
        expect(distance(turnedBy(turn, [0, 0, 1]), cross(x, y))).toBeLessThan(1e-9);
        const both = after(turn, about([0, 1, 0], 0.7));
        const point: Vec3 = [0.3, -0.2, 0.9];
        expect(distance(turnedBy(both, point), turnedBy(turn, turnedBy(about([0, 1, 0], 0.7), point)))).toBeLessThan(
          1e-9,
        );
      }),
    );
  });
});
