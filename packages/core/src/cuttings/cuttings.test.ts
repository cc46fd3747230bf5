import { wholeMesh } from '../geometry/copies';
import { flaws } from '../geometry/invariants';
import { newGrowth, newScene, newStep } from '../scene/make';
import { checkScene } from '../scene/read';
import type { Scene, Step } from '../scene/schema';
import { testEvaluator } from '../testing';
import { grows, withShipped } from '../../test/paths';
import { CUTTINGS, plantIn } from './index';

withShipped();

/** What each is planted on. */
const HOSTS: Record<string, () => Step[]> = {
  paths: () => [newStep('line'), newStep('grow', { to: grows(0, 1) }), newStep('tube'), newStep('finish')],
  points: () => [newStep('phyllotaxis', { which: 'dome', count: 60 })],
  mesh: () => [newStep('rock'), newStep('finish', { glow: 0 })],
  copies: () => [
    newStep('line'),
    newStep('grow', { to: grows(0, 1) }),
    newStep('along', { growth: 'item', by: 'count', count: 20 }),
  ],
};

/** A scene with nothing but a host of a kind, and what it copies. */
function bedFor(kind: string | null): Scene {
  const scene: Scene = { ...newScene('Bed'), range: [1, 101] };
  if (kind === null) return scene;
  scene.growths.push({ ...newGrowth('Host', 0, HOSTS[kind]()), id: 'host' });
  if (kind === 'copies')
    scene.growths.push({ ...newGrowth('Item', 1, [newStep('solid', { radius: 0.05 })]), id: 'item', visible: false });
  return scene;
}

const planted = (id: string, size = 2): Scene => {
  const cutting = CUTTINGS.find((one) => one.id === id)!;
  const scene = bedFor(cutting.on);
  const host = scene.growths[0] ?? null;
  plantIn(scene, host?.id ?? null, cutting.plant({ scene, host, size }));
  return scene;
};

const IDS = CUTTINGS.map(({ id }) => id);

test('there are more than twenty, each with a name, a sentence and an id of its own', () => {
  expect(IDS.length).toBeGreaterThanOrEqual(20);
  for (const told of [IDS, CUTTINGS.map(({ name }) => name)]) expect(new Set(told).size).toBe(told.length);
  for (const { help } of CUTTINGS) expect(help).toMatch(/^[A-Z].{20,}\.$/);
});

test.each(IDS)(
  '%s is planted without a complaint, is sound at every frame, moves, opens again, and is to be seen',
  async (id) => {
    const scene = planted(id);
    const names = scene.growths.map(({ name }) => name);
    expect(new Set(names).size).toBe(names.length);
    expect(checkScene(JSON.parse(JSON.stringify(scene)))).toEqual(scene);
    const evaluator = testEvaluator();
    const keys = new Set<string>();
    let most = 0;
    for (const frame of [1, 41, 81, 101]) {
      const { growths } = await evaluator.evaluate(scene, frame);
      for (const growth of growths) {
        expect(growth.notices.filter(({ level }) => level !== 'note')).toEqual([]);
        expect(flaws(growth.form!)).toEqual([]);
      }
      keys.add(growths.map(({ key }) => key).join());
      const faces = growths.reduce((sum, { form }) => sum + (wholeMesh(form!)?.indices.length ?? 0) / 3, 0);
      most = Math.max(most, faces);
    }
    expect(most).toBeGreaterThan(50);
    // Planted on what stands still, what is only spread or dressed stands still as well.
    if (!['weeds', 'head-petals', 'reef-rock'].includes(id)) expect(keys.size).toBeGreaterThan(2);
  },
);

test('what is planted on something twice as large is twice as large', async () => {
  const across = async (size: number): Promise<number> => {
    const scene = planted('leaves', size);
    const [{ form }] = (await testEvaluator().evaluate(scene, 101)).growths;
    const heights = form!.copies!.items[0].mesh.positions.filter((_, i) => i % 3 === 1);
    return Math.max(...heights) - Math.min(...heights);
  };
  const [small, large] = [await across(1), await across(2)];
  expect(large / small).toBeCloseTo(2, 1);
});

test('bubbles stand equally close and run equally fast on long and short paths, and close once the path is there', async () => {
  const scene: Scene = { ...newScene('Bed'), range: [1, 100] };
  const host = { ...newGrowth('Host', 0, [newStep('line', { toY: 2 })]), id: 'host' };
  const ring = { ...newGrowth('Ring', 1, [newStep('arc', { radius: 0.1 })]), id: 'ring' };
  scene.growths.push(host, ring);
  const cutting = CUTTINGS.find(({ id }) => id === 'bubbles')!;
  for (const on of [host, ring]) plantIn(scene, on.id, cutting.plant({ scene, host: on, size: 2 }));
  for (const { steps } of scene.growths)
    for (const step of steps) if (step.kind === 'along') Object.assign(step.params, { varyPlace: 0, vary: 0, fade: 0 });
  const copiesAt = async (id: string, frame: number) =>
    (await testEvaluator().evaluate(scene, frame)).growths.find((growth) => growth.id === id)!.form!.copies!;
  // A ring of 0.63 m takes a third of what a line of 2 m takes.
  const [line, round] = [await copiesAt('host', 1), await copiesAt('ring', 1)];
  expect(line.ids.length).toBeGreaterThan(30);
  expect(round.ids.length / line.ids.length).toBeCloseTo((2 * Math.PI * 0.1) / 2, 1);
  for (const id of ['host', 'ring']) {
    const [first, next, past] = [await copiesAt(id, 1), await copiesAt(id, 2), await copiesAt(id, 101)];
    const moved = first.ids.findIndex((one, k) => k > 1 && next.ids.includes(one));
    const to = next.ids.indexOf(first.ids[moved]);
    const way = Math.hypot(...[0, 1, 2].map((c) => next.positions[3 * to + c] - first.positions[3 * moved + c]));
    // Births times spacing over the range; a ring spreads what is left over its 13.
    expect(Math.abs(way / ((40 * 0.05) / 100) - 1)).toBeLessThan(0.05);
    first.positions.forEach((x, i) => expect(past.positions[i]).toBeCloseTo(x, 4));
  }
});

test('planted twice, names differ and the second stands behind the host as well', () => {
  const scene = planted('leaves');
  const cutting = CUTTINGS.find(({ id }) => id === 'leaves')!;
  plantIn(scene, 'host', cutting.plant({ scene, host: scene.growths[0], size: 2 }));
  expect(scene.growths.map(({ name }) => name)).toEqual(['Host', 'Leaf 2', 'Leaf']);
  expect(scene.growths[0].steps.filter(({ kind }) => kind === 'along')).toHaveLength(2);
  expect(scene.growths[0].steps.at(-1)!.params.growth).toBe(scene.growths[1].id);
});

test('a small picture rests at one of its eight moments', () => {
  const named = CUTTINGS.flatMap(({ moment }) => (moment === undefined ? [] : [moment]));
  expect(named.length).toBeGreaterThan(0);
  for (const moment of named) expect([0, 1, 2, 3, 4, 5, 6, 7]).toContain(moment);
});
