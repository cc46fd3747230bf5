import fc from 'fast-check';
import { emptyForm } from '../../geometry/form';
import { flaws } from '../../geometry/invariants';
import { areaAndVolume } from '../../geometry/mesh';
import { topologyCounts } from '../../geometry/topology/topology';
import { at, distance } from '../../geometry/vec';
import { blade, type BladeShape } from './bladeMesh';

const shape = (more: Partial<BladeShape> = {}): BladeShape => ({
  length: 1,
  width: 0.3,
  outline: () => 1,
  stalk: 0,
  fold: 0,
  cup: 0,
  droop: 0,
  thick: 0.01,
  rows: 40,
  columns: 4,
  ...more,
});
/** Points of the midline: the mean of both faces there. */
const midline = (of: BladeShape) => {
  const mesh = blade(of);
  const across = 2 * of.columns + 1;
  const n = (of.rows + 1) * across;
  return Array.from({ length: of.rows + 1 }, (_, i) => {
    const k = i * across + of.columns;
    return [0, 1, 2].map((c) => (mesh.positions[3 * k + c] + mesh.positions[3 * (n + k) + c]) / 2);
  });
};

test('a plain blade is a thin board: its volume is length, width and thickness', () => {
  const mesh = blade(shape());
  expect(areaAndVolume(mesh).volume).toBeCloseTo(1 * 0.3 * 0.01, 6);
});

test('an ellipse for an outline has its area', () => {
  const mesh = blade(shape({ outline: (v) => Math.sqrt(Math.max(0, 1 - (2 * v - 1) ** 2)), rows: 200 }));
  expect(areaAndVolume(mesh).volume / ((Math.PI / 4) * 0.3 * 0.01)).toBeCloseTo(1, 1);
});

test('whatever its shape it is closed, of one piece, with no face inside out', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -1, max: 1, noNaN: true }),
      fc.double({ min: -0.8, max: 0.8, noNaN: true }),
      fc.double({ min: -6, max: 6, noNaN: true }),
      fc.double({ min: 0, max: 0.5, noNaN: true }),
      (fold, cup, droop, stalk) => {
        const mesh = blade(shape({ fold, cup, droop, stalk, outline: (v) => Math.sin(Math.PI * v) }));
        expect(topologyCounts(mesh)).toMatchObject({ openEdges: 0, flippedEdges: 0, euler: 2 });
        expect(flaws({ ...emptyForm(), mesh })).toEqual([]);
      },
    ),
    { numRuns: 30 },
  );
});

// An arc of length L that turns by an angle a has a chord of 2 L / a · sin(a / 2).
test.each([0.5, 2, 5])('drooping by %d radians the midline keeps its length and follows an arc', (droop) => {
  const line = midline(shape({ droop, rows: 200 }));
  const flat = Float32Array.from(line.flat());
  let length = 0;
  for (let i = 1; i < line.length; i++) length += distance(at(flat, i - 1), at(flat, i));
  expect(length).toBeCloseTo(1, 3);
  expect(distance(at(flat, 0), at(flat, 200))).toBeCloseTo((2 / droop) * Math.sin(droop / 2), 3);
});
