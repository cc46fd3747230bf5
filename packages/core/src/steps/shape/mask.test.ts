import type { BrushStroke, Stroke } from '../../geometry/maskStroke';
import type { Mesh } from '../../geometry/mesh';
import { at, distance, type Vec3 } from '../../geometry/vec';
import { newStep } from '../../scene/make';
import { paramFault } from '../../scene/params';
import type { ParamValue } from '../../scene/schema';
import { stepOf } from '../index';
import { form, grows } from '../../../test/paths';

const brush = (points: readonly (readonly number[])[], more: Partial<BrushStroke> = {}): BrushStroke => ({
  does: 'paint',
  radius: 0.4,
  strength: 1,
  soft: 0.5,
  frame: 1,
  points: points.flatMap(([x, y, z, pressure = 1]) => [x, y, z, pressure]),
  ...more,
});
const mask = (strokes: Stroke[], more: Record<string, ParamValue> = {}) => newStep('mask', { strokes, ...more });
const ball = (pieces = 40) => newStep('solid', { which: 'ball', radius: 1, pieces });
/** A sheet of 2 × 2 m that stands on the ground and looks towards +Z. */
const board = (pieces = 16) => newStep('solid', { which: 'sheet', width: 2, height: 2, pieces });
const of = (mesh: Mesh, name = 'mask'): Float32Array => mesh.named[name].values;
const near = (mesh: Mesh, place: Vec3): number => {
  let best = 0;
  for (let i = 0; 3 * i < mesh.positions.length; i++)
    if (distance(at(mesh.positions, i), place) < distance(at(mesh.positions, best), place)) best = i;
  return best;
};

test('a dab is all inside, fades by smoothstep to its border, and is nothing beyond', async () => {
  const { mesh } = await form([ball(64), mask([brush([[0, 1, 0]])])]);
  const values = of(mesh!);
  for (let i = 0; i < values.length; i++) {
    const away = distance(at(mesh!.positions, i), [0, 1, 0]) / 0.4;
    const t = Math.min(1, Math.max(0, (1 - away) / 0.5));
    expect(values[i]).toBeCloseTo(t * t * (3 - 2 * t), 5);
  }
  expect(Math.max(...values)).toBe(1);
});

test('pressure and strength count, erase takes off, fill and invert do the whole', async () => {
  const values = async (strokes: Stroke[]): Promise<number> => {
    const { mesh } = await form([ball(), mask(strokes)]);
    return of(mesh!)[near(mesh!, [0, 1, 0])];
  };
  const top = [0, 1, 0];
  expect(await values([brush([[...top, 0.25]])])).toBeCloseTo(0.25);
  expect(await values([brush([top], { strength: 0.5 }), brush([top], { strength: 0.5 })])).toBeCloseTo(0.75);
  // Going over the same place within one stroke adds nothing.
  expect(await values([brush([top, [0.1, 1, 0], top], { strength: 0.5 })])).toBeCloseTo(0.5);
  expect(await values([{ does: 'fill' }, brush([top], { does: 'erase', strength: 0.25 })])).toBeCloseTo(0.75);
  expect(await values([brush([top], { strength: 0.2 }), { does: 'invert' }])).toBeCloseTo(0.8);
});

test('soften brings a step towards the mean about it, and leaves the rest', async () => {
  const sharp = [
    brush(
      [
        [0, -1, 0],
        [0, 3, 0],
      ],
      { soft: 0, radius: 0.5 },
    ),
  ];
  const { mesh: before } = await form([board(64), mask(sharp)]);
  const { mesh: after } = await form([
    board(64),
    mask([...sharp, brush([[0.5, 1, 0]], { does: 'soften', radius: 0.4, soft: 0 })]),
  ]);
  const steepest = (mesh: Mesh, z: number): number => {
    const row = Array.from({ length: 33 }, (_, i) => of(mesh)[near(mesh, [i / 32, z + 1, 0])]);
    return Math.max(...row.slice(1).map((value, i) => Math.abs(value - row[i])));
  };
  expect(steepest(before!, 0)).toBe(1);
  // The mean is taken over 0.14 m: nine of these columns.
  expect(steepest(after!, 0)).toBeLessThan(0.35);
  expect(steepest(after!, 0.75)).toBe(1);
});

test('the far side of a thin board stays as it is', async () => {
  const { mesh } = await form([board(32), newStep('thicken', { thick: 0.02 }), mask([brush([[0, 1, 0.01]])])]);
  const values = of(mesh!);
  let under = 0;
  for (let i = 0; i < values.length; i++) if (mesh!.normals[3 * i + 2] < -0.5) under = Math.max(under, values[i]);
  expect(under).toBe(0);
  expect(Math.max(...values)).toBe(1);
});

