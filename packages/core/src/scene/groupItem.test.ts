import type { Evaluator } from '../evaluate/evaluator';
import { boxAround } from '../geometry/box';
import { wholeMesh } from '../geometry/copies';
import { linearRgb } from '../geometry/gradient';
import { faceCount, type Mesh } from '../geometry/mesh';
import { testEvaluator } from '../testing';
import { grows, line } from '../../test/paths';
import { growthsClip, readClip, writeClip } from './clip';
import { withoutGroups } from './groups';
import { newGrowth, newScene, newStep } from './make';
import { checkScene } from './read';
import type { Growth, Scene } from './schema';

const solid = (name: string, hue: string, more: Partial<Growth> = {}): Growth => ({
  ...newGrowth(name, 0, [newStep('solid', {})]),
  hue,
  group: 'bed',
  ...more,
});

/** A line with copies of a group of two: a ball a metre to the right, and a stem that grows out. */
function bed(change: (scene: Scene) => void = () => undefined): Scene {
  const stem = newGrowth('Stem', 1, [line(1), newStep('grow', { to: grows(0, 1) }), newStep('tube', { radius: 0.1 })]);
  const scene: Scene = {
    ...newScene('Bed'),
    range: [1, 101],
    groups: [{ id: 'bed', name: 'Bed', hue: '#aabbcc', visible: false, shift: 0 }],
    growths: [
      solid('Ball', '#ff0000', { place: { moveX: 1 } }),
      { ...stem, hue: '#0000ff', group: 'bed' },
      { ...solid('Hidden', '#00ff00'), visible: false },
      newGrowth('Row', 2, [line(12, 5), newStep('along', { growth: 'bed' })]),
    ],
  };
  change(scene);
  return checkScene(JSON.parse(JSON.stringify(scene)));
}

const rowAt = async (scene: Scene, frame: number) => {
  const { growths } = await testEvaluator().evaluate(scene, frame);
  expect(growths.map(({ id }) => id)).toEqual([scene.growths[3].id]);
  expect(growths[0].notices).toEqual([]);
  return growths[0].form!.copies!;
};
const alone = async (scene: Scene, k: number, frame: number) => {
  const { id } = scene.growths[k];
  const { growths } = await testEvaluator().evaluate(scene, frame, undefined, new Set([id]));
  return wholeMesh(growths[0].form!);
};

test('a group that is copied is its growths where they stand, in their own colours, without those that are hidden', async () => {
  const scene = bed();
  const { items } = await rowAt(scene, 101);
  expect(items).toHaveLength(1);
  const [{ mesh }] = items;
  const [ball, stem] = [(await alone(scene, 0, 101))!, (await alone(scene, 1, 101))!];
  expect(faceCount(mesh)).toBe(faceCount(ball) + faceCount(stem));
  expect([...mesh.positions]).toEqual([...ball.positions, ...stem.positions]);
  expect([...mesh.colors!.subarray(0, 3)]).toEqual(linearRgb('#ff0000').map(Math.fround));
  expect([...mesh.colors!.subarray(-3)]).toEqual(linearRgb('#0000ff').map(Math.fround));
});

test('it grows as its growths do, and each copy at a time of its own', async () => {
  const scene = bed();
  const height = async (frame: number): Promise<number> => {
    const { items } = await rowAt(scene, frame);
    return boxAround(items[0].mesh.positions).high[1];
  };
  expect(await height(101)).toBeGreaterThan((await height(31)) + 0.3);

  const late = bed(({ growths }) => void growths[3].steps.push(newStep('offset', { by: 'number', time: 0.5 })));
  const copies = await rowAt(late, 61);
  // At frame 61 the copies show the group as it was half a second apart: each stem is a step shorter than the one before.
  const { fps } = late;
  const stemTop = ({ positions }: Mesh): number =>
    Math.max(...positions.filter((_, i) => i % 3 === 1 && positions[i - 1] < 0.3));
  const tops = copies.items
    .map(({ mesh }) => stemTop(mesh))
    .sort((a, b) => b - a)
    .slice(0, 4);
  expect(tops).toHaveLength(4);
  // The rim of the round tip stands off by less than its points are apart.
  tops.slice(1).forEach((top, k) => expect(Math.abs(tops[k] - top - fps / 2 / 100)).toBeLessThan(0.02));
});

test('an evaluator after edits of the group equals a fresh one', async () => {
  const kept = testEvaluator();
  const edits: ((scene: Scene) => void)[] = [
    () => undefined,
    ({ growths }) => void (growths[0].place = { moveX: 3 }),
    ({ growths }) => void (growths[0].hue = '#123456'),
    ({ growths }) => void (growths[2].visible = true),
    ({ growths }) => void (growths[1].group = null),
    ({ groups }) => void (groups[0].shift = 30),
  ];
  const base = bed();
  const seen = new Set<string>();
  for (const change of edits) {
    const scene = structuredClone(base);
    change(scene);
    const pick = async (evaluator: Evaluator) => {
      const { key, form } = (await evaluator.evaluate(scene, 41)).growths.at(-1)!;
      return [key, form!.copies!.items.map(({ mesh }) => [...mesh.positions, ...(mesh.colors ?? [])])] as const;
    };
    const [after, fresh] = [await pick(kept), await pick(testEvaluator())];
    expect(after).toEqual(fresh);
    seen.add(fresh[0]);
  }
  expect(seen.size).toBe(edits.length);
});

test('what stays the same object is known again', () => {
  const scene = bed();
  const before = withoutGroups(scene).growths.at(-1)!;
  expect([before.id, before.visible, before.steps.length]).toEqual(['bed', false, 2]);
  const moved = { ...scene, growths: scene.growths.map((g, i) => (i === 0 ? { ...g, place: { moveX: 2 } } : g)) };
  expect(withoutGroups(moved).growths.at(-1)).toBe(before);
  const hidden = { ...scene, growths: scene.growths.map((g, i) => (i === 0 ? { ...g, visible: false } : g)) };
  expect(withoutGroups(hidden).growths.at(-1)!.steps).toHaveLength(1);
  // A group that nothing copies is no growth.
  expect(withoutGroups({ ...scene, growths: scene.growths.slice(0, 3) }).growths).toHaveLength(3);
});

test('a group that copies itself is a circle, and says so', async () => {
  const scene = bed(({ growths }) => void (growths[3].group = 'bed'));
  const id = scene.growths[3].id;
  const { growths } = await testEvaluator().evaluate(scene, 1, undefined, new Set([id]));
  expect(growths[0].notices[0].what).toMatch(/in a circle: .*Bed/);
});

test('a group that is gone is asked for', async () => {
  const scene = bed((draft) => {
    draft.groups = [];
    for (const growth of draft.growths) growth.group = null;
    draft.growths[3].visible = true;
  });
  const { growths } = await testEvaluator().evaluate(scene, 1, undefined, new Set([scene.growths[3].id]));
  expect(growths[0].notices[0].what).toMatch(/not in this scene/);
});

test('a copied growth takes the group that it copies along, and no other', () => {
  const scene = bed(({ groups, growths }) => {
    groups.push({ id: 'others', name: 'Others', hue: '#aabbcc', visible: true, shift: 0 });
    growths[3].group = 'others';
  });
  const clip = readClip(writeClip(growthsClip(scene, [scene.growths[3]])))!;
  expect(clip.scene.groups.map(({ id }) => id)).toEqual(['bed']);
  expect(clip.scene.growths.map(({ name, group }) => [name, group])).toEqual([
    ['Row', null],
    ['Ball', 'bed'],
    ['Stem', 'bed'],
    ['Hidden', 'bed'],
  ]);
});
