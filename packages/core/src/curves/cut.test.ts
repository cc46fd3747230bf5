import fc from 'fast-check';
import { flaws } from '../geometry/invariants';
import { emptyForm } from '../geometry/form';
import { pathsFrom, pointCount } from '../geometry/paths';
import { at } from '../geometry/vec';
import { cutPaths } from './cut';
import { grownShare, visibleLength, withFrames } from './pathFrames';

const path = fc
  .record({
    points: fc.array(
      fc.tuple(fc.integer({ min: -50, max: 50 }), fc.integer({ min: -50, max: 50 }), fc.integer({ min: -50, max: 50 })),
      { minLength: 2, maxLength: 40 },
    ),
    closed: fc.boolean(),
  })
  .filter(({ points }) => points.every((p, i) => i === 0 || p.some((v, k) => v !== points[i - 1][k])))
  .map(({ points, closed }) =>
    withFrames(pathsFrom([{ positions: points.flat().map((v) => v / 10), closed: closed && points.length > 2 }])),
  );
const share = fc.double({ min: 0, max: 1, noNaN: true });

describe('cutting paths to what has grown', () => {
  test('the length that is there is the share of the whole', () => {
    fc.assert(
      fc.property(path, share, share, (paths, a, b) => {
        const [from, to] = [Math.min(a, b), Math.max(a, b)];
        const cut = cutPaths(paths, () => [from, to]);
        expect(visibleLength(cut, 0)).toBeCloseTo((to - from) * paths.whole[0], 3);
        expect(grownShare(cut)!).toBeCloseTo(to - from, 4);
        expect(flaws({ ...emptyForm(), paths: cut })).toEqual([]);
      }),
    );
  });

  test('a point that stays neither moves nor changes its rest coordinate or frame', () => {
    fc.assert(
      fc.property(path, share, share, (paths, a, b) => {
        const [from, to] = [Math.min(a, b), Math.max(a, b)];
        const cut = cutPaths(paths, () => [from, to]);
        const places = new Map<string, number>();
        for (let i = 0; i < pointCount(cut); i++)
          places.set(`${at(cut.positions, i)}|${cut.u[i]}|${at(cut.normals!, i)}`, i);
        for (let i = 0; i < pointCount(paths); i++) {
          const inside = paths.s[i] > from * paths.whole[0] + 1e-4 && paths.s[i] < to * paths.whole[0] - 1e-4;
          if (inside) expect(places.has(`${at(paths.positions, i)}|${paths.u[i]}|${at(paths.normals!, i)}`)).toBe(true);
        }
      }),
    );
  });

  test('the tip moves in proportion to the share, between points too', () => {
    const paths = pathsFrom([{ positions: [0, 0, 0, 0, 1, 0, 0, 4, 0] }]);
    for (const to of [0.001, 0.1, 0.2475, 0.25, 0.2525, 0.77, 0.9999]) {
      const cut = cutPaths(paths, () => [0, to]);
      expect(at(cut.positions, pointCount(cut) - 1)[1]).toBeCloseTo(4 * to, 6);
      expect(cut.u[pointCount(cut) - 1]).toBeCloseTo(to, 6);
    }
  });

  test('nothing is left of an empty window, and a whole window changes nothing', () => {
    const paths = pathsFrom([
      { positions: [0, 0, 0, 1, 0, 0] },
      { positions: [0, 0, 0, 1, 0, 0, 1, 1, 0], closed: true },
    ]);
    expect(pointCount(cutPaths(paths, () => [0.5, 0.5]))).toBe(0);
    expect(pointCount(cutPaths(paths, () => [0.8, 0.2]))).toBe(0);
    const whole = cutPaths(paths, () => [0, 1]);
    expect([...whole.positions]).toEqual([...paths.positions]);
    expect([...whole.closed]).toEqual([0, 1]);
  });

  test('a closed path opens at the cut, and its closing segment can be cut too', () => {
    const square = pathsFrom([{ positions: [0, 0, 0, 1, 0, 0, 1, 1, 0, 0, 1, 0], closed: true }]);
    const cut = cutPaths(square, () => [0, 0.875]);
    expect(cut.closed[0]).toBe(0);
    expect(at(cut.positions, pointCount(cut) - 1)).toEqual([0, 0.5, 0]);
    expect(cut.u[pointCount(cut) - 1]).toBeCloseTo(0.875, 6);
  });

  test('two cuts in a row add up what was cut from the base', () => {
    const line = pathsFrom([{ positions: [0, 0, 0, 10, 0, 0] }]);
    const twice = cutPaths(
      cutPaths(line, () => [0.2, 1]),
      () => [0.5, 1],
    );
    expect(twice.cutFrom[0]).toBeCloseTo(6, 6);
    expect(twice.whole[0]).toBe(10);
    expect(at(twice.positions, 0)[0]).toBeCloseTo(6, 6);
  });
});
