import { areaAndVolume } from '../../geometry/mesh';
import { topologyCounts } from '../../geometry/topology/topology';
import { at, norm } from '../../geometry/vec';
import { newGrowth, newStep } from '../../scene/make';
import type { ParamValue } from '../../scene/schema';
import { form } from '../../../test/paths';

const line = newStep('line', { fromX: -0.6, fromY: 3, toX: 0.6, toY: 3, points: 25 });
/** A line put onto a ball of radius 1 about a place 1 m up. */
const settled = async (params: Record<string, ParamValue>, start = line) =>
  (
    await form([start, newStep('settle', { growth: 'ball', ...params })], 1, (scene) =>
      scene.growths.push({
        ...newGrowth('Ball', 1, [newStep('solid', { which: 'ball', radius: 1, sides: 128, atY: 1 })]),
        id: 'ball',
      }),
    )
  ).paths!;

test.each(['down', 'nearest', 'front', 'side'])('a path comes to lie on a ball: %s', async (way) => {
  const start = newStep('line', { fromX: 0.3, fromY: 0.6, fromZ: 2, toX: 0.5, toY: 1.4, toZ: 2.2, points: 25 });
  const paths = await settled({ way, height: 0.2 }, start);
  const old = (await form([start])).paths!;
  let met = 0;
  for (let i = 0; i < paths.s.length; i++) {
    const [x, y, z] = at(paths.positions, i);
    const [u, v, w] = at(old.positions, i);
    const away = norm(x, y - 1, z);
    if (way === 'nearest') {
      // Along the radius of where it was.
      expect(away).toBeCloseTo(1.2, 2);
      expect(Math.abs(x / away - u / norm(u, v - 1, w))).toBeLessThan(0.02);
      met++;
      continue;
    }
    const across = { down: Math.hypot(u, w), front: Math.hypot(u, v - 1), side: Math.hypot(v - 1, w) }[way]!;
    if (across > 0.99) expect([x, y, z]).toEqual([u, v, w]);
    else {
      const on = Math.sqrt(1 - across ** 2) + 0.2;
      expect({ down: y - 1, front: z, side: x }[way]).toBeCloseTo(on, 2);
      met++;
    }
  }
  expect(met).toBeGreaterThan(way === 'down' || way === 'side' ? -1 : 10);
});

test('part of the way, and laid over the skin with its own heights', async () => {
  const half = await settled({ amount: 0.5 });
  const arch = newStep('arc', { radius: 0.5, points: 61 });
  const laid = await settled({ keep: true }, arch);
  const before = (await form([arch])).paths!;
  for (let i = 0; i < half.s.length; i++) {
    const [x, y] = at(half.positions, i);
    expect(y).toBeCloseTo((3 + 1 + Math.sqrt(1 - x * x)) / 2, 3);
  }
  for (let i = 0; i < laid.s.length; i++) {
    const [x, y, z] = at(laid.positions, i);
    const own = before.positions[3 * i + 1];
    expect(y - own).toBeCloseTo(1 + Math.sqrt(1 - x * x - z * z), 2);
  }
});

describe('terrain', () => {
  const ground = async (params: Record<string, ParamValue>) => (await form([newStep('terrain', params)])).mesh!;

  test('is one sheet that looks up, level at its rim, about as high as is said', async () => {
    const mesh = await ground({ width: 6, depth: 3, relief: 1, pieces: 90 });
    expect(topologyCounts(mesh)).toMatchObject({ euler: 1, flippedEdges: 0, openEdges: 2 * (90 + 45) });
    let [low, high] = [Infinity, -Infinity];
    for (let i = 0; i < mesh.positions.length / 3; i++) {
      const [x, y, z] = at(mesh.positions, i);
      if (Math.hypot(x / 3, z / 1.5) > 1) expect(y).toBeCloseTo(0, 6);
      expect(mesh.normals[3 * i + 1]).toBeGreaterThan(0);
      [low, high] = [Math.min(low, y), Math.max(high, y)];
    }
    expect(high - low).toBeGreaterThan(0.3);
    expect(high - low).toBeLessThan(1.3);
  });

  test('has sharper crests the more it has ridges: more of it leans', async () => {
    const lean = async (ridges: number): Promise<number> => {
      const mesh = await ground({ ridges, rim: 0, relief: 1 });
      return areaAndVolume(mesh).area;
    };
    expect(await lean(1)).toBeGreaterThan(await lean(0));
  });
});
