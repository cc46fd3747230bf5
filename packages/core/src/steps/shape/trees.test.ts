import { pathGraph, distancesInGraph } from '../../curves/pathGraph';
import { pathCount, type Paths } from '../../geometry/paths';
import { jointOn, pathTreeOf } from '../../geometry/tree';
import { at, distance, partWay } from '../../geometry/vec';
import { newStep } from '../../scene/make';
import type { Step } from '../../scene/schema';
import { formOf, sceneOf } from '../../testing';
import { STEPS } from '../index';

const tree = (): Step => newStep('colonise', { count: 400 });
const pathsOf = async (...steps: Step[]): Promise<Paths> => (await formOf(sceneOf(steps), 144)).paths!;
const still = async (): Promise<void> => undefined;

/** How far branches begin off the places that they hold on to, metres, at most. */
function mostOff(paths: Paths): number {
  const { parents } = pathTreeOf(paths);
  let most = 0;
  parents.forEach((parent, path) => {
    const joint = parent < 0 ? null : jointOn(paths, parent, paths.attach![path]);
    if (!joint) return;
    const place = partWay(at(paths.positions, joint.low), at(paths.positions, joint.high), joint.t);
    most = Math.max(most, distance(place, at(paths.positions, paths.offsets[path])));
  });
  return most;
}

test.each(['bed', 'ring', 'parallel', 'row', 'fan'])(
  'strands of a tree, as %s, stay on what they grow from',
  async (as) => {
    const alone = await pathsOf(tree());
    const many = await pathsOf(tree(), newStep('strands', { as, count: 5, apart: 0.4 }));
    expect(pathCount(many)).toBe(5 * pathCount(alone));
    expect(mostOff(many)).toBeLessThan(Math.max(1e-5, 1.01 * mostOff(alone)));
  },
);

test('a strand of a ring is the whole tree beside where it was', async () => {
  const alone = await pathsOf(tree());
  const many = await pathsOf(tree(), newStep('strands', { as: 'ring', count: 3, apart: 0.4, vary: 0 }));
  const roots = pathTreeOf(alone).parents.findIndex((parent) => parent < 0);
  const first = alone.offsets[roots];
  const moved = distance(at(many.positions, first), at(alone.positions, first));
  expect(moved).toBeCloseTo(0.4, 5);
  // A branch keeps its own course: lengths from point to point are those of the tree.
  const branch = pathTreeOf(alone).parents.findIndex((parent) => parent >= 0);
  for (let i = alone.offsets[branch] + 1; i < alone.offsets[branch + 1]; i++)
    expect(distance(at(many.positions, i), at(many.positions, i - 1))).toBeCloseTo(
      distance(at(alone.positions, i), at(alone.positions, i - 1)),
      5,
    );
});

test.each([
  ['respace', { by: 'spacing', spacing: 0.11 }],
  ['thin', { within: 0.03 }],
  ['smooth', {}],
] as const)('after %s a front still comes to every part of a tree', async (kind, params) => {
  const paths = await pathsOf(tree(), newStep(kind, params));
  const root = pathTreeOf(paths).parents.findIndex((parent) => parent < 0);
  const graph = await pathGraph(paths, still);
  const from = [...paths.ids].flatMap((_, path) =>
    pathTreeOf(paths).parents[path] < 0 ? [[graph.of[paths.offsets[path]], 0] as const] : [],
  );
  const distances = await distancesInGraph(graph, from, () => 1, still);
  expect(root).toBeGreaterThanOrEqual(0);
  expect([...distances].filter((d) => d === Infinity)).toEqual([]);
});

/** Steps that do nothing at these values. */
const IDLE: Record<string, Step['params']> = {
  noise: { amount: 0 },
  wave: { amount: 0 },
  bend: { angle: 0 },
  twist: { turns: 0 },
  transform: {},
  stretch: { by: 1 },
};

test('steps that do nothing change nothing, on a tree and on strands of one', async () => {
  for (const before of [[tree()], [tree(), newStep('strands', { as: 'ring', count: 4, apart: 0.3 })]]) {
    const plain = await pathsOf(...before);
    for (const [kind, params] of Object.entries(IDLE)) {
      expect(STEPS.some((step) => step.kind === kind)).toBe(true);
      const after = await pathsOf(...before, newStep(kind, params));
      let most = 0;
      plain.positions.forEach((x, i) => (most = Math.max(most, Math.abs(x - after.positions[i]))));
      expect([kind, most < 2e-5]).toEqual([kind, true]);
    }
  }
});
