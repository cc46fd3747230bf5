import { sceneOf, testEvaluator } from '../testing';
import { faultOfScene } from './faults';
import { isShown, lateOf, withoutGroups } from './groups';
import { growingSteps, newGrowth, newStep } from './make';
import { mendScene } from './repairScene';
import { checkScene } from './read';

import type { GrowthGroup, Scene } from './schema';

const GROUP: GrowthGroup = { id: 'G', name: 'Reef', hue: '#c9e86a', visible: true, shift: 10 };

function reef(): Scene {
  const scene = sceneOf([]);
  const steps = growingSteps(newStep('line'), scene.range);
  scene.growths = [
    { ...newGrowth('Kelp', 0, steps), id: 'kelp', group: 'G', shift: 3 },
    { ...newGrowth('Rock', 1, steps), id: 'rock' },
  ];
  scene.groups = [GROUP];
  return scene;
}

test('a growth is as late as it and its group together', async () => {
  const scene = reef();
  expect(lateOf(scene, scene.growths[0])).toBe(13);
  const [late] = (await testEvaluator().evaluate(scene, 60)).growths;
  const same = { ...scene, groups: [], growths: [{ ...scene.growths[0], group: null, shift: 13 }] };
  const [alone] = (await testEvaluator().evaluate(same, 60)).growths;
  expect(late.key).toBe(alone.key);
  const [earlier] = (await testEvaluator().evaluate({ ...scene, groups: [{ ...GROUP, shift: 0 }] }, 60)).growths;
  expect(earlier.key).not.toBe(late.key);
});

test('what is in a hidden group is not evaluated; what is outside is', async () => {
  const scene = { ...reef(), groups: [{ ...GROUP, visible: false }] };
  expect(isShown(scene, scene.growths[0])).toBe(false);
  expect((await testEvaluator().evaluate(scene, 60)).growths.map(({ id }) => id)).toEqual(['rock']);
});

test('an evaluator that lived through changes of a group gives what a fresh one gives', async () => {
  const lived = testEvaluator();
  let scene = reef();
  for (const shift of [0, 10, 25, 10, -5]) {
    scene = { ...scene, groups: [{ ...GROUP, shift }] };
    const [now, fresh] = [await lived.evaluate(scene, 60), await testEvaluator().evaluate(scene, 60)];
    expect(now.growths.map(({ key }) => key)).toEqual(fresh.growths.map(({ key }) => key));
  }
});

test('growths that no group changes stay the same objects, and so do those it changes, from call to call', () => {
  const scene = reef();
  const [first, again] = [withoutGroups(scene), withoutGroups({ ...scene, name: 'Other' })];
  expect(first.growths[1]).toBe(scene.growths[1]);
  expect(first.growths[0]).toBe(again.growths[0]);
  expect(first.growths[0]).not.toBe(scene.growths[0]);
});

test('a group that is gone changes nothing, and the scene is sound', () => {
  const scene = { ...reef(), groups: [] };
  expect(faultOfScene(scene)).toBeNull();
  expect(lateOf(scene, scene.growths[0])).toBe(3);
  expect(isShown(scene, scene.growths[0])).toBe(true);
});

test('scenes of version 5 have no groups and no locks', () => {
  const { groups, ...rest } = reef();
  const old = {
    ...rest,
    version: 5,
    growths: rest.growths.map(({ group, locked, ...growth }) => growth),
  };
  expect(groups).toHaveLength(1);
  const read = checkScene(JSON.parse(JSON.stringify(old)));
  expect(read.groups).toEqual([]);
  expect(read.growths.map(({ group, locked }) => [group, locked])).toEqual([
    [null, false],
    [null, false],
  ]);
});

test('a damaged group is left out, and a broken lock taken for none', () => {
  const scene = reef() as unknown as { groups: unknown[]; growths: Record<string, unknown>[] };
  scene.groups.push({ id: 'H', name: 'No hue' });
  scene.growths[0] = { ...scene.growths[0], locked: 'yes' };
  const mended = mendScene(scene)!;
  expect(mended.scene.groups.map(({ id }) => id)).toEqual(['G']);
  expect(mended.scene.growths[0].locked).toBe(false);
});
