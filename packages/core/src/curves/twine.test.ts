import { nearestPlace } from '../geometry/search/nearest';
import type { Form } from '../geometry/form';
import { wholeMesh } from '../geometry/copies';
import { at, cross, distance, dot, sub, type Vec3 } from '../geometry/vec';
import { newGrowth, newStep } from '../scene/make';
import type { ParamValue, Step } from '../scene/schema';
import { grows } from '../../test/paths';
import { flaws } from '../geometry/invariants';
import { sceneOf, testEvaluator } from '../testing';
import { grownLength } from './pathFrames';

/** Tendrils round a host, and the host. */
async function both(host: Step[], more: Record<string, ParamValue>, frame: number, after: Step[]): Promise<Form[]> {
  const scene = sceneOf([newStep('twine', { growth: 'host', count: 1, ...more }), ...after]);
  scene.growths.push({ ...newGrowth('Host', 1, host), id: 'host', seed: 5 });
  const { growths } = await testEvaluator().evaluate(scene, frame);
  return growths.map((growth) => {
    expect(growth.notices).toEqual([]);
    expect(flaws(growth.form!)).toEqual([]);
    return growth.form!;
  });
}
const twine = async (
  host: Step[],
  more: Record<string, ParamValue> = {},
  frame = 1,
  after: Step[] = [],
): Promise<Form> => (await both(host, more, frame, after))[0];
const post = (height = 2): Step[] => [
  newStep('line', { toY: height, points: 81 }),
  newStep('tube', { radius: 0.1, sides: 96, along: [{ at: 0, value: 1 }], swell: 0, end: 'flat' }),
];

test('round a straight post it is the helix: its distance, its length, its hand', async () => {
  // Length of a helix of radius r and pitch p: √((2πr)² + p²) a turn (do Carmo, Differential Geometry of Curves and Surfaces, 1976).
  const [r, pitch] = [0.1 + 0.04, 0.5];
  for (const hand of ['right', 'left']) {
    const { paths } = await twine(post(), { pitch, clearance: 0.04, hand, points: 96 });
    const { positions } = paths!;
    const n = positions.length / 3;
    for (let i = 0; i < n; i++) {
      const [x, , z] = at(positions, i);
      // The post is a prism of 96 sides: its flats lie nearer by half a thousandth.
      expect(Math.abs(Math.hypot(x, z) - r)).toBeLessThan(6e-4);
    }
    expect(grownLength(paths) / (4 * Math.hypot(2 * Math.PI * r, pitch))).toBeCloseTo(1, 2);
    // The triple product of three steps on is above 0 on a right-handed helix.
    const steps = [0, 1, 2].map((k) => sub(at(positions, 20 + k + 1), at(positions, 20 + k)));
    expect(Math.sign(dot(cross(steps[0], steps[1]), steps[2]))).toBe(hand === 'right' ? 1 : -1);
  }
});

test('along a bent host it keeps its clearance, and never cuts in', async () => {
  const bent = [
    newStep('arc', { radius: 0.6, points: 160, sweep: 300 }),
    newStep('noise', { amount: 0.12, evolve: 0 }),
    newStep('tube', { radius: 0.12, sides: 48 }),
  ];
  const [{ paths }, host] = await both(bent, { pitch: 0.3, clearance: 0.03, count: 3 }, 1, []);
  const skin = wholeMesh(host)!;
  let [least, most] = [Infinity, 0];
  for (let i = 0; 3 * i < paths!.positions.length; i++) {
    const away = nearestPlace(skin, at(paths!.positions, i))!.distance;
    [least, most] = [Math.min(least, away), Math.max(most, away)];
  }
  expect(least).toBeGreaterThan(0.03 * 0.97);
  expect(most).toBeLessThan(0.03 * 1.6);
});

test('it moves with its host', async () => {
  const still = (await twine(post())).paths!;
  const moved = (await twine([...post(), newStep('transform', { moveX: 3, turnZ: 40 })])).paths!;
  const turn = (40 * Math.PI) / 180;
  for (let i = 0; 3 * i < still.positions.length; i += 7) {
    const [x, y, z] = at(still.positions, i);
    const there: Vec3 = [3 + x * Math.cos(turn) - y * Math.sin(turn), x * Math.sin(turn) + y * Math.cos(turn), z];
    expect(distance(at(moved.positions, i), there)).toBeLessThan(1e-4);
  }
});

test('more tendrils are spread about it, and each keeps its number when there are more hosts', async () => {
  const { paths } = await twine(post(), { count: 4 });
  const begins = [0, 1, 2, 3].map((p) => at(paths!.positions, paths!.offsets[p]));
  for (let k = 0; k < 4; k++) expect(distance(begins[k], begins[(k + 1) % 4])).toBeCloseTo(0.13 * Math.SQRT2, 2);
  expect(new Set(paths!.ids).size).toBe(4);
});

test('feeling tips leave the course only near the growing end, circle, and close over the range', async () => {
  const grown = [newStep('grow', { to: grows(0, 1) }), newStep('feel', { length: 0.4, reach: 0.1, speed: 1 })];
  const plain = (await twine(post(), {}, 60, [newStep('grow', { to: grows(0, 1) })])).paths!;
  const felt = (await twine(post(), {}, 60, grown)).paths!;
  const last = plain.s.length - 1;
  for (let i = 0; i <= last; i++) {
    const behind = plain.s[last] - plain.s[i];
    const away = distance(at(plain.positions, i), at(felt.positions, i));
    expect(away).toBeCloseTo(behind >= 0.4 ? 0 : 0.1 * (1 - behind / 0.4) ** 2, 4);
  }
  const whole = [newStep('feel', { length: 0.4, reach: 0.1, speed: 1 })];
  const [first, end] = [(await twine(post(), {}, 1, whole)).paths!, (await twine(post(), {}, 145, whole)).paths!];
  expect(distance(at(first.positions, first.s.length - 1), at(end.positions, end.s.length - 1))).toBeLessThan(1e-5);
});

test('it begins and ends where it is told to, of the way along the post', async () => {
  const { positions } = (await twine(post(), { pitch: 0.5, clearance: 0.04, from: 0.25, to: 0.75 })).paths!;
  const heights = Array.from({ length: positions.length / 3 }, (_, i) => positions[3 * i + 1]);
  expect(heights[0]).toBeCloseTo(0.5, 3);
  expect(heights.at(-1)).toBeCloseTo(1.5, 3);
  expect(grownLength((await twine(post(), { pitch: 0.5, clearance: 0.04, from: 0.25, to: 0.75 })).paths)).toBeCloseTo(
    2 * Math.hypot(2 * Math.PI * 0.14, 0.5),
    1,
  );
});
