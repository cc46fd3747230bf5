import fc from 'fast-check';
import type { FramedPaths } from '../geometry/paths';
import { at, distance, dot, norm } from '../geometry/vec';
import { newStep } from '../scene/make';
import { formOf, sceneOf } from '../testing';
import { arcLengths, totalLength } from './arclength';
import { sampleCurve } from './sampling';

test('between points a frame is square, of length 1, and between those beside it; ends are met', async () => {
  const { paths } = await formOf(sceneOf([newStep('helix', { points: 24, turns: 3 }), newStep('noise')]));
  const framed = paths as FramedPaths;
  const n = framed.offsets[1];
  const arcs = arcLengths(framed.positions, 0, n, false);
  fc.assert(
    fc.property(fc.double({ min: 0, max: 1, noNaN: true }), (share) => {
      const s = share * totalLength(arcs);
      const { position, tangent, normal } = sampleCurve(framed, 0, n, arcs, s);
      expect(Math.abs(dot(tangent, normal))).toBeLessThan(1e-6);
      expect(norm(...tangent)).toBeCloseTo(1, 6);
      expect(norm(...normal)).toBeCloseTo(1, 6);
      const after = Math.max(
        1,
        arcs.findIndex((length) => length >= s),
      );
      const [a, b] = [at(framed.positions, after - 1), at(framed.positions, after)];
      // On the straight line between them, as far along as is said.
      expect(distance(a, position)).toBeCloseTo(s - arcs[after - 1], 4);
      expect(distance(a, position) + distance(position, b)).toBeCloseTo(distance(a, b), 4);
    }),
  );
  expect(distance(sampleCurve(framed, 0, n, arcs, 0).position, at(framed.positions, 0))).toBeLessThan(1e-6);
  expect(
    distance(sampleCurve(framed, 0, n, arcs, totalLength(arcs)).position, at(framed.positions, n - 1)),
  ).toBeLessThan(1e-5);
});
