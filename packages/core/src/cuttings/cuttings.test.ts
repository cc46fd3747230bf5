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

test('planted twice, names differ and the second stands behind the host as well', () => {
  const scene = planted('leaves');
  const cutting = CUTTINGS.find(({ id }) => id === 'leaves')!;
  plantIn(scene, 'host', cutting.plant({ scene, host: scene.growths[0], size: 2 }));
  expect(scene.growths.map(({ name }) => name)).toEqual(['Host', 'Leaf 2', 'Leaf']);
  expect(scene.growths[0].steps.filter(({ kind }) => kind === 'along')).toHaveLength(2);
  expect(scene.growths[0].steps.at(-1)!.params.growth).toBe(scene.growths[1].id);
});
