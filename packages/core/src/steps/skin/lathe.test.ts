import { boundsOf } from '../../geometry/form';
import { areaAndVolume, type Mesh } from '../../geometry/mesh';
import { at, dot } from '../../geometry/vec';
import { topologyCounts } from '../../geometry/topology/topology';
import { newStep } from '../../scene/make';
import type { ParamValue, Step } from '../../scene/schema';
import { form, grows } from '../../../test/paths';
import { leastFacing } from '../../../test/surfaces';

type Params = Record<string, ParamValue>;
/** A straight profile from one place to another. */
const rod = (from: readonly [number, number], to: readonly [number, number], points = 2): Step =>
  newStep('line', { fromX: from[0], fromY: from[1], toX: to[0], toY: to[1], points });
const half = (params: Params = {}): Step =>
  newStep('arc', { radius: 1, start: -90, sweep: 180, lies: 'upright', middleY: 0, points: 181, ...params });
const turned = async (steps: Step[], params: Params = {}, frame = 1): Promise<Mesh> =>
  (await form([...steps, newStep('lathe', { sides: 180, ...params })], frame)).mesh!;

// Closed forms: volume and area of ball, cylinder, cone frustum, torus (Pappus of Alexandria).
test('half a circle becomes a ball, closed at its poles, with smooth normals', async () => {
  const mesh = await turned([half()]);
  const { area, volume } = areaAndVolume(mesh);
  expect(volume / ((4 / 3) * Math.PI)).toBeCloseTo(1, 3);
  expect(area / (4 * Math.PI)).toBeCloseTo(1, 3);
  expect(topologyCounts(mesh)).toMatchObject({ euler: 2, openEdges: 0, flippedEdges: 0 });
  const outward = Array.from({ length: mesh.normals.length / 3 }, (_, i) =>
    dot(at(mesh.normals, i), at(mesh.positions, i)),
  );
  expect(Math.min(...outward)).toBeGreaterThan(0.9999);
});

test.each([
  ['upwards', [0.5, 0], [0.5, 2]],
  ['downwards', [0.5, 2], [0.5, 0]],
] as const)(
  'a rod drawn %s becomes a cylinder that faces outwards; joined to the axis it is closed',
  async (_, a, b) => {
    const open = await turned([rod(a, b, 9)]);
    expect(areaAndVolume(open).area / (2 * Math.PI * 0.5 * 2)).toBeCloseTo(1, 3);
    expect(leastFacing(open)).toBeGreaterThan(0.5);
    const [x, y, z] = at(open.positions, 0);
    expect(dot(at(open.normals, 0), [x, 0, z])).toBeCloseTo(0.5, 5);
    expect(y).toBe(a[1]);
    const solid = await turned([rod(a, b, 9)], { toAxis: true });
    expect(areaAndVolume(solid).volume / (Math.PI * 0.25 * 2)).toBeCloseTo(1, 3);
    expect(topologyCounts(solid)).toMatchObject({ euler: 2, openEdges: 0, flippedEdges: 0 });
    expect(leastFacing(solid)).toBeGreaterThan(0.99);
  },
);

test('a slanted rod becomes a cone; its hard tip keeps the slant in its normals', async () => {
  const mesh = await turned([rod([1, 0], [0, 1], 5)], { toAxis: true });
  expect(areaAndVolume(mesh).volume / (Math.PI / 3)).toBeCloseTo(1, 3);
  expect(leastFacing(mesh)).toBeGreaterThan(0.999);
});

test('a circle beside the axis becomes a ring', async () => {
  const ring = newStep('arc', { radius: 0.2, middleX: 1, middleY: 0, lies: 'upright', sweep: 360, points: 120 });
  const mesh = await turned([ring]);
  expect(areaAndVolume(mesh).volume / (2 * Math.PI ** 2 * 0.04)).toBeCloseTo(1, 2);
  expect(topologyCounts(mesh)).toMatchObject({ euler: 0, openEdges: 0, flippedEdges: 0 });
  expect(leastFacing(mesh)).toBeGreaterThan(0.5);
});

