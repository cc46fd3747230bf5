import { emptyForm } from '../../geometry/form';
import { flaws } from '../../geometry/invariants';
import { areaAndVolume } from '../../geometry/mesh';
import { topologyCounts } from '../../geometry/topology/topology';
import { pathsFrom } from '../../geometry/paths';
import { helixPoints } from '../../curves/helix';
import {
  archCorners,
  bandCorners,
  contourProfile,
  crossCorners,
  polygonCorners,
  regionProfile,
  starCorners,
} from './sweepProfile';
import type { Cap } from './rings';
import { sweepProfile } from './sweepTubes';
import { leastFacing } from '../../../test/surfaces';

const line = pathsFrom([{ positions: [0, 0, 0, 0, 1, 0, 0, 2, 0] }]);
const wound = pathsFrom([{ positions: helixPoints({ below: 0.8, above: 0.3, height: 2, turns: 2, start: 0 }, 90) }]);
const ring = pathsFrom([
  { positions: helixPoints({ below: 1, above: 1, height: 0, turns: 119 / 120, start: 0 }, 120), closed: true },
]);
const shape = (end: Cap) =>
  ({ radius: 0.1, along: () => 1, follows: 'whole', swell: 0, sides: 16, start: end, end }) as const;

/** Area of a polygon by the shoelace formula (Gauss). */
const areaOf = (corners: readonly (readonly [number, number])[]): number =>
  corners.reduce((sum, [x, y], j) => {
    const [u, v] = corners[(j + 1) % corners.length];
    return sum + (x * v - u * y) / 2;
  }, 0);

test('normals look out of an arch, whose foot points at the middle', async () => {
  const profile = contourProfile(archCorners(0.3, 12), true);
  for (const cap of ['flat', 'round', 'pointed'] as Cap[])
    expect(leastFacing(await sweepProfile(line, profile, shape(cap)))).toBeGreaterThan(0.3);
});

test('normals look out of a hollow profile, walls of the hole and its round ends too', async () => {
  const outer = polygonCorners(24).flat();
  const hole = polygonCorners(24)
    .reverse()
    .map(([x, y]) => [0.6 * x, 0.6 * y])
    .flat();
  const profile = regionProfile([{ outer, holes: [hole] }], false);
  for (const cap of ['flat', 'round', 'pointed'] as Cap[])
    expect(leastFacing(await sweepProfile(line, profile, shape(cap)))).toBeGreaterThan(0.3);
});

const profiles: [string, [number, number][]][] = [
  ['a triangle', polygonCorners(3)],
  ['a star', starCorners(5, 0.4)],
  ['a cross', crossCorners(0.25)],
  ['a band', bandCorners(0.1)],
];

describe.each(profiles)('%s', (_, corners) => {
  test.each(['flat', 'round', 'pointed'] as Cap[])(
    'swept with %s ends is watertight, hard or smooth, twisted or not',
    async (cap) => {
      for (const hard of [true, false]) {
        for (const twist of [0, 4]) {
          const mesh = await sweepProfile(wound, contourProfile(corners, hard), shape(cap), {}, { roll: 0.3, twist });
          expect(topologyCounts(mesh)).toMatchObject({ euler: 2, openEdges: 0, flippedEdges: 0 });
          expect(flaws({ ...emptyForm(), mesh })).toEqual([]);
        }
      }
    },
  );

  test.each(['round', 'pointed', 'taper'])('normals look out of its %s ends as its faces do', async (way) => {
    const cap = way === 'taper' ? 'open' : (way as Cap);
    const along = (u: number): number => (way === 'taper' ? 1 - 0.9 * u : 1);
    const profile = contourProfile(corners, true);
    expect(leastFacing(await sweepProfile(line, profile, { ...shape(cap), along }))).toBeGreaterThan(0.3);
  });

  test('swept along a line has the volume of its prism', async () => {
    const { volume } = areaAndVolume(await sweepProfile(line, contourProfile(corners, true), shape('flat')));
    expect(volume / (2 * 0.01 * areaOf(corners))).toBeCloseTo(1, 5);
  });

  // Pappus: area of the profile times the way of its centroid, which is the circle itself for these centred shapes.
  test('swept round a circle has the volume that Pappus gives it', async () => {
    const centred = corners.reduce(([a, b], [x, y]) => [a + x, b + y], [0, 0]);
    expect(Math.hypot(...(centred as [number, number]))).toBeLessThan(1e-9);
    const { volume } = areaAndVolume(await sweepProfile(ring, contourProfile(corners, true), shape('open')));
    // A polygon of 120 sides: its inscribed length and area against the circle's, 3.4 parts in ten thousand.
    expect(volume / (2 * Math.PI * 0.01 * areaOf(corners))).toBeCloseTo(1, 2);
  });

  test('closed it is sealed without a seam', async () => {
    expect(topologyCounts(await sweepProfile(ring, contourProfile(corners, false), shape('open')))).toMatchObject({
      euler: 0,
      openEdges: 0,
      flippedEdges: 0,
    });
  });
});

test("hard edges keep each side's own normal; smooth ones share it at the corner", () => {
  const hard = contourProfile(polygonCorners(4), true);
  expect(hard.x).toHaveLength(8);
  expect(Math.hypot(hard.nx[0] - hard.nx[1], hard.ny[0] - hard.ny[1])).toBeLessThan(1e-12);
  expect(hard.nx[0] * hard.nx[2] + hard.ny[0] * hard.ny[2]).toBeCloseTo(0, 12);
  const smooth = contourProfile(polygonCorners(4), false);
  expect([smooth.nx[0], smooth.ny[0]].map((v) => Number(v.toFixed(9)) + 0)).toEqual([1, 0]);
});
