import 'fake-indexeddb/auto';
import { newGrowth, newScene, newStep, type Scene, writeClip } from '@uvrex/core';
import { CUTTINGS } from '@uvrex/core/cuttings';
import { deleteCutting, importCutting, keepCutting, plant, plantOwn, renameCutting } from './cuttings';
import { db, type StoredCutting } from './db';
import { openScene, travel, useDocument } from './document';
import { dropUnusedFiles, keepFiles } from './files';
import { firstView, setView, useView } from './view';

const scene = (): Scene => useDocument.getState().scene;
const names = (): string[] => scene().growths.map(({ name }) => name);

/** A stem that leaves stand on, and another scene's bare line. */
function first(): Scene {
  const leaf = { ...newGrowth('Leaf', 1, [newStep('blade')]), id: 'leaf', visible: false };
  const stem = {
    ...newGrowth('Stem', 0, [newStep('line'), newStep('along', { growth: 'leaf', by: 'count', count: 7 })]),
    id: 'stem',
  };
  return { ...newScene('First'), growths: [stem, leaf] };
}
const second = (): Scene => ({
  ...newScene('Second'),
  growths: [{ ...newGrowth('Line', 0, [newStep('line')]), id: 'line' }],
});

const open = (made: Scene, growth: string | null): void => {
  openScene(made.name, made);
  setView({ ...firstView, growth });
};
const kept = (): Promise<StoredCutting[]> => db.cuttings.orderBy('made').toArray();

beforeEach(() => db.cuttings.clear());

test('a growth is kept with what it copies, and planted in another scene, as often as one likes', async () => {
  open(first(), 'stem');
  await keepCutting('stem');
  const [own] = await kept();
  expect(own).toMatchObject({ name: 'Stem', of: 'growths' });
  open(second(), 'line');
  plantOwn(own);
  plantOwn(own);
  expect(names()).toEqual(['Line', 'Stem', 'Leaf', 'Stem 2', 'Leaf 2']);
  const [, stem, leaf, again, other] = scene().growths;
  expect(stem.steps[1].params.growth).toBe(leaf.id);
  expect(again.steps[1].params.growth).toBe(other.id);
  expect(leaf.visible).toBe(false);
});

test('a step is kept with what it copies, and planted on another growth as one entry of undo', async () => {
  open(first(), 'stem');
  await keepCutting('stem', scene().growths[0].steps[1].id);
  const [own] = await kept();
  expect(own).toMatchObject({ name: 'Along the paths', of: 'steps' });
  open(second(), 'line');
  plantOwn(own);
  expect(names()).toEqual(['Line', 'Leaf']);
  const [line, leaf] = scene().growths;
  expect(line.steps.map(({ kind }) => kind)).toEqual(['line', 'along']);
  expect(line.steps[1].params).toMatchObject({ growth: leaf.id, count: 7 });
  travel('undo');
  expect(names()).toEqual(['Line']);
  expect(scene().growths[0].steps).toHaveLength(1);
});

test('where what it copies is there already, it is used and none is brought', async () => {
  open(first(), 'stem');
  await keepCutting('stem', scene().growths[0].steps[1].id);
  plantOwn((await kept())[0]);
  expect(names()).toEqual(['Stem', 'Leaf']);
  expect(scene().growths[0].steps.map(({ params }) => params.growth)).toEqual([undefined, 'leaf', 'leaf']);
});

test('names of cuttings are their own; renamed, deleted and brought back', async () => {
  open(first(), 'stem');
  await keepCutting('stem');
  await keepCutting('stem');
  expect((await kept()).map(({ name }) => name).sort()).toEqual(['Stem', 'Stem 2']);
  const [one] = await kept();
  await renameCutting(one, 'Weed');
  const bringBack = await deleteCutting((await kept()).find(({ name }) => name === 'Weed')!);
  expect(await db.cuttings.count()).toBe(1);
  await bringBack();
  expect((await kept()).map(({ name }) => name)).toContain('Weed');
});

test('a file with a cutting comes in under its name; one with something else is refused and told', async () => {
  const clip = { of: 'growths' as const, scene: { ...first(), name: 'Reef weed' } };
  await importCutting(new File([writeClip(clip)], 'weed.cutting.json'));
  expect((await kept())[0]).toMatchObject({ name: 'Reef weed', of: 'growths' });
  await expect(importCutting(new File(['{"a":1}'], 'a.json'))).rejects.toThrow('“a.json” is no cutting');
  await expect(importCutting(new File(['nothing'], 'b.json'))).rejects.toThrow('“b.json” is no cutting');
  const damaged = writeClip(clip).replace('"kind":"blade"', '"kind":"nowhere"');
  await expect(importCutting(new File([damaged], 'c.json'))).rejects.toThrow('not sound');
  expect(await db.cuttings.count()).toBe(1);
});

test('files that only a cutting uses stay', async () => {
  await keepFiles(
    new Map([
      ['sha-kept', new Uint8Array(3)],
      ['sha-gone', new Uint8Array(3)],
    ]),
  );
  await db.cuttings.add({
    id: 'c',
    name: 'C',
    made: 1,
    of: 'growths',
    text: '{"files":[{"id":"sha-kept"}]}',
    picture: null,
  });
  await dropUnusedFiles(Date.now() + 1e9);
  expect(await db.files.toCollection().primaryKeys()).toEqual(['sha-kept']);
});

describe('cuttings that ship', () => {
  const cutting = (id: string) => CUTTINGS.find((one) => one.id === id)!;

  test('on the selected growth: its step opens, the item is hidden behind it, and undo takes all away', () => {
    open(second(), 'line');
    plant(cutting('leaves'));
    expect(names()).toEqual(['Line', 'Leaf']);
    const along = scene().growths[0].steps[1];
    expect(along).toMatchObject({ kind: 'along', params: { growth: scene().growths[1].id } });
    expect(useView.getState()).toMatchObject({ growth: 'line', openSteps: [along.id] });
    travel('undo');
    expect(scene()).toMatchObject({ growths: [{ id: 'line', steps: [{ kind: 'line' }] }] });
  });

  test('in the open: the new growth is selected, and the playhead goes to where it has grown', () => {
    open(second(), 'line');
    plant(cutting('plant'));
    const made = scene().growths[1];
    expect(made.name).toBe('Stem');
    expect(useView.getState()).toMatchObject({ growth: made.id, frame: 115 });
  });
});