describe('in part', () => {
  test.each([90, -90, 200])(
    '%d° of a ring and of a ball are closed with flat faces, and hold their share',
    async (to) => {
      const ring = newStep('arc', { radius: 0.2, middleX: 1, middleY: 0, lies: 'upright', sweep: 360, points: 120 });
      for (const [profile, whole] of [
        [ring, 2 * Math.PI ** 2 * 0.04],
        [half(), (4 / 3) * Math.PI],
      ] as const) {
        const mesh = await turned([profile], { to });
        expect(topologyCounts(mesh)).toMatchObject({ euler: 2, openEdges: 0, flippedEdges: 0 });
        expect(areaAndVolume(mesh).volume / (whole * (Math.abs(to) / 360))).toBeCloseTo(1, 2);
        expect(leastFacing(mesh)).toBeGreaterThan(0.5);
      }
    },
  );

  test('it may be left open', async () => {
    const mesh = await turned([half()], { to: 90, caps: false });
    expect(topologyCounts(mesh).openEdges).toBe(2 * 180);
  });

  test('straight walls of many points meet the cut face without gaps', async () => {
    const mesh = await turned([rod([0.5, 0], [0.5, 2], 9)], { to: 120, toAxis: true });
    expect(topologyCounts(mesh)).toMatchObject({ euler: 2, openEdges: 0, flippedEdges: 0 });
    expect(areaAndVolume(mesh).volume / ((Math.PI * 0.25 * 2) / 3)).toBeCloseTo(1, 3);
  });
});

test('with a rise it winds as a screw, as high as its turns', async () => {
  const ring = newStep('arc', { radius: 0.1, middleX: 1, middleY: 0, lies: 'upright', sweep: 360, points: 60 });
  const made = await form([ring, newStep('lathe', { sides: 90, to: 1080, rise: 0.5 })]);
  const { min, max } = boundsOf(made)!;
  expect(max[1] - min[1]).toBeCloseTo(3 * 0.5 + 0.2, 2);
  // The area of the profile times the way of its centroid, projected on the plane square to the profile.
  expect(areaAndVolume(made.mesh!).volume / (3 * 2 * Math.PI * Math.PI * 0.01)).toBeCloseTo(1, 2);
  expect(topologyCounts(made.mesh!)).toMatchObject({ euler: 2, openEdges: 0, flippedEdges: 0 });
});

test('it grows round: no turn, no skin; a full one is sealed', async () => {
  const at0 = await form([half(), newStep('lathe', { to: grows(0, 1) })], 1);
  expect(at0.mesh!.indices).toHaveLength(0);
  expect(topologyCounts(await turned([half()], { to: grows(0, 360) }, 101)).openEdges).toBe(0);
});

test('another axis, through another point', async () => {
  // A rod along X, 0.5 above an axis along X through (0, 1, 0).
  const mesh = await turned([rod([0, 1.5], [2, 1.5])], { axis: 'x', axisY: 1, toAxis: true });
  expect(areaAndVolume(mesh).volume / (Math.PI * 0.25 * 2)).toBeCloseTo(1, 3);
  expect(leastFacing(mesh)).toBeGreaterThan(0.99);
});

test('paths differ in their turn, and keep their attributes', async () => {
  const made = await form([
    rod([0.5, 0], [0.5, 1], 5),
    rod([1, 0], [1, 1], 5),
    newStep('measure', { what: 'height', name: 'high', scale: 'measured' }),
    newStep('lathe', {
      sides: 36,
      to: {
        base: 360,
        vary: {
          by: 'index',
          amount: 180,
          waves: 1,
          shape: [
            { at: 0, value: -1 },
            { at: 1, value: 0 },
          ],
        },
      } as never,
    }),
  ]);
  const { named, parts, positions, u } = made.mesh!;
  // 18 and 36 faces round, at five rows each.
  expect([...parts!]).toEqual([0, 0, 5 * 19, 1]);
  expect(positions).toHaveLength(3 * 5 * (19 + 37));
  const heights = Array.from(u!, (_, i) => positions[3 * i + 1]);
  expect([...named.high.values]).toEqual(heights);
  expect([...u!]).toEqual(heights);
});

test('beside another skin each keeps its own distance behind the front: nothing glows that lies far from it', async () => {
  const steps = [rod([0.5, 0], [0.5, 2], 41), newStep('grow', { to: 0.5 }), newStep('tube', { sides: 6 })];
  const made = await form([...steps, newStep('lathe', { sides: 24 }), newStep('finish', { glow: 1, glowLength: 0.1 })]);
  const { positions, glow, parts } = made.mesh!;
  const glowing = Array.from(glow!, (value, i) => ({ value, y: positions[3 * i + 1] })).filter(
    ({ value }) => value > 0,
  );
  expect(glowing.length).toBeGreaterThan(24);
  expect(Math.min(...glowing.map(({ y }) => y))).toBeGreaterThan(0.85);
  // Both skins belong to path 0.
  expect([...parts!].filter((_, i) => i % 2 === 1)).toEqual([0, 0]);
});
