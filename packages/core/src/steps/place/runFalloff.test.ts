import { falloffWeight } from '../../fields/falloff';
import { newGrowth, newStep } from '../../scene/make';
import type { ParamValue, Step } from '../../scene/schema';
import { sceneOf, testEvaluator } from '../../testing';
import type { StepContext } from '../declare';
import type { FalloffParams } from './falloff';
import { weightOf } from './falloffActs';
import { at } from '../../geometry/vec';
import { form, grows } from '../../../test/paths';

const falloff = (params: Record<string, ParamValue>): Step =>
  newStep('falloff', { drives: 'attribute', ease: 'linear', ...params });
const ball = { shape: 'ball', atX: 0.5, atY: 0.5, radius: 0.8, soft: 0.6 };
const sheet = (): Step => newStep('solid', { which: 'sheet', width: 2, height: 2, pieces: 12 });
const line = (): Step => newStep('line', { fromX: -1, toX: 2, toY: 0, points: 60 });

/** What the ball of `ball` weighs, by the field itself. */
const weigh = falloffWeight({
  which: 'ball',
  centre: [0.5, 0.5, 0],
  rotation: [0, 0, 0],
  size: [1.6, 0, 0],
  soft: 0.6,
});

test.each([
  ['skins', [sheet()], 'mesh'],
  ['paths', [line()], 'paths'],
  ['points', [newStep('phyllotaxis', { count: 60, on: 'disc', radius: 1 })], 'points'],
  ['copies', [line(), newStep('along', { growth: 'item', by: 'count', count: 9, settle: 0 })], 'seats'],
] as const)('%s keep the weight of each place as an attribute', async (_, start, kind) => {
  const scene = sceneOf([...start, falloff({ ...ball, name: 'inside' }), falloff({ ...ball, invert: true })]);
  scene.growths.push({ ...newGrowth('Item', 1, [newStep('solid')]), id: 'item', visible: false });
  const [{ form: made, notices }] = (await testEvaluator().evaluate(scene, 1)).growths;
  expect(notices).toEqual([]);
  const of = kind === 'seats' ? made!.copies! : made![kind]!;
  const { inside, falloff: inverted } = of.named;
  expect(inside.values.length).toBeGreaterThan(8);
  inside.values.forEach((value, k) => {
    expect(value).toBeCloseTo(weigh(at(of.positions, k)), 6);
    expect(inverted.values[k]).toBeCloseTo(1 - value, 6);
  });
  expect(new Set(inside.values).size).toBeGreaterThan(3);
});

test('falloffs of the same name combine: the larger of two balls, and none where another name was kept', async () => {
  const two = [
    falloff({ ...ball, name: 'a' }),
    falloff({ ...ball, atX: -0.5, name: 'a', combine: 'larger' }),
    falloff({ ...ball, atX: -0.5, name: 'b', combine: 'times' }),
  ];
  const { mesh } = await form([sheet(), ...two]);
  const other = falloffWeight({
    which: 'ball',
    centre: [-0.5, 0.5, 0],
    rotation: [0, 0, 0],
    size: [1.6, 0, 0],
    soft: 0.6,
  });
  mesh!.named.a.values.forEach((value, k) => {
    const place = at(mesh!.positions, k);
    expect(value).toBeCloseTo(Math.max(weigh(place), other(place)), 6);
    expect(mesh!.named.b.values[k]).toBeCloseTo(other(place), 6);
  });
});

test('the growing front weighs what it has passed: on paths and on the skin they get', async () => {
  const front = falloff({ shape: 'front', delay: 0, over: 2 });
  const steps = [line(), newStep('grow', { to: grows(0, 1) })];
  const { paths } = await form([...steps, front], 51);
  // At an even pace over 100 frames of 1/25 s; 50 frames later the start was passed 2 s ago, the tip now.
  const { values } = paths!.named.falloff;
  expect(values[0]).toBeCloseTo(1, 2);
  expect(values[values.length - 1]).toBeCloseTo(0, 2);
  const middle = Math.floor(values.length / 2);
  expect(values[middle]).toBeCloseTo(0.5, 1);
  const skin = await form([...steps, newStep('tube', { sides: 4 }), front], 51);
  expect(Math.max(...skin.mesh!.named.falloff.values)).toBeCloseTo(1, 2);
});

test('displace goes by it: only what lies in the ball is moved', async () => {
  const plain = (await form([sheet()])).mesh!;
  const amount: ParamValue = {
    base: 0,
    vary: {
      by: 'attribute',
      attribute: 'falloff',
      span: [0, 1],
      amount: 0.3,
      waves: 1,
      shape: [
        { at: 0, value: 0 },
        { at: 1, value: 1 },
      ],
    },
  };
  const moved = (await form([sheet(), falloff(ball), newStep('displace', { amount, noise: 0 })])).mesh!;
  for (let k = 0; k < plain.positions.length / 3; k++) {
    const [before, after] = [at(plain.positions, k), at(moved.positions, k)];
    expect(after[2] - before[2]).toBeCloseTo(0.3 * weigh(before), 5);
  }
});

test('where there are no copies to change it says so, and leaves all as it is', async () => {
  const scene = sceneOf([sheet(), newStep('falloff', { ...ball, drives: 'size' })]);
  const [{ form: made, notices }] = (await testEvaluator().evaluate(scene, 1)).growths;
  expect(notices).toMatchObject([{ level: 'note', what: 'There is nothing here that it changes.' }]);
  expect(made!.mesh!.named).toEqual({});
});

test('along the path needs a path', async () => {
  const places = { count: 1, positions: new Float32Array(3), age: null, share: null, values: () => null };
  const p = { shape: 'along' } as FalloffParams;
  await expect(weightOf(p, places, {} as StepContext)).rejects.toThrow('on no path');
});

test('a drawn curve runs the weight as it is drawn, and no place has less than the least', async () => {
  const curve = [
    { at: 0, value: 0.2, shape: 'straight' },
    { at: 0.5, value: 1, shape: 'straight' },
    { at: 1, value: 0.4, shape: 'straight' },
  ] as const;
  const drawn = (w: number): number => (w < 0.5 ? 0.2 + 1.6 * w : 1 - 1.2 * (w - 0.5));
  const { named, positions } = (
    await form([
      sheet(),
      falloff({ ...ball, name: 'drawn', ease: 'drawn', curve: curve as never }),
      falloff({ ...ball, name: 'raised', least: 0.3 }),
      falloff({ ...ball, name: 'both', ease: 'drawn', curve: curve as never, invert: true, least: 0.25 }),
      falloff({ ...ball, name: 'as it comes', ease: 'drawn' }),
    ])
  ).mesh!;
  const kept = new Set<string>();
  named.drawn.values.forEach((value, k) => {
    const w = weigh(at(positions, k));
    expect(value).toBeCloseTo(drawn(w), 5);
    expect(named.raised.values[k]).toBeCloseTo(0.3 + 0.7 * w, 5);
    expect(named.both.values[k]).toBeCloseTo(0.25 + 0.75 * (1 - drawn(w)), 5);
    expect(Math.abs(named['as it comes'].values[k] - w)).toBeLessThan(0.15);
    kept.add(w.toFixed(3));
  });
  expect(kept.size).toBeGreaterThan(5);
});
