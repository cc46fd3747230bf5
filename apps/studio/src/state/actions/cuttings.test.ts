import 'fake-indexeddb/auto';
import { fileId } from '@uvrex/core/files';
import { unzipSync, zipSync } from 'fflate';
import { type Delivery, save } from '@/state/storage/saveToDisk';
import { newGrowth, newScene, newStep, type Scene, writeClip } from '@uvrex/core';
import { CUTTINGS } from '@uvrex/core/cuttings';
import { keepCutting, nameOfKept, plant, plantOwn } from './cuttings';
import { deleteCutting, exportCutting, importCutting, renameCutting } from '../storage/cuttingShelf';
import { db, type StoredCutting } from '../../store/db';
import { openScene, travel, useDocument } from '../document/document';
import { dropUnusedFiles, keepFiles } from '../storage/files';
import { firstView, SCENE_ENTRY, setView, useView } from '../document/view';

jest.mock('@/state/storage/saveToDisk', () => ({ save: jest.fn() }));

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

const keepOne = (growth: string, step: string): Promise<void> => {
  const asked = { growths: [growth], steps: [step] };
  return keepCutting({ ...asked, name: nameOfKept(asked) });
};

beforeEach(() => db.cuttings.clear());

test('a growth is kept with what it copies, and planted in another scene, as often as one likes', async () => {
  open(first(), 'stem');
  await keepCutting({ growths: ['stem'], name: 'Stem' });
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
  await keepOne('stem', scene().growths[0].steps[1].id);
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
  await keepOne('stem', scene().growths[0].steps[1].id);
  plantOwn((await kept())[0]);
  expect(names()).toEqual(['Stem', 'Leaf']);
  expect(scene().growths[0].steps.map(({ params }) => params.growth)).toEqual([undefined, 'leaf', 'leaf']);
});

test('names of cuttings are their own; renamed, deleted and brought back', async () => {
  open(first(), 'stem');
  await keepCutting({ growths: ['stem'], name: 'Stem' });
  await keepCutting({ growths: ['stem'], name: 'Stem' });
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

test('several growths are kept as one: each is planted anew, and what two of them copy comes once', async () => {
  const made = first();
  const twin = { ...structuredClone(made.growths[0]), id: 'twin', name: 'Twin' };
  open({ ...made, growths: [made.growths[0], twin, made.growths[1]] }, 'stem');
  await keepCutting({ growths: ['stem', 'twin'], name: 'Two stems' });
  const [own] = await kept();
  expect(own).toMatchObject({ name: 'Two stems', of: 'growths' });
  open(second(), 'line');
  plantOwn(own);
  expect(names()).toEqual(['Line', 'Stem', 'Twin', 'Leaf']);
  const [, stem, other, leaf] = scene().growths;
  expect([stem.steps[1].params.growth, other.steps[1].params.growth]).toEqual([leaf.id, leaf.id]);
  // Where the leaf is there already, the stems alone are new.
  open(made, 'stem');
  plantOwn(own);
  expect(names()).toEqual(['Stem', 'Leaf', 'Stem 2', 'Twin']);
});

test('steps are kept as chosen, in their order, whichever was chosen first', async () => {
  const made = first();
  made.growths[0].steps.push(newStep('finish'));
  open(made, 'stem');
  const [, along, look] = scene().growths[0].steps;
  await keepCutting({ growths: ['stem'], steps: [look.id, along.id], name: 'Dressed' });
  open(second(), 'line');
  plantOwn((await kept())[0]);
  expect(scene().growths[0].steps.map(({ kind }) => kind)).toEqual(['line', 'along', 'finish']);
});

test('a cutting goes out with the files that it uses, and comes in with them on a device that has none', async () => {
  const svg = new TextEncoder().encode('<svg><path d="M0 0H5V3Z"/></svg>');
  const id = fileId(svg);
  await keepFiles(new Map([[id, svg]]));
  const made = second();
  made.files = [{ id, name: 'buoy.svg', kind: 'svg' }];
  made.growths[0].steps = [newStep('vector', { drawing: id })];
  open(made, 'line');
  await keepCutting({ growths: ['line'], name: 'Buoy' });
  const out: Delivery[] = [];
  jest.mocked(save).mockImplementation((delivery) => void out.push(delivery));
  await exportCutting((await kept())[0]);
  expect(out.map(({ name }) => name)).toEqual(['Buoy.cutting.zip']);
  await db.files.clear();
  await db.cuttings.clear();
  await importCutting(new File([out[0].blob], 'Buoy.cutting.zip'));
  expect((await kept())[0]).toMatchObject({ name: 'Buoy', of: 'growths' });
  expect(await db.files.get(id)).toMatchObject({ bytes: svg });
  // A zip from which the file was taken is refused, and nothing is kept.
  const { 'cutting.json': text } = unzipSync(new Uint8Array(await out[0].blob.arrayBuffer()));
  const lacking = zipSync({ 'cutting.json': text }) as Uint8Array<ArrayBuffer>;
  await expect(importCutting(new File([lacking], 'b.zip'))).rejects.toThrow('lacks the file “buoy.svg”');
  expect(await db.cuttings.count()).toBe(1);
});

test('a second whole piece stands beside the first, each growth of it once', () => {
  openScene('empty', newScene('Reef'));
  setView({ growth: SCENE_ENTRY });
  const chain = CUTTINGS.find(({ id }) => id === 'hanging-chain')!;
  plant(chain);
  setView({ growth: SCENE_ENTRY });
  plant(chain);
  const { growths } = useDocument.getState().scene;
  expect(growths.map(({ visible, place }) => [visible, place.moveX ?? 0])).toEqual([
    [true, 0],
    [false, 0],
    [true, expect.any(Number)],
    [false, 0],
  ]);
  expect(growths[2].place.moveX).toBeGreaterThan(1);
});
