import { areaAndVolume } from '../../geometry/mesh';
import { topologyCounts } from '../../geometry/topology/topology';
import { turnAt, turnedBy } from '../../geometry/turns';
import { at } from '../../geometry/vec';
import { newGrowth, newStep } from '../../scene/make';
import { newGuide } from '../../scene/owners';
import type { ParamValue, Scene, Step } from '../../scene/schema';
import { form, line, paths } from '../../../test/paths';

const withDot = (scene: Scene): void =>
  void scene.growths.push({ ...newGrowth('Dot', 1, [newStep('solid', { radius: 0.1, sides: 8 })]), id: 'dot' });

const mirror = (params: Record<string, ParamValue> = {}): Step => newStep('mirror', params);

test('a path, with its frames; the right-handed winding of a helix becomes left-handed', async () => {
  const made = await paths([newStep('helix', { baseX: 2, points: 50 }), mirror()]);
  for (let i = 0; i < 50; i++) {
    const [x, y, z] = at(made.positions, i);
    expect(at(made.positions, 50 + i)).toEqual([-x, y, z]);
    const [a, b, c] = at(made.normals!, i);
    expect(at(made.normals!, 50 + i)).toEqual([-a + 0, b, c].map((v) => expect.closeTo(v, 6)));
  }
  expect([...made.ids]).toEqual([0, 1]);
  expect(made.tangents).not.toBeNull();
});

test('a skin faces outwards on both sides and holds twice as much', async () => {
  const steps = [newStep('helix', { baseX: 2, points: 50 }), newStep('tube', { sides: 6 })];
  const [one, both] = [await form(steps), await form([...steps, mirror()])];
  expect(areaAndVolume(both.mesh!).volume / areaAndVolume(one.mesh!).volume).toBeCloseTo(2, 5);
});

test.each(['x', 'y', 'z'])('across %s: half of a ball and its image are one closed ball', async (plane) => {
  const ball = newStep('solid', { radius: 1, sides: 64, atX: 0.3, atY: 0.3, atZ: 0.3 });
  const { mesh } = await form([ball, mirror({ plane, at: 0.3, side: 'front' })]);
  expect(topologyCounts(mesh!)).toMatchObject({ euler: 2, openEdges: 0, flippedEdges: 0 });
  expect(areaAndVolume(mesh!).volume / ((4 / 3) * Math.PI)).toBeCloseTo(1, 1);
});

test('a box that stands on the mirror loses its face there: no wall within', async () => {
  const box = newStep('solid', { which: 'box', width: 1, height: 1, depth: 1, atX: 0.5, atY: 0 });
  const { mesh } = await form([box, mirror()]);
  expect(areaAndVolume(mesh!).area).toBeCloseTo(2 + 4 * 2, 5);
  expect(topologyCounts(mesh!)).toMatchObject({ euler: 2, openEdges: 0, flippedEdges: 0 });
  const apart = await form([box, mirror({ join: 0 })]);
  expect(areaAndVolume(apart.mesh!).area).toBeCloseTo(12, 5);
});

test('light runs smoothly over the mirror where the skin meets its image softly', async () => {
  const { mesh } = await form([newStep('solid', { radius: 1, sides: 64, atY: 0 }), mirror({ side: 'front' })]);
  for (let i = 0; i < mesh!.positions.length / 3; i++)
    if (Math.abs(mesh!.positions[3 * i]) < 1e-7) expect(Math.abs(mesh!.normals[3 * i])).toBeLessThan(1e-6);
});

test('copies: what is alike on both sides of its own YZ plane stands as in the mirror', async () => {
  const made = await form(
    [
      newStep('helix', { baseX: 2, points: 50 }),
      newStep('along', { growth: 'dot', by: 'count', count: 5 }),
      mirror({ plane: 'z', at: 1 }),
    ],
    1,
    withDot,
  );
  const { turns, positions } = made.copies!;
  for (let k = 0; k < 5; k++) {
    const [x, y, z] = at(positions, k);
    expect(at(positions, 5 + k)).toEqual([x, y, 2 - z].map((v) => expect.closeTo(v, 5)));
    const [here, there] = [turnAt(turns, k), turnAt(turns, 5 + k)];
    for (const [mine, its] of [
      [
        [0.3, 0.5, 0.7],
        [-0.3, 0.5, 0.7],
      ],
      [
        [-1, 0.2, 0],
        [1, 0.2, 0],
      ],
    ] as const) {
      const [a, b, c] = turnedBy(here, mine);
      expect(turnedBy(there, its)).toEqual([a, b, -c].map((v) => expect.closeTo(v, 5)));
    }
  }
});

test('by a guide: in its plane, turned as it is; only the image, if one wants', async () => {
  const guide = (scene: Scene): void =>
    void scene.guides.push(newGuide('g', 'Mirror', 'plane', { positionX: 1, positionY: 0, positionZ: 0, turnZ: 90 }));
  const made = await paths([line(1, 2), mirror({ plane: 'guide', guide: 'guide:g', keep: false })], 1, guide);
  expect([...made.positions].map((v) => Math.round(1e5 * v) / 1e5 + 0)).toEqual([2, 0, 0, 2, 1, 0]);
});
