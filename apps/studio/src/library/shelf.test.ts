import { newGrowth, newScene, newStep } from '@uvrex/core';
import type { StoredScene } from '@/store/db';
import { foldersOf, arrangeShelf } from './shelf';

const stored = (name: string, changed: number, folder?: string, growth = 'Line'): StoredScene => ({
  ...{ id: name, name, changed, picture: null },
  ...(folder !== undefined && { folder }),
  scene: { ...newScene(name), growths: [newGrowth(growth, 0, [newStep('line')])] },
});
const REEF = [
  stored('Reef 10', 3, 'Opening'),
  stored('reef 2', 5, undefined, 'Anemone'),
  stored('Wreck', 1, 'Opening'),
  stored('Kelp', 4, 'Credits'),
];
const names = (wanted: Partial<Parameters<typeof arrangeShelf>[1]>, scenes: StoredScene[] = REEF): string[] =>
  arrangeShelf(scenes, { find: '', sort: 'changed', folder: null, ...wanted }).map(({ name }) => name);

test('by time either way, and by name as people count', () => {
  expect(names({})).toEqual(['reef 2', 'Kelp', 'Reef 10', 'Wreck']);
  expect(names({ sort: 'first' })).toEqual(['Wreck', 'Reef 10', 'Kelp', 'reef 2']);
  expect(names({ sort: 'name' })).toEqual(['Kelp', 'reef 2', 'Reef 10', 'Wreck']);
});

test('found by any words of the scene and its growths', () => {
  expect(names({ find: 'REEF' })).toEqual(['reef 2', 'Reef 10']);
  expect(names({ find: 'anem reef' })).toEqual(['reef 2']);
  expect(names({ find: 'whale' })).toEqual([]);
});

test('in a folder, and the folders there are', () => {
  expect(names({ folder: 'Opening' })).toEqual(['Reef 10', 'Wreck']);
  expect(foldersOf(REEF)).toEqual(['Credits', 'Opening']);
});

test('damaged scenes are shown too', () => {
  const broken = { id: 'x', picture: null } as unknown as StoredScene;
  expect(names({ sort: 'name' }, [...REEF, broken])).toHaveLength(5);
  expect(names({ find: 'kelp' }, [...REEF, broken])).toEqual(['Kelp']);
});
