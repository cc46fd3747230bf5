import type { Form } from '../../geometry/form';
import { NO_PARENT, type Paths, pathsFrom } from '../../geometry/paths';
import { at, distance, dot, partWay, sub, unit, type Vec3 } from '../../geometry/vec';
import { newStep } from '../../scene/make';
import type { Step } from '../../scene/schema';
import { form } from '../../../test/paths';

/** How far the base of each branch is from its parent, and the angle to it there, degrees; in the order of the paths. */
function joints(paths: Paths): { gap: number; angle: number }[] {
  const places = new Map([...paths.ids].map((id, p) => [id, p]));
  return [...paths.ids].flatMap((_, p) => {
    const parent = places.get(paths.parent?.[p] ?? NO_PARENT);
    if (parent === undefined) return [];
    const [first, end] = [paths.offsets[parent], paths.offsets[parent + 1]];
    const u = paths.attach![p];
    let k = first;
    while (k + 2 < end && paths.u[k + 1] < u) k++;
    const t = (u - paths.u[k]) / (paths.u[k + 1] - paths.u[k]);
    const [a, b] = [at(paths.positions, k), at(paths.positions, k + 1)];
    const joint = partWay(a, b, t);
    const base = paths.offsets[p];
    const own = unit(sub(at(paths.positions, base + 1), at(paths.positions, base)));
    const angle = (Math.acos(Math.min(1, Math.max(-1, dot(unit(sub(b, a)), own)))) * 180) / Math.PI;
    return [{ gap: distance(joint, at(paths.positions, base)), angle }];
  });
}

const tree = (...steps: Step[]) => form([newStep('colonise', { count: 240 }), ...steps], 20);

// The property that the proof asks for: no joint ever comes apart, whatever moves the paths.
test.each<[string, Step[]]>([
  [
    'noise that differs from path to path',
    [
      newStep('noise', {
        amount: {
          base: 0.3,
          vary: {
            by: 'random',
            amount: 0.2,
            waves: 1,
            span: [0, 1],
            shape: [
              { at: 0, value: 0 },
              { at: 1, value: 1 },
            ],
          },
        },
      }),
    ],
  ],
  ['noise held at each base', [newStep('noise', { amount: 0.4, hold: 0.9 })]],
  ['a wave', [newStep('wave', { amount: 0.2 })]],
  ['bend', [newStep('bend', { angle: 80 })]],
  ['twist', [newStep('twist', { angle: 200 })]],
  ['smooth', [newStep('smooth', { rounds: 20 })]],
  ['respace', [newStep('respace', { by: 'spacing', spacing: 0.11 })]],
  ['thin', [newStep('thin', { within: 0.03 })]],
  ['move and turn', [newStep('transform', { turnX: 30, turnY: 70, moveX: 2 })]],
])('joints hold together under %s', async (_, steps) => {
  const { paths } = await tree(...steps);
  const found = joints(paths!);
  expect(found.length).toBeGreaterThan(20);
  for (const { gap } of found) expect(gap).toBeLessThan(1e-5);
});

/** A trunk along Y with a branch that stands out from its middle along X. */
const trunk = (): Paths => {
  const line = (from: Vec3, to: Vec3): Float64Array =>
    Float64Array.from({ length: 3 * 21 }, (_, i) => from[i % 3] + ((to[i % 3] - from[i % 3]) * Math.floor(i / 3)) / 20);
  const paths = pathsFrom([
    { positions: line([0, 0, 0], [0, 2, 0]), closed: false },
    { positions: line([0, 1, 0], [0.8, 1, 0]), closed: false },
  ]);
  return { ...paths, parent: Uint32Array.of(NO_PARENT, paths.ids[0]), attach: Float32Array.of(0, 0.5) };
};

const moved = async (move: (place: Vec3, u: number, id: number) => Vec3): Promise<Paths> => {
  const { eachPathPoint } = await import('./eachPoint');
  const context = { yieldNow: () => Promise.resolve() };
  const made: Form = await eachPathPoint({ paths: trunk() } as Form, context as never, (place, _, { u, id }) =>
    move(place, u, id),
  );
  return made.paths!;
};

test('a branch turns with its parent where only the parent is moved', async () => {
  // The trunk leans over by 0.5 metres a metre, the branch itself is held: the joint turns by the angle of that slope.
  const leant = await moved(([x, y, z], _, id) => (id === trunk().ids[0] ? [x + 0.5 * y, y, z] : [x, y, z]));
  const [{ gap, angle }] = joints(leant);
  expect(gap).toBeLessThan(1e-6);
  expect(angle).toBeCloseTo(90, 3);
  const tip = at(leant.positions, leant.offsets[2] - 1);
  const turn = Math.atan(0.5);
  [0.5 + 0.8 * Math.cos(turn), 1 - 0.8 * Math.sin(turn), 0].forEach((x, c) => expect(tip[c]).toBeCloseTo(x, 5));
});

test('where one field moves both, a branch lies where the field has it', async () => {
  const field = ([x, y, z]: Vec3): Vec3 => [x + 0.2 * Math.sin(2 * y), y + 0.1 * x * x, z + 0.3 * x * y];
  const made = await moved(field);
  const before = trunk();
  for (let i = 0; i < before.s.length; i++)
    expect(distance(at(made.positions, i), field(at(before.positions, i)))).toBeLessThan(1e-5);
});
