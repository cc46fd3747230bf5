import { falloffWeight } from '../../fields/falloff';
import { turnAt, turnedBy } from '../../geometry/turns';
import { at, dot } from '../../geometry/vec';
import { newGrowth, newStep } from '../../scene/make';
import { newGuide } from '../../scene/owners';
import type { ParamValue, Scene, Step } from '../../scene/schema';
import { sceneOf, testEvaluator } from '../../testing';
import { form, grows, line, paths } from '../../../test/paths';

const falloff = (params: Record<string, ParamValue>): Step => newStep('falloff', { ease: 'linear', ...params });
const ball = { shape: 'ball', atX: 0, atY: 0.5, atZ: 0, radius: 0.3, soft: 0.4 };
const weigh = (soft = 0.4, shift = 0) =>
  falloffWeight({ which: 'ball', centre: [0, 0.5, 0], rotation: [0, 0, 0], size: [0.6, 0, 0], soft, shift });
const sheet = newStep('solid', { which: 'sheet', width: 2, height: 2, pieces: 24 });

test('points of a path move by as much as they weigh', async () => {
  const made = await paths([line(1, 41), falloff({ ...ball, drives: 'move', moveX: 0.4, moveY: 0 })]);
  for (let i = 0; i < 41; i++) {
    const y = i / 40;
    expect(at(made.positions, i)).toEqual([expect.closeTo(0.4 * weigh()([0, y, 0]), 5), expect.closeTo(y, 5), 0]);
  }
});

test('behind a front they fall one after another, each for as long as it takes', async () => {
  const steps = [line(1, 101), newStep('grow', { to: grows(0, 1) })];
  const drop = falloff({ shape: 'front', drives: 'move', moveY: 0, moveX: 1, delay: 0.4, over: 0.8 });
  const { fps } = sceneOf([]);
  const made = await paths([...steps, drop], 81);
  const { positions, s } = made;
  // The front passed height y at frame 1 + 100 y.
  for (let i = 0; i < s.length; i += 7) {
    const age = (80 - 100 * s[i]) / fps;
    expect(positions[3 * i]).toBeCloseTo(Math.min(1, Math.max(0, (age - 0.4) / 0.8)), 2);
  }
});

test('along the axes of its own: a path beside itself, a skin out of itself, its normals with it', async () => {
  const own = { drives: 'move', frame: 'own', moveX: 0, moveY: 0.3, moveZ: 0 };
  const along = await paths([line(1, 41), falloff({ ...ball, ...own })]);
  // Y of a path is its own direction.
  expect(at(along.positions, 20)).toEqual([0, expect.closeTo(0.8, 5), 0]);
  const globe = newStep('solid', { radius: 1, sides: 64, atY: 0 });
  const { mesh } = await form([globe, falloff({ shape: 'plane', atY: -3, invert: true, ...own })]);
  for (let i = 0; i < mesh!.positions.length / 3; i += 11)
    expect(dot(at(mesh!.positions, i), at(mesh!.normals, i))).toBeCloseTo(1.3, 2);
});

test('a skin bulges where the ball is, and light follows the bulge', async () => {
  const { mesh } = await form([sheet, falloff({ ...ball, soft: 0.8, drives: 'move', moveX: 0, moveY: 0, moveZ: 0.5 })]);
  const field = weigh(0.8);
  const { positions, normals } = mesh!;
  let leans = 0;
  for (let i = 0; i < positions.length / 3; i++) {
    const [x, y, z] = at(positions, i);
    expect(z).toBeCloseTo(0.5 * field([x, y, 0]), 4);
    leans = Math.max(leans, Math.hypot(normals[3 * i], normals[3 * i + 1]));
  }
  expect(leans).toBeGreaterThan(0.3);
});

test('thickness of paths, size and turn of points, colour of skins', async () => {
  const thick = await paths([line(1, 41), falloff({ ...ball, drives: 'size', factor: 3 })]);
  expect([thick.size[0], thick.size[20]]).toEqual([expect.closeTo(1, 5), expect.closeTo(3, 5)]);
  const head = newStep('phyllotaxis', { count: 40, radius: 0.5 });
  const all = { shape: 'plane', atY: 50 };
  const big = (await form([head, falloff({ ...all, drives: 'size', factor: 0.5 })])).points!;
  const before = (await form([head])).points!;
  big.size.forEach((size, k) => expect(size).toBeCloseTo(0.5 * before.size[k], 5));
  const spun = (await form([head, falloff({ ...all, drives: 'turn', spinY: 90 })])).points!;
  // A quarter turn about its own Y takes its X to where −Z was.
  expect(turnedBy(turnAt(spun.turns, 7), [1, 0, 0])).toEqual(
    turnedBy(turnAt(before.turns, 7), [0, 0, -1]).map((v) => expect.closeTo(v, 5)),
  );
  const { mesh } = await form([sheet, newStep('finish'), falloff({ ...all, drives: 'color', color: '#000000' })]);
  expect(Math.max(...mesh!.colors!)).toBeLessThan(1e-6);
});

test('several share one guide, each with a shift of its own', async () => {
  const guide = (scene: Scene): void =>
    void scene.guides.push(newGuide('g', 'Ball', 'ball', { positionX: 0, positionY: 0.5, positionZ: 0, radius: 0.3 }));
  const by = { shape: 'guide', guide: 'guide:g', soft: 0.4, drives: 'move', moveX: 1, moveY: 0 };
  const plain = await paths([line(1, 41), falloff(by)], 1, guide);
  const shifted = await paths([line(1, 41), falloff({ ...by, shift: 0.15 })], 1, guide);
  for (let i = 0; i < 41; i++) {
    expect(plain.positions[3 * i]).toBeCloseTo(weigh()([0, i / 40, 0]), 5);
    expect(shifted.positions[3 * i]).toBeCloseTo(weigh(0.4, 0.15)([0, i / 40, 0]), 5);
  }
  // As if the ball were larger by that much.
  const larger = falloffWeight({
    which: 'ball',
    centre: [0, 0.5, 0],
    rotation: [0, 0, 0],
    size: [0.9, 0, 0],
    soft: 0.4,
  });
  expect(shifted.positions[3 * 35]).toBeCloseTo(larger([0, 35 / 40, 0]), 5);
});

test('branches stay on what they grow from', async () => {
  const { paths: tree } = await form([
    newStep('rules', { generations: 3 }),
    falloff({ ...ball, radius: 1, soft: 1, drives: 'move', moveX: 0.6 }),
  ]);
  // `form` has looked for joints off their parents already; something must have moved.
  expect(Math.max(...tree!.positions.filter((_, i) => i % 3 === 0))).toBeGreaterThan(0.4);
});

test('with copies it changes these alone; what it cannot change is told', async () => {
  const steps = [line(1, 11), newStep('along', { growth: 'dot', by: 'count', count: 3 })];
  const scene = sceneOf([...steps, falloff({ shape: 'plane', atY: 50, drives: 'move', moveX: 1, moveY: 0 })]);
  scene.growths.push({ ...newGrowth('Dot', 1, [newStep('solid')]), id: 'dot' });
  const { form: made } = (await testEvaluator().evaluate(scene, 1)).growths[0];
  expect(made!.paths!.positions[0]).toBe(0);
  expect(made!.copies!.positions[0]).toBeCloseTo(1, 5);
  const none = sceneOf([line(1), falloff({ drives: 'time' })]);
  const [{ notices }] = (await testEvaluator().evaluate(none, 1)).growths;
  expect(notices.map(({ what }) => what)).toEqual(['There is nothing here that it changes.']);
});
