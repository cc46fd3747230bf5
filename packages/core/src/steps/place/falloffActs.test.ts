import { SeatList } from '../../geometry/seats';
import { about, after, NO_TURN, type Turn, turnAt, turnedBy } from '../../geometry/turns';
import { at, dot, type Vec3 } from '../../geometry/vec';
import { newStep } from '../../scene/make';
import type { ParamValue } from '../../scene/schema';
import type { FalloffParams } from './falloff';
import { driven, weightOf } from './falloffActs';

const QUARTER = about([0, 0, 1], Math.PI / 2);
/** Two seats: one as it comes, one turned by a quarter about Z. */
const seats = () => {
  const list = new SeatList(['item']);
  const made = list.room(2);
  list.took(2);
  made.positions.set([1, 2, 3, 4, 5, 6]);
  made.turns.set([...NO_TURN, ...QUARTER]);
  made.sizes.fill(2);
  return list.done();
};
const params = (more: Record<string, ParamValue>): FalloffParams =>
  ({ ...newStep('falloff').params, spinX: 0, spinY: 0, spinZ: 0, moveX: 0, moveY: 0, moveZ: 0, ...more }) as never;
const act = (more: Record<string, ParamValue>, ...weights: number[]) =>
  driven(params(more), seats(), Float32Array.from(weights), 25);
/** How alike two turns are: 1 for the same. */
const alike = (a: Turn, b: Turn): number => Math.abs(a.reduce((sum, x, i) => sum + x * b[i], 0));

test.each([
  ['spinX', [1, 0, 0]],
  ['spinY', [0, 1, 0]],
  ['spinZ', [0, 0, 1]],
] as [string, Vec3][])('%s turns each about an axis of its own, by as much as it weighs', (spin, axis) => {
  const { turns } = act({ drives: 'turn', [spin]: 80 }, 1, 0.25);
  const by = (degrees: number): Turn => about(axis, (degrees * Math.PI) / 180);
  expect(alike(turnAt(turns, 0), by(80))).toBeCloseTo(1, 6);
  expect(alike(turnAt(turns, 1), after(QUARTER, by(20)))).toBeCloseTo(1, 6);
});

test('it moves by as much as it weighs, the way of the scene or that of each', () => {
  const by: Vec3 = [0.4, -0.2, 0.1];
  const [moveX, moveY, moveZ] = by;
  const scene = act({ drives: 'move', frame: 'world', moveX, moveY, moveZ }, 0.5, 1).positions;
  [1.2, 1.9, 3.05, 4.4, 4.8, 6.1].forEach((x, i) => expect(scene[i]).toBeCloseTo(x, 5));
  const own = act({ drives: 'move', frame: 'own', moveX, moveY, moveZ }, 0, 1).positions;
  const moved = turnedBy(QUARTER, by);
  [1, 2, 3, 4 + moved[0], 5 + moved[1], 6 + moved[2]].forEach((x, i) => expect(own[i]).toBeCloseTo(x, 5));
});

test('sizes go from what they are to so many times that; nothing else is touched', () => {
  const made = act({ drives: 'size', factor: 3 }, 0, 0.5);
  expect([...made.sizes]).toEqual([2, 2, 2, 4, 4, 4]);
  expect(dot(at(made.positions, 1), [1, 1, 1])).toBe(15);
  expect([...act({ drives: 'time', late: 0.4 }, 0, 0.5).late!]).toEqual([0, 5]);
});

// At half of the way from one value to the other it weighs one half, whichever of them is the larger.
test.each([
  [2, 6],
  [6, 2],
])('by an attribute it weighs nothing at %d, all at %d, and in between in proportion', async (nothingAt, allAt) => {
  const far = [0, 2, 3, 4, 5, 6, 9];
  const asked: string[] = [];
  const values = (name: string): number[] => (asked.push(name), far);
  const weight = await weightOf(
    params({ shape: 'attribute', attribute: 'far', nothingAt, allAt }),
    { positions: new Float32Array(21), age: null, share: null, values } as never,
    {} as never,
  );
  expect(asked).toEqual(['far']);
  const rising = [0, 0, 0.25, 0.5, 0.75, 1, 1];
  const wanted = allAt > nothingAt ? rising : rising.map((w) => 1 - w);
  wanted.forEach((w, k) => expect(weight(k)).toBeCloseTo(w, 9));
});
