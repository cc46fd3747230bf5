import { areaAndVolume } from '../../geometry/mesh';
import { turnAt, turnedBy } from '../../geometry/turns';
import { at, distance, type Vec3 } from '../../geometry/vec';
import { newGrowth, newStep } from '../../scene/make';
import type { ParamValue, Scene, Step } from '../../scene/schema';
import { sceneOf, testEvaluator } from '../../testing';
import { form, last, line, paths } from '../../../test/paths';

const follow = (params: Record<string, ParamValue> = {}): Step =>
  newStep('follow-path', { growth: 'course', ...params });
const along =
  (...steps: Step[]) =>
  (scene: Scene): void => {
    scene.growths.push({ ...newGrowth('Course', 1, steps), id: 'course' });
    scene.growths.push({ ...newGrowth('Dot', 2, [newStep('solid', { radius: 0.01, sides: 6 })]), id: 'dot' });
  };
const straight = newStep('line', { toX: 4, toY: 0, points: 41 });
/** A circle of radius 2 about the origin, from X on towards Y. */
const circle = newStep('arc', { radius: 2, middleY: 0, sweep: 360, points: 720 });
const near = (v: Vec3, digits = 4): unknown[] => v.map((value) => expect.closeTo(value, digits));

test('what stands on the vertical lies on the path, from where it starts, at its own length', async () => {
  const made = await paths([line(1), follow({ start: 0.25 })], 1, along(straight));
  expect(at(made.positions, 0)).toEqual(near([1, 0, 0]));
  expect(last(made)).toEqual(near([2, 0, 0]));
  // Beyond the end the path goes on straight; before it too.
  expect(last(await paths([line(1), follow({ start: 1 })], 1, along(straight)))).toEqual(near([5, 0, 0]));
  expect(at((await paths([line(1), follow({ start: -0.25 })], 1, along(straight))).positions, 0)).toEqual(
    near([-1, 0, 0]),
  );
});

test('on a circle lengths along the middle stay, what is outside is stretched: 2π (R + r)', async () => {
  const made = await paths([line(1, 101), follow()], 1, along(circle));
  expect(made.whole[0]).toBeCloseTo(1, 3);
  expect(last(made)).toEqual(near([2 * Math.cos(0.5), 2 * Math.sin(0.5), 0], 3));
  const around = await paths([line(4 * Math.PI, 721), follow({ start: 0.5 })], 1, along(circle));
  expect(distance(at(around.positions, 0), last(around))).toBeLessThan(0.02);
});

test('a rod bent along a circle keeps its volume (Pappus)', async () => {
  const rod = newStep('tube', { radius: 0.3, sides: 16, swell: 0, end: 'flat', along: [{ at: 0, value: 1 }] });
  const volume = async (...steps: Step[]): Promise<number> =>
    areaAndVolume((await form([line(1, 101), rod, ...steps], 1, along(circle))).mesh!).volume;
  expect((await volume(follow())) / (await volume())).toBeCloseTo(1, 3);
});

test('fitted, it is as long as what has grown of the path', async () => {
  const course = along(straight, newStep('grow', { to: 0.5 }));
  const made = await paths([line(1), follow({ length: 'fitted' })], 1, course);
  expect(last(made)).toEqual(near([2, 0, 0]));
  // Of its own length it does not heed how much has grown.
  expect(last(await paths([line(3), follow()], 1, course))).toEqual(near([3, 0, 0]));
});

test.each([
  ['x', [1, 0.1, 0.2]],
  ['y', [0.2, 1, 0.1]],
  ['z', [0.1, 0.2, 1]],
] as const)('along %s, upright: the next axis goes up, the third across; copies turn with it', async (axis, place) => {
  const [x, y, z] = place;
  const dots = [
    newStep('line', { fromX: 0, fromY: 0, fromZ: 0, toX: 0, toY: 0, toZ: 0, points: 2 }),
    newStep('line', { fromX: x, fromY: y, fromZ: z, toX: x, toY: y, toZ: z + 1e-6, points: 2 }),
    newStep('along', { growth: 'dot', by: 'count', count: 1, facing: 'upright' }),
  ];
  const before = await form(dots, 1, along(straight));
  const after = await form([...dots, follow({ axis, lean: 'upright' })], 1, along(straight));
  // 1 along the path, 0.1 up, 0.2 across: the path runs along X.
  expect(last(after.paths!, 1)).toEqual(near([1, 0.1, 0.2], 3));
  const own: Vec3[] = [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1],
  ];
  const k = ['x', 'y', 'z'].indexOf(axis);
  const image: Vec3[] = [own[0], own[1], own[2]];
  const last1 = after.copies!.ids.length - 1;
  for (const [j, v] of own.entries()) {
    // A direction of the copy before, told in the axes of the form, is the same in those of the path.
    const was = turnedBy(turnAt(before.copies!.turns, last1), v);
    const will = [0, 1, 2].map((c) =>
      image.reduce((sum, to, m) => sum + was[(k + m) % 3] * to[c], 0),
    ) as unknown as Vec3;
    expect(turnedBy(turnAt(after.copies!.turns, last1), own[j])).toEqual(near(will, 3));
  }
});

test('half way, it is half way there; rolled, it turns about the path', async () => {
  expect(last(await paths([line(1), follow({ amount: 0.5 })], 1, along(straight)))).toEqual(near([0.5, 0.5, 0]));
  const beside = newStep('line', { fromX: 0.3, toX: 0.3, toY: 1, points: 2 });
  const rolled = await paths([beside, follow({ roll: 40 })], 1, along(straight));
  const plain = await paths([beside, follow()], 1, along(straight));
  const [, y0, z0] = last(plain);
  const [, y1, z1] = last(rolled);
  expect(Math.hypot(y1, z1)).toBeCloseTo(0.3, 5);
  // About the path, which runs along X: right-handed from Y to Z.
  const turned = ((Math.atan2(z1, y1) - Math.atan2(z0, y0)) * 180) / Math.PI;
  expect(((turned % 360) + 360) % 360).toBeCloseTo(40, 3);
});

test('without a path it says so', async () => {
  const [{ notices }] = (await testEvaluator().evaluate(sceneOf([line(1), newStep('follow-path')]), 1)).growths;
  expect(notices.map(({ what }) => what)).toEqual(['No path is chosen.']);
});
