import { visibleLength } from '../../curves/pathFrames';
import { pathCount, type Paths } from '../../geometry/paths';
import { pathTreeOf, treeFlaws } from '../../geometry/tree';
import { at, distance } from '../../geometry/vec';
import { newGrowth, newStep } from '../../scene/make';
import { newGuide } from '../../scene/owners';
import type { ParamValue, Scene } from '../../scene/schema';
import { paths } from '../../../test/paths';

const plain = { varyCount: 0, varyLength: 0, droop: 0, curve: 0, count: 6, children: 3, spread: 180 };
const pruned = (
  params: Record<string, ParamValue>,
  burst: Record<string, ParamValue> = {},
  change?: (scene: Scene) => void,
): Promise<Paths> => paths([newStep('burst', { ...plain, ...burst }), newStep('prune', params)], 1, change);
const lengths = (of: Paths): number[] => Array.from({ length: pathCount(of) }, (_, p) => visibleLength(of, p));
const there = (of: Paths): number[] => lengths(of).filter((length) => length > 1e-6);

test('by joints: so many bursts are left, and between two numbers the last are part as long', async () => {
  expect(there(await pruned({ depth: 0 }))).toHaveLength(6);
  expect(there(await pruned({ depth: 1 }))).toHaveLength(6 + 18);
  expect(there(await pruned({ depth: 2 }))).toHaveLength(6 + 18 + 54);
  const between = there(await pruned({ depth: 1.5 }));
  expect(between).toHaveLength(6 + 18 + 54);
  expect(Math.min(...between)).toBeCloseTo((0.8 * 0.55 ** 2) / 2, 5);
});

test('by length and thickness: short branches go with all that they carry, thin ends where they get too thin', async () => {
  expect(there(await pruned({ by: 'length', shortest: 0.5 }))).toHaveLength(6);
  // A member that fades out is as thick as what is left of it: 1 − t.
  for (const length of there(await pruned({ by: 'thickness', thinnest: 0.3 }, { generations: 1, ends: 'fade' })))
    expect(length).toBeCloseTo(0.7 * 0.8, 4);
});

test('by a guide and a form: straight members from the middle of a ball are cut at its radius', async () => {
  const guide = (scene: Scene): void =>
    void scene.guides.push(newGuide('g', 'Middle', 'point', { positionX: 0, positionY: 0, positionZ: 0 }));
  const near = await pruned({ by: 'guide', guide: 'guide:g', within: 0.5 }, { generations: 1 }, guide);
  for (const length of there(near)) expect(length).toBeCloseTo(0.5, 4);
  // From the middle on everything is nearer: nothing of it is left, and nothing hangs in the air.
  expect(there(await pruned({ by: 'guide', guide: 'guide:g', within: 0.5, keeps: 'outside' }, {}, guide))).toEqual([]);
  const ball = (scene: Scene): void =>
    void scene.growths.push({
      ...newGrowth('Ball', 1, [newStep('solid', { which: 'ball', radius: 0.5, sides: 96, atY: 0 })]),
      id: 'ball',
    });
  const inside = await pruned({ by: 'form', form: 'ball' }, { generations: 1 }, ball);
  // Facets lie within 1 − cos(π / 96) of the sphere.
  for (const length of there(inside)) expect(Math.abs(length - 0.5)).toBeLessThan(0.5 * 0.0011);
});

test('by an attribute: a branch ends where it passes the limit, on either side', async () => {
  const straight = { generations: 1, atY: 0 };
  const whole = await paths([newStep('burst', { ...plain, ...straight })]);
  const below = await pruned({ by: 'attribute', attribute: 'height', limit: 0.2 }, straight);
  const above = await pruned({ by: 'attribute', attribute: 'height', limit: -0.2, side: 'above' }, straight);
  for (let p = 0; p < pathCount(whole); p++) {
    const rise = whole.positions[3 * (whole.offsets[p + 1] - 1) + 1] - whole.positions[3 * whole.offsets[p] + 1];
    // Straight members of 0.8 m from the middle on: cut where they are so high or low.
    expect(visibleLength(below, p)).toBeCloseTo(0.8 * Math.min(1, rise > 0 ? 0.2 / rise : 1), 4);
    expect(visibleLength(above, p)).toBeCloseTo(0.8 * Math.min(1, rise < 0 ? 0.2 / -rise : 1), 4);
  }
  await expect(pruned({ by: 'attribute', attribute: 'nothing' })).rejects.toThrow('“nothing”');
});

test('what is left hangs together, and gets less evenly as the limit falls', async () => {
  let before = Infinity;
  for (const within of [2.5, 1.6, 1.2, 0.9, 0.6]) {
    const tree = await paths(
      [newStep('colonise', { count: 300 }), newStep('prune', { by: 'guide', guide: 'guide:g', within })],
      1,
      (scene) => scene.guides.push(newGuide('g', 'Root', 'point', { positionX: 0, positionY: 0, positionZ: 0 })),
    );
    expect(treeFlaws(tree)).toEqual([]);
    const { parents } = pathTreeOf(tree);
    for (let p = 0; p < pathCount(tree); p++) {
      const [first, end] = [tree.offsets[p], tree.offsets[p + 1]];
      for (let i = first; i < end; i++) expect(distance(at(tree.positions, i), [0, 0, 0])).toBeLessThan(within + 1e-4);
      if (first === end || parents[p] < 0) continue;
      const parent = parents[p];
      const base = at(tree.positions, first);
      const gaps = Array.from({ length: tree.offsets[parent + 1] - tree.offsets[parent] }, (_, k) =>
        distance(base, at(tree.positions, tree.offsets[parent] + k)),
      );
      // Its base is a node of its parent that is still there.
      expect(Math.min(...gaps)).toBeLessThan(1e-4);
    }
    const sum = lengths(tree).reduce((all, length) => all + length, 0);
    expect(sum).toBeLessThan(before);
    before = sum;
  }
});
