import { isShown, newGrowth, newScene, newStep } from '@uvrex/core';
import { addGrowth, changeGrowth, deleteGrowth, duplicateGrowth } from './growthActions';
import { ownFrame, setParam } from './valueActions';
import { edit, openScene, travel, useDocument } from '../document/document';
import { changeGroup, groupGrowths, moveRow, takeOutOfGroup, ungroup } from './groups';
import { rowsOf } from './rows';
import { changeGrowths, deleteGrowths, duplicateGrowths, spreadLate, stepOfLate } from './selectionActions';
import { chosenIn, select, setView, useView } from '../document/view';
import { sayProblem, say } from '../toasts';

jest.mock('../toasts', () => ({ say: jest.fn(), sayProblem: jest.fn() }));

const scene = () => useDocument.getState().scene;
const ids = (): string[] => scene().growths.map(({ id }) => id);
const growth = (id: string) => scene().growths.find((entry) => entry.id === id)!;

beforeEach(() => {
  openScene('scene', newScene('Reef'));
  for (const id of ['a', 'b', 'c', 'd']) addGrowth({ ...newGrowth(id, 0, [newStep('line')]), id });
  select('a');
  jest.mocked(sayProblem).mockClear();
  jest.mocked(say).mockClear();
});

test('growths are put together into a group, and taken back by one undo', () => {
  groupGrowths(['b', 'd']);
  expect(ids()).toEqual(['a', 'b', 'd', 'c']);
  const [group] = scene().groups;
  expect(scene().growths.map(({ group: id }) => id)).toEqual([null, group.id, group.id, null]);
  travel('undo');
  expect(scene().groups).toEqual([]);
  expect(ids()).toEqual(['a', 'b', 'c', 'd']);
});

test('a group that its last growth leaves is gone; the growth stays as late as it was', () => {
  groupGrowths(['b']);
  changeGroup(scene().groups[0].id, 'Late', { shift: 12 });
  changeGrowth('b', 'Late', { shift: 3 });
  expect(ownFrame(growth('b'), 100)).toBe(85);
  takeOutOfGroup('b');
  expect(scene().groups).toEqual([]);
  expect(growth('b').shift).toBe(15);
  expect(ownFrame(growth('b'), 100)).toBe(85);
});

test('ungrouping leaves what is seen as it was: late, and hidden', () => {
  groupGrowths(['a', 'b']);
  const [{ id }] = scene().groups;
  changeGroup(id, 'Late', { shift: 7, visible: false });
  ungroup(id);
  expect(scene().groups).toEqual([]);
  expect(growth('a')).toMatchObject({ shift: 7, visible: false, group: null });
});

/** Frame of its own at frame 100, and whether it is shown. */
const seen = (id: string): [number, boolean] => [ownFrame(growth(id), 100), isShown(scene(), growth(id))];

test('whichever way a growth leaves a group, it starts when it did and stays hidden; and the same on its way back', () => {
  const leave: (() => void)[] = [
    () => ungroup(scene().groups[0].id),
    () => takeOutOfGroup('b'),
    () => moveRow(rowsOf(scene(), []), 2, 3, true),
    () => moveRow(rowsOf(scene(), []), 2, 4),
    () => groupGrowths(['b']),
  ];
  for (const way of leave) {
    openScene('scene', newScene('Reef'));
    for (const id of ['a', 'b', 'c', 'd']) addGrowth({ ...newGrowth(id, 0, [newStep('line')]), id });
    groupGrowths(['a', 'b']);
    const [{ id }] = scene().groups;
    changeGrowth('b', 'Late', { shift: 3 });
    changeGroup(id, 'Late', { shift: 12, visible: false });
    expect(seen('b')).toEqual([85, false]);
    way();
    expect(growth('b').group).not.toBe(id);
    expect(seen('b')).toEqual([85, false]);
    const rows = rowsOf(scene(), []);
    const at = rows.findIndex((row) => row.id === 'b');
    if (scene().groups[0]?.id !== id || growth('b').group !== null || rows[at - 1].id !== 'a') continue;
    moveRow(rows, at, at - 1, true);
    expect(growth('b').group).toBe(id);
    expect(seen('b')).toEqual([85, false]);
  }
});

test('a copy of a whole group is a group of its own behind it, with the same delay', () => {
  groupGrowths(['a', 'b']);
  const [first] = scene().groups;
  changeGroup(first.id, 'Late', { shift: 12 });
  const made = duplicateGrowths(['a', 'b']);
  expect(ids()).toEqual(['a', 'b', ...made, 'c', 'd']);
  const [, second] = scene().groups;
  expect(second).toMatchObject({ name: 'Group 2', shift: 12 });
  expect(made.map((id) => growth(id).group)).toEqual([second.id, second.id]);
  expect(growth('a').group).toBe(first.id);
  travel('undo');
  expect(scene().groups.map(({ id }) => id)).toEqual([first.id]);
});

