import { newGrowth, newScene, newStep, type Scene } from '@uvrex/core';
import { foundRows, movedRow, rowsOf } from './rows';

/** A scene of growths named by letters; those in a group by `letter:group`. */
function sceneOf(...names: string[]): Scene {
  const scene = newScene('Reef');
  for (const entry of names) {
    const [name, group = null] = entry.split(':');
    scene.growths.push({ ...newGrowth(name, 0, [newStep('line')]), id: name, group });
    if (group && !scene.groups.some(({ id }) => id === group))
      scene.groups.push({ id: group, name: group, hue: '#c9e86a', visible: true, shift: 0 });
  }
  return scene;
}
const ids = (scene: Scene, folded: string[] = []): string =>
  rowsOf(scene, folded)
    .map(({ id }) => id)
    .join(' ');

/** The order after a move, as `letter:group`. */
const moved = (scene: Scene, from: number, to: number, folded: string[] = [], byKey = false): string =>
  movedRow(rowsOf(scene, folded), from, to, byKey)
    .map(({ id, group }) => (group ? `${id}:${group}` : id))
    .join(' ');

test('a group stands where its first growth does, with its others below it', () => {
  const scene = sceneOf('a', 'b:G', 'c', 'd:G');
  expect(ids(scene)).toBe('a G b d c');
  expect(ids(scene, ['G'])).toBe('a G c');
});

test('a group without growths, and a growth of a group that is gone, disturb nothing', () => {
  const scene = sceneOf('a', 'b:G');
  scene.groups = [{ ...scene.groups[0], id: 'other' }];
  expect(ids(scene)).toBe('a b');
});

test('a growth put between a group’s name and its last growth goes into it; outside it does not', () => {
  const scene = sceneOf('a', 'b:G', 'd:G', 'c');
  // Rows: a, G, b, d, c.
  expect(moved(scene, 4, 2)).toBe('a c:G b:G d:G');
  expect(moved(scene, 4, 3)).toBe('a b:G c:G d:G');
  expect(moved(scene, 4, 0)).toBe('c a b:G d:G');
  expect(moved(scene, 4, 1)).toBe('a c b:G d:G');
  expect(moved(scene, 0, 3)).toBe('b:G d:G a c');
});

test('a growth of a group keeps to it while it moves within, and leaves it where it is put beyond', () => {
  const scene = sceneOf('a', 'b:G', 'd:G', 'c');
  expect(moved(scene, 2, 3)).toBe('a d:G b:G c');
  expect(moved(scene, 2, 0)).toBe('b a d:G c');
  expect(moved(scene, 2, 4)).toBe('a d:G c b');
});

test('one step down from its end a growth leaves a group, and one step up it goes back in', () => {
  const within = sceneOf('a', 'b:G', 'd:G', 'c');
  const left = sceneOf('a', 'b:G', 'd', 'c');
  expect(moved(within, 3, 4, [], true)).toBe('a b:G d c');
  expect(moved(left, 3, 2, [], true)).toBe('a b:G d:G c');
  // Past the end of the list too.
  expect(moved(sceneOf('b:G', 'd:G'), 2, 3, [], true)).toBe('b:G d');
});

test('a group takes its growths along, and goes into no other group', () => {
  const scene = sceneOf('a:G', 'b:G', 'c:H', 'd:H', 'e');
  // Rows: G, a, b, H, c, d, e.
  expect(moved(scene, 0, 4)).toBe('c:H d:H a:G b:G e');
  expect(moved(scene, 3, 1)).toBe('c:H d:H a:G b:G e');
  expect(moved(scene, 0, 6)).toBe('c:H d:H e a:G b:G');
  expect(moved(scene, 0, 2, ['G', 'H'])).toBe('c:H d:H e a:G b:G');
});

test('every move keeps every growth, once, and every group together', () => {
  const scene = sceneOf('a', 'b:G', 'c:G', 'd', 'e:H', 'f:H', 'g');
  for (const folded of [[], ['G'], ['G', 'H']]) {
    const rows = rowsOf(scene, folded);
    for (let from = 0; from < rows.length; from++)
      for (let to = 0; to < rows.length; to++) {
        const placed = movedRow(rows, from, to);
        expect(placed.map(({ id }) => id).sort()).toEqual(['a', 'b', 'c', 'd', 'e', 'f', 'g']);
        for (const group of ['G', 'H']) {
          const at = placed.flatMap((entry, i) => (entry.group === group ? [i] : []));
          if (at.length > 0) expect(at[at.length - 1] - at[0]).toBe(at.length - 1);
        }
      }
  }
});

test('growths are found by their names and their steps’ names, with their groups', () => {
  const scene = sceneOf('Kelp:G', 'Rock');
  scene.growths[1].steps = [newStep('solid')];
  const found = (text: string): string =>
    foundRows(rowsOf(scene, []), text, ({ steps }) => steps.map(({ kind }) => kind))
      .map(({ id }) => id)
      .join(' ');
  expect(found('kel')).toBe('G Kelp');
  expect(found('SOLID')).toBe('Rock');
  expect(found(' ')).toBe('G Kelp Rock');
  expect(found('whale')).toBe('');
});
