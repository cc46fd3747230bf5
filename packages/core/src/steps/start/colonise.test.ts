import { coloniseSpace } from '../../curves/colonise';
import { nodePaths } from '../../curves/nodePaths';
import { insideOf, nearestPlace } from '../../geometry/search/nearest';
import { NO_PARENT, pathCount, type Paths } from '../../geometry/paths';
import { visibleLength } from '../../curves/pathFrames';
import { pathTreeOf } from '../../geometry/tree';
import { at, byAxis, distance, type Vec3 } from '../../geometry/vec';
import { random } from '../../fields/random';
import { newGrowth, newStep } from '../../scene/make';
import type { ParamValue, Step } from '../../scene/schema';
import { ball, torus } from '../../surfaces/make/solids';
import { form } from '../../../test/paths';

const cloud = (count: number, size = 2): Float32Array =>
  Float32Array.from({ length: 3 * count }, (_, i) => size * (random(5, i) - 0.5) + (i % 3 === 1 ? 1.5 : 0));
const settings = {
  roots: [[0, 0, 0]] as Vec3[],
  reach: 0.5,
  reached: 0.1,
  step: 0.05,
  bias: [0, 1, 0] as Vec3,
  leaning: 0,
  most: 1e5,
};
const branches = async (params: Record<string, ParamValue> = {}, ball = false): Promise<Paths> =>
  (
    await form([newStep('colonise', { count: 300, ...params })], 1, (scene) => {
      const solid = newStep('solid', { which: 'ball', radius: 0.5, sides: 16, atY: 0.9 });
      if (ball) scene.growths.push({ ...newGrowth('Ball', 1, [solid]), id: 'ball' });
    })
  ).paths!;

// What the method promises (Runions, Lane, Prusinkiewicz 2007): it ends, and no place is left that it could still have reached.
test('it comes to within the distance of every place, or cannot come nearer, step by step from its root', async () => {
  const attractors = cloud(500);
  const { positions, parents, births } = await coloniseSpace({ ...settings, attractors });
  let missed = 0;
  for (let k = 0; k < 500; k++) {
    let least = Infinity;
    for (let i = 0; i < parents.length; i++) least = Math.min(least, distance(at(positions, i), at(attractors, k)));
    if (least >= 0.1) missed++;
    // What is not reached lies between branches, no more than a step further.
    expect(least).toBeLessThan(0.15);
  }
  expect(missed).toBeLessThan(25);
  expect(Array.from(parents.subarray(1)).every((parent, i) => parent >= 0 && parent <= i)).toBe(true);
  for (let i = 1; i < parents.length; i++) {
    expect(distance(at(positions, i), at(positions, parents[i]))).toBeCloseTo(0.05, 5);
    expect(births[i]).toBeGreaterThan(births[parents[i]]);
  }
});

test('of two roots each takes what is nearer to it; a root with nothing to go to is no path', async () => {
  const attractors = Float32Array.of(-1, 1, 0, 1, 1, 0);
  const tree = await coloniseSpace({
    ...settings,
    attractors,
    roots: [
      [-1, 0, 0],
      [1, 0, 0],
      [0, -50, 0],
    ],
  });
  const paths = nodePaths(tree, { running: 'even', exponent: 2 });
  expect(pathCount(paths)).toBeGreaterThanOrEqual(2);
  for (let p = 0; p < 2; p++) {
    const side = Math.sign(paths.positions[3 * paths.offsets[p]]);
    for (let i = paths.offsets[p]; i < paths.offsets[p + 1]; i++) expect(Math.sign(paths.positions[3 * i])).toBe(side);
  }
  expect(await branches({ where: 'points', growth: 'none' }).catch((error: Error) => error.message)).toContain(
    'not in this scene',
  );
});

test('branches hold on to what they grow from, where they do, and are joined to it', async () => {
  const paths = await branches();
  const { parents } = pathTreeOf(paths);
  expect(pathCount(paths)).toBeGreaterThan(20);
  for (let p = 0; p < pathCount(paths); p++) {
    if (paths.parent![p] === NO_PARENT) continue;
    const [a, b] = [paths.offsets[parents[p]], paths.offsets[parents[p] + 1]];
    const joint = Array.from({ length: b - a }, (_, k) => a + k).find(
      (i) => Math.abs(paths.u[i] - paths.attach![p]) < 1e-6,
    )!;
    const first = paths.offsets[p];
    expect(distance(at(paths.positions, joint), at(paths.positions, first))).toBeLessThan(1e-6);
    expect(paths.arrival![first]).toBeCloseTo(paths.arrival![joint], 6);
  }
});

test.each(['noise', 'wave', 'twist'])(
  'branches stay at their joints whatever moves what they grow from: %s',
  async (kind) => {
    const steps = [newStep('colonise', { count: 300 }), newStep('grow', { to: 0.8 }), newStep(kind)];
    const paths = (await form(steps, 30)).paths!;
    const still = (await form(steps.slice(0, 2), 30)).paths!;
    const { parents } = pathTreeOf(paths);
    let moved = 0;
    for (let p = 0; p < pathCount(paths); p++) {
      const first = paths.offsets[p];
      if (first === paths.offsets[p + 1]) continue;
      moved = Math.max(moved, distance(at(paths.positions, first), at(still.positions, first)));
      if (parents[p] < 0) continue;
      const [a, b] = [paths.offsets[parents[p]], paths.offsets[parents[p] + 1]];
      let least = Infinity;
      for (let i = a; i < b; i++) least = Math.min(least, distance(at(paths.positions, i), at(paths.positions, first)));
      expect(least).toBeLessThan(1e-5);
    }
    expect(moved).toBeGreaterThan(0.01);
  },
);

