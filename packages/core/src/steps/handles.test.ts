import { form } from '../../test/paths';
import { at, distance, type Vec3 } from '../geometry/vec';
import { defaultsOf, newStep } from '../scene/make';
import type { Resolved } from './declare';
import { type Handle, HANDLES } from './handles';
import { stepOf, STEPS } from './index';

const handlesOf = (kind: string, params: Record<string, number | string> = {}): Handle[] =>
  HANDLES[kind]({ ...(defaultsOf(stepOf(kind)!) as Resolved), ...params });
const named = (handles: Handle[], label: string): Handle => handles.find((handle) => handle.label === label)!;

test.each(Object.keys(HANDLES))(
  '%s: put where it is, a handle changes nothing; elsewhere, it stands there as far as it can',
  (kind) => {
    const params = defaultsOf(stepOf(kind)!) as Resolved;
    for (const { label, at: place, set } of handlesOf(kind)) {
      for (const [name, value] of Object.entries(set(place)))
        expect([name, value]).toEqual([name, expect.closeTo(Number(params[name]), 9)]);
      const moved = set([place[0] + 0.3, place[1] + 0.2, place[2] - 0.1]);
      // It sets numbers of this step alone.
      for (const name of Object.keys(moved)) expect(stepOf(kind)!.params[name].type).toBe('number');
      const after = named(HANDLES[kind]({ ...params, ...moved }), label);
      for (const [name, value] of Object.entries(after.set(after.at))) expect(value).toBeCloseTo(moved[name], 9);
    }
  },
);

test('handles lie on what they shape', async () => {
  const ends = async (kind: string, params = {}): Promise<[Vec3, Vec3]> => {
    const { positions } = (await form([newStep(kind, params)])).paths!;
    return [at(positions, 0), at(positions, positions.length / 3 - 1)];
  };
  for (const kind of ['line', 'catenary']) {
    const [first, last] = await ends(kind);
    expect(distance(first, named(handlesOf(kind), 'From').at)).toBeCloseTo(0, 5);
    expect(distance(last, named(handlesOf(kind), 'To').at)).toBeCloseTo(0, 5);
  }
  const wound = { baseX: 0.4, baseY: 0.2, start: 30, turns: 3 };
  const [low, high] = await ends('helix', wound);
  expect(distance(low, named(handlesOf('helix', wound), 'Base radius').at)).toBeCloseTo(0, 5);
  expect(high[1]).toBeCloseTo(named(handlesOf('helix', wound), 'Height').at[1], 5);
  for (const lies of ['upright', 'ground']) {
    const round = { start: 50, sweep: 120, middleZ: 0.3, lies };
    const [first] = await ends('arc', round);
    expect(distance(first, named(handlesOf('arc', round), 'Radius').at)).toBeCloseTo(0, 5);
  }
  const { positions } = (await form([newStep('rock', { atX: 1 })])).mesh!;
  const own = handlesOf('rock', { atX: 1 });
  const most = (c: number): number => Math.max(...positions.filter((_, i) => i % 3 === c));
  expect(most(0)).toBeCloseTo(named(own, 'Width').at[0], 5);
  expect(most(1)).toBeCloseTo(named(own, 'Height').at[1], 5);
  expect(most(2)).toBeCloseTo(named(own, 'Depth').at[2], 5);
});

test('what is held says so, and nothing else does', () => {
  expect(
    STEPS.filter(({ held }) => held)
      .map(({ kind }) => kind)
      .sort(),
  ).toEqual(Object.keys(HANDLES).sort());
});