test('a row is moved into a group and the group is moved as a whole', () => {
  groupGrowths(['a', 'b']);
  moveRow(rowsOf(scene(), []), 4, 2);
  expect(ids()).toEqual(['a', 'd', 'b', 'c']);
  expect(growth('d').group).toBe(scene().groups[0].id);
  moveRow(rowsOf(scene(), []), 0, 4);
  expect(ids()).toEqual(['c', 'a', 'd', 'b']);
});

test('what is locked is not changed nor deleted, and says so; hiding, naming and unlocking it is free', () => {
  changeGrowth('a', 'Lock', { locked: true });
  const { steps } = growth('a');
  setParam('a', steps[0].id, 'toY', 3);
  deleteGrowth('a');
  deleteGrowths(['a', 'b']);
  expect(ids()).toEqual(['a', 'b', 'c', 'd']);
  expect(growth('a').steps).toBe(steps);
  expect(jest.mocked(sayProblem)).toHaveBeenCalledTimes(3);
  expect(String((jest.mocked(sayProblem).mock.calls[0][0] as Error).message)).toContain('a is locked');
  changeGrowth('a', 'Hide', { visible: false, name: 'Kelp' });
  changeGrowth('a', 'Unlock', { locked: false });
  setParam('a', steps[0].id, 'toY', 3);
  expect(growth('a')).toMatchObject({ visible: false, name: 'Kelp' });
  expect(growth('a').steps[0].params.toY).toBe(3);
});

test('a copy of what is locked is free', () => {
  changeGrowth('a', 'Lock', { locked: true });
  duplicateGrowth('a');
  expect(scene().growths[1].locked).toBe(false);
});

test('several are changed, spread in time and deleted, each by one undo', () => {
  changeGrowth('a', 'Late', { shift: 5 });
  spreadLate(['a', 'c', 'd'], 4);
  expect(['a', 'c', 'd', 'b'].map((id) => growth(id).shift)).toEqual([5, 9, 13, 0]);
  expect(stepOfLate(['a', 'c', 'd'])).toBe(4);
  expect(stepOfLate(['a', 'b', 'c'])).toBeNull();
  changeGrowths(['a', 'b'], 'Hide', { visible: false });
  expect(scene().growths.map(({ visible }) => visible)).toEqual([false, false, true, true]);
  travel('undo');
  travel('undo');
  expect(scene().growths.map(({ visible, shift }) => [visible, shift])).toEqual([
    [true, 5],
    [true, 0],
    [true, 0],
    [true, 0],
  ]);
  deleteGrowths(['a', 'b']);
  expect(ids()).toEqual(['c', 'd']);
  travel('undo');
  expect(ids()).toEqual(['a', 'b', 'c', 'd']);
});

test('copies of several refer to one another as their originals do, and to others as before', () => {
  const along = newStep('along', { growth: 'a' });
  const other = newStep('along', { growth: 'c' });
  addGrowth({ ...newGrowth('e', 0, [newStep('line'), along, other]), id: 'e' });
  const made = duplicateGrowths(['a', 'e']);
  expect(ids()).toEqual(['a', made[0], 'b', 'c', 'd', 'e', made[1]]);
  const [, first, second] = growth(made[1]).steps;
  expect(first.params.growth).toBe(made[0]);
  expect(second.params.growth).toBe('c');
  expect(chosenIn(useView.getState())).toEqual(made);
});

test('what is deleted alone is named in the entry of undo, several are counted', () => {
  deleteGrowths(['a']);
  const last = () => useDocument.getState().history.past.at(-1)!.label;
  expect(last()).toBe('Delete a');
  deleteGrowths(['b', 'c']);
  expect(last()).toBe('Delete 2 growths');
});

test('deleting several says who used them', () => {
  addGrowth({ ...newGrowth('Chain', 0, [newStep('line'), newStep('along', { growth: 'a' })]), id: 'e' });
  deleteGrowths(['a', 'b']);
  expect(jest.mocked(say).mock.calls.at(-1)?.[0].text).toContain('Chain');
});

test('one that is selected elsewhere stands for itself: several are chosen only while it is one of them', () => {
  setView({ chosen: ['a', 'b'], growth: 'a' });
  expect(chosenIn(useView.getState())).toEqual(['a', 'b']);
  setView({ growth: 'c' });
  expect(chosenIn(useView.getState())).toEqual(['c']);
});

test('who copied a group is told when it is undone, and nobody where nobody did', () => {
  groupGrowths(['b', 'd']);
  ungroup(scene().groups[0].id);
  expect(say).not.toHaveBeenCalled();
  groupGrowths(['b', 'd']);
  const [group] = scene().groups;
  edit('Copy', (draft) => void draft.growths[0].steps.push(newStep('along', { growth: group.id })));
  ungroup(group.id);
  expect(say).toHaveBeenCalledTimes(1);
  expect(jest.mocked(say).mock.calls[0][0].text).toBe(`“${group.name}” was copied by a: choose another item there.`);
  travel('undo');
  expect(scene().groups).toEqual([group]);
});