// The pipe model: at every fork the powers of the branches add up to that of what carries them.
test('is thick as the pipe model has it', async () => {
  const paths = await branches({ exponent: 2 });
  const { parents } = pathTreeOf(paths);
  const leaving = new Map<number, number>();
  for (let p = 0; p < pathCount(paths); p++) {
    if (parents[p] < 0) continue;
    const a = paths.offsets[parents[p]];
    const joint = Array.from({ length: paths.offsets[parents[p] + 1] - a }, (_, k) => a + k).find(
      (i) => Math.abs(paths.u[i] - paths.attach![p]) < 1e-6,
    )!;
    leaving.set(joint, (leaving.get(joint) ?? 0) + paths.size[paths.offsets[p]] ** 2);
  }
  expect(paths.size[0]).toBe(1);
  // Every tip carries one, the root all of them.
  const tip = 1 / (leaving.size > 0 ? Math.max(...paths.size) ** 2 / Math.min(...paths.size) ** 2 : 1);
  for (const [joint, sum] of leaving) {
    const goesOn = paths.size[joint + 1] ** 2;
    // A node counts for one itself, beside what it carries.
    expect(Math.abs(paths.size[joint] ** 2 - sum - goesOn)).toBeLessThan(1.01 * tip);
  }
});

test.each(['even', 'together', 'birth'])('Grow runs through it without a gap: %s', async (running) => {
  const whole = await branches({ running });
  for (const to of [0.3, 0.7]) {
    const grown = (await form([newStep('colonise', { count: 300, running }), newStep('grow', { to })])).paths!;
    const { parents } = pathTreeOf(grown);
    let there = 0;
    for (let p = 0; p < pathCount(grown); p++) {
      there += visibleLength(grown, p);
      if (grown.offsets[p + 1] === grown.offsets[p] || parents[p] < 0) continue;
      // What is there grows out of something that is.
      const parent = parents[p];
      expect(grown.offsets[parent + 1]).toBeGreaterThan(grown.offsets[parent]);
      expect(grown.u[grown.offsets[parent + 1] - 1]).toBeGreaterThanOrEqual(grown.attach![p] - 1e-5);
    }
    let all = 0;
    for (let p = 0; p < pathCount(whole); p++) all += visibleLength(whole, p);
    expect(there).toBeGreaterThan(0);
    expect(there).toBeLessThan(all);
  }
});

test('on a skin it stays on it, round an obstacle it stays out of it, in a form inside', async () => {
  const mesh = ball(0.5, 16);
  const centred = (paths: Paths, i: number): Vec3 => [
    paths.positions[3 * i],
    paths.positions[3 * i + 1] - 0.9,
    paths.positions[3 * i + 2],
  ];
  const veins = await branches({ where: 'skin', growth: 'ball', rootY: 0.4, step: 0.05, reach: 0.3, count: 150 }, true);
  for (let i = 0; i < veins.s.length; i++) expect(nearestPlace(mesh, centred(veins, i))!.distance).toBeLessThan(1e-4);
  const round = await branches({ around: 'ball', count: 150, width: 1.6, height: 1.8, atY: 0.9, step: 0.1 }, true);
  for (let i = 0; i < round.s.length; i++) expect(insideOf(mesh, centred(round, i))).toBe(false);
  const within = await branches({ where: 'form', growth: 'ball', rootY: 0.5, reached: 0.06, count: 150 }, true);
  for (let i = 0; i < within.s.length; i++) expect(Math.hypot(...centred(within, i))).toBeLessThan(0.53);
});

test('inside and outside of a ring are told apart', () => {
  const ring = torus(1, 0.3, 40);
  let [inside, outside] = [0, 0];
  for (let k = 0; k < 400; k++) {
    const point = byAxis((c) => 3 * (random(3, k, c) - 0.5));
    const [x, y, z] = point;
    const away = Math.hypot(Math.hypot(x, z) - 1, y);
    if (Math.abs(away - 0.3) < 0.02) continue;
    expect(insideOf(ring, point)).toBe(away < 0.3);
    if (away < 0.3) inside++;
    else outside++;
  }
  expect(Math.min(inside, outside)).toBeGreaterThan(5);
});

test('in an outline it stays within what the closed paths of a growth enclose, in their plane, and out of holes', async () => {
  const outline = async (steps: Step[], more: Record<string, ParamValue> = {}): Promise<Paths> =>
    (
      await form(
        [
          newStep('colonise', {
            where: 'outline',
            growth: 'fan',
            count: 400,
            depth: 0,
            reach: 0.2,
            reached: 0.05,
            step: 0.03,
            rootX: -0.75,
            ...more,
          }),
        ],
        1,
        (scene) => scene.growths.push({ ...newGrowth('Fan', 1, steps), id: 'fan' }),
      )
    ).paths!;
  const ring = (radius: number): Step => newStep('arc', { radius, sweep: 360, lies: 'upright', middleY: 0 });
  const far = ({ positions }: Paths): number[] =>
    Array.from({ length: positions.length / 3 }, (_, i) => Math.hypot(positions[3 * i], positions[3 * i + 1]));
  for (const spread of ['random', 'even']) {
    const disc = await outline([ring(1)], { spread });
    expect(Math.max(...disc.positions.filter((_, i) => i % 3 === 2).map(Math.abs))).toBeLessThan(1e-6);
    expect(Math.max(...far(disc))).toBeLessThan(1);
    expect(Math.max(...far(disc))).toBeGreaterThan(0.9);
    expect(Math.min(...far(disc))).toBeLessThan(0.1);
    // Nothing draws a branch into a hole but what lies beyond it, a reach away.
    const holed = await outline([ring(1), ring(0.5)], { spread });
    expect(Math.min(...far(holed))).toBeGreaterThan(0.3);
  }
});