test('painting and then dividing is dividing and then painting', async () => {
  const soft = { soft: 1 };
  const strokes = [
    brush(
      [
        [-0.6, 1, 0],
        [0.5, 1.3, 0],
      ],
      soft,
    ),
    brush([[0.4, 1.2, 0]], { ...soft, does: 'erase' }),
  ];
  const divide = newStep('subdivide', { levels: 1, crease: 0 });
  const { mesh: first } = await form([board(24), mask(strokes), divide]);
  const { mesh: then } = await form([board(24), divide, mask(strokes)]);
  expect(first!.positions.length).toBe(then!.positions.length);
  let [corners, worst] = [0, 0];
  for (let i = 0; i < of(first!).length; i++) {
    expect(distance(at(first!.positions, i), at(then!.positions, i))).toBeLessThan(1e-6);
    const differs = Math.abs(of(first!)[i] - of(then!)[i]);
    worst = Math.max(worst, differs);
    if (differs < 1e-6) corners++;
  }
  // Corners that were there are the same. Between them the one is interpolated, the other exact: they differ by an eighth of the
  // second derivative (6 / 0.4²) times the square of the longest edge (2 / 24 · √2) at most.
  expect(corners / of(first!).length).toBeGreaterThan(0.25);
  expect(worst).toBeLessThan(0.066);
});

test('a finer form has the same mask', async () => {
  const stroke = [
    brush([
      [0, 1, 0],
      [1, 0, 0],
    ]),
  ];
  const { mesh: coarse } = await form([ball(32), mask(stroke)]);
  const { mesh: fine } = await form([ball(64), mask(stroke)]);
  for (const place of [
    [0, 1, 0],
    [Math.SQRT1_2, Math.SQRT1_2, 0],
  ] as Vec3[])
    expect(of(coarse!)[near(coarse!, place)]).toBeCloseTo(of(fine!)[near(fine!, place)], 1);
});

test('mirrored, both sides have it; the plane may stand elsewhere', async () => {
  const side = mask([brush([[0.8, 0.6, 0]], { radius: 0.3 })], { mirror: 'x' });
  const { mesh } = await form([ball(), side]);
  expect(of(mesh!)[near(mesh!, [0.8, 0.6, 0])]).toBeGreaterThan(0.9);
  expect(of(mesh!)[near(mesh!, [-0.8, 0.6, 0])]).toBeGreaterThan(0.9);
  const { mesh: other } = await form([board(32), mask([brush([[0.8, 1, 0]])], { mirror: 'x', plane: 0.5 })]);
  expect(of(other!)[near(other!, [0.2, 1, 0])]).toBe(1);
});

test('the mask rides on a form that moves, wherever it stood when it was painted', async () => {
  const steps = (frame: number, place: readonly number[]) => [
    board(32),
    newStep('transform', { moveX: grows(0, 10) }),
    mask([brush([place], { frame })], { name: 'spared' }),
  ];
  // The same place of the board, painted where it stood at frame 1 and at frame 51.
  for (const [frame, place] of [
    [1, [0.5, 1, 0]],
    [51, [5.5, 1, 0]],
  ] as const)
    for (const shown of [1, 30, 101]) {
      const { mesh } = await form([...steps(frame, place)], shown);
      const values = of(mesh!, 'spared');
      const i = near(mesh!, [0.5 + (shown - 1) / 10, 1, 0]);
      expect(values[i]).toBe(1);
      expect(values[near(mesh!, [-0.5 + (shown - 1) / 10, 1, 0])]).toBe(0);
    }
});

test('on a skin that grows along its path the mask stays at its place along it', async () => {
  const steps = (frame: number) => [
    newStep('line', { fromY: 0, toY: 2, points: 41 }),
    newStep('grow', { to: grows(0, 1) }),
    newStep('tube', { radius: 0.1 }),
    mask([brush([[0.1, 0.5, 0]], { frame, radius: 0.2 })]),
  ];
  for (const painted of [51, 101])
    for (const shown of [41, 101]) {
      const { mesh } = await form(steps(painted), shown);
      expect(of(mesh!)[near(mesh!, [0.1, 0.5, 0])]).toBeGreaterThan(0.9);
      expect(of(mesh!)[near(mesh!, [0.1, 0.15, 0])]).toBe(0);
    }
});

test('lists with holes are refused: written to a file they would come back as something else', () => {
  const holed = [1, 2, 3];
  Reflect.deleteProperty(holed, 1);
  expect(paramFault(stepOf('drawn')!.params.anchors, [[0, 0, 0], holed])).toMatch(/entry 2/);
  const points = [0, 0, 0, 1];
  Reflect.deleteProperty(points, 2);
  expect(paramFault(stepOf('mask')!.params.strokes, [{ ...brush([[0, 0, 0]]), points }])).toMatch(/entry 1/);
});

test('what is no stroke is refused with its number', () => {
  const spec = stepOf('mask')!.params.strokes;
  const good = brush([[0, 0, 0]]);
  expect(paramFault(spec, [good, { does: 'fill' }])).toBeNull();
  for (const wrong of [
    { ...good, radius: 0 },
    { ...good, points: [1, 2, 3] },
    { ...good, strength: NaN },
    { does: 'x' },
    null,
  ])
    expect(paramFault(spec, [good, wrong])).toMatch(/entry 2/);
});
