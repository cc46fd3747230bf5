import { pathCount, type Paths } from '../../geometry/paths';
import { at, distance, type Vec3 } from '../../geometry/vec';
import { newGrowth, newStep } from '../../scene/make';
import { newGuide } from '../../scene/owners';
import type { ParamValue, Scene } from '../../scene/schema';
import { paths } from '../../../test/paths';

const wander = (params: Record<string, ParamValue> = {}, change?: (scene: Scene) => void): Promise<Paths> =>
  paths([newStep('wander', { count: 8, piece: 0.05, ...params })], 1, change);
const pointsOf = (of: Paths, p: number): Vec3[] =>
  Array.from({ length: of.offsets[p + 1] - of.offsets[p] }, (_, i) => at(of.positions, of.offsets[p] + i));
const places = (of: Paths): Vec3[] => Array.from({ length: pathCount(of) }, (_, p) => pointsOf(of, p)).flat();

test('with nothing to turn them they go straight on, as long as they should', async () => {
  const made = await wander({ turning: 0, apart: 0, vary: 0, scatter: 0, wayX: 1, wayY: 1 });
  for (let p = 0; p < 8; p++) {
    const [from, ...more] = pointsOf(made, p);
    expect(from).toEqual([0, 0, 0]);
    for (const [x, y, z] of more) {
      expect(x).toBeCloseTo(y, 5);
      expect(z).toBeCloseTo(0, 5);
    }
    expect(distance(from, more[more.length - 1])).toBeCloseTo(2, 4);
  }
});

test('what draws them they come to, and what they shun they keep away from', async () => {
  const least = async (draw: number): Promise<number> => {
    const made = await wander({ toward: 'guide:g', draw, turning: 0.2, apart: 0, vary: 0 }, (scene) =>
      scene.guides.push(newGuide('g', 'Lamp', 'point', { positionX: 0.6, positionY: 1, positionZ: 0.3 })),
    );
    return Math.min(...places(made).map((place) => distance(place, [0.6, 1, 0.3])));
  };
  expect(await least(1)).toBeLessThan(0.1);
  expect(await least(-1)).toBeGreaterThan(0.5);
});

test('they stay on a skin, or between two heights', async () => {
  const onSkin = await wander({ stays: 'skin', skin: 'ball', atY: 2 }, (scene) =>
    scene.growths.push({
      ...newGrowth('Ball', 1, [newStep('solid', { which: 'ball', radius: 1, sides: 64, atY: 1 })]),
      id: 'ball',
    }),
  );
  // A ball of 64 sides lies within 1 − cos(π / 64) of the sphere.
  for (const place of places(onSkin)) expect(Math.abs(distance(place, [0, 1, 0]) - 1)).toBeLessThan(0.003);
  const between = await wander({ stays: 'heights', lowest: 0.1, highest: 0.3 });
  for (const [, y] of places(between)) {
    expect(y).toBeGreaterThan(0.0999);
    expect(y).toBeLessThan(0.3001);
  }
});

test('they keep off one another where they are asked to', async () => {
  const crowded = async (apart: number): Promise<number> => {
    const made = await wander({ count: 30, scatter: 0.3, apart, turning: 0.5 });
    const all = Array.from({ length: 30 }, (_, p) => pointsOf(made, p).slice(6));
    let near = 0;
    all.forEach((own, p) =>
      own.forEach((place) => {
        if (all.some((others, q) => q !== p && others.some((other) => distance(place, other) < 0.05))) near++;
      }),
    );
    return near / all.flat().length;
  };
  const [minding, not] = [await crowded(0.12), await crowded(0)];
  expect(minding).toBeLessThan(not / 3);
});

test('one more changes none of the others, where these do not mind each other', async () => {
  const [some, more] = [await wander({ apart: 0 }), await wander({ apart: 0, count: 9 })];
  for (let p = 0; p < 8; p++) expect(pointsOf(more, p)).toEqual(pointsOf(some, p));
});
