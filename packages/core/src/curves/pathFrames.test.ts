import fc from 'fast-check';
import { emptyForm } from '../geometry/form';
import { flaws } from '../geometry/invariants';
import { pathsFrom } from '../geometry/paths';
import { at, distance, dot } from '../geometry/vec';
import { cutPaths } from './cut';
import { helixPoints } from './helix';
import { grownLength, grownShare, movedPaths, visibleLength, withFrames } from './pathFrames';

const coil = () =>
  pathsFrom([{ positions: helixPoints({ below: 0.6, above: 0.3, height: 2, turns: 4, start: 0 }, 300) }]);

test('frames are made once: asked again, they are given back', () => {
  const framed = withFrames(coil());
  expect(withFrames(framed)).toBe(framed);
  expect(flaws({ ...emptyForm(), paths: framed })).toEqual([]);
});

test("the tip's frame turns smoothly while the path grows, across points as between them", () => {
  const framed = withFrames(coil());
  const tipAt = (to: number) => {
    const cut = cutPaths(framed, () => [0, to]);
    const last = cut.s.length - 1;
    return { tangent: at(cut.tangents!, last), normal: at(cut.normals!, last), place: at(cut.positions, last) };
  };
  // The coil turns by 4 times 360° over its length: a step of a thousandth by 1.44° about, nowhere more than twice that.
  for (let to = 0.05; to < 0.95; to += 0.001) {
    const [a, b] = [tipAt(to), tipAt(to + 0.001)];
    expect(Math.acos(Math.min(1, dot(a.tangent, b.tangent)))).toBeLessThan((3 * Math.PI) / 180);
    expect(Math.acos(Math.min(1, dot(a.normal, b.normal)))).toBeLessThan((3 * Math.PI) / 180);
    expect(distance(a.place, b.place)).toBeLessThan(0.0011 * framed.whole[0]);
  }
});

test('moving points keeps the share that has grown, and squares the frames anew', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.double({ min: 0.1, max: 0.9, noNaN: true }),
      fc.double({ min: 0.2, max: 3, noNaN: true }),
      async (to, stretch) => {
        const cut = cutPaths(withFrames(coil()), () => [0, to]);
        const moved = await movedPaths(
          cut,
          cut.positions.map((value, i) => value * (i % 3 === 1 ? stretch : 1)),
        );
        expect(grownShare(moved)!).toBeCloseTo(to, 3);
        expect([...moved.u]).toEqual([...cut.u]);
        expect(flaws({ ...emptyForm(), paths: moved })).toEqual([]);
      },
    ),
    { numRuns: 30 },
  );
});

test('lengths of nothing, of a point, of a closed path', () => {
  expect(grownShare(null)).toBeNull();
  expect(grownLength(null)).toBe(0);
  expect(visibleLength(pathsFrom([{ positions: [1, 2, 3] }]), 0)).toBe(0);
  const square = pathsFrom([{ positions: [0, 0, 0, 1, 0, 0, 1, 1, 0, 0, 1, 0], closed: true }]);
  expect(visibleLength(square, 0)).toBe(4);
  expect(grownShare(square)).toBe(1);
});
