import { type Growth, type GrowthGroup, HUES, newId, type Scene, unusedName } from '@uvrex/core';
import { edit, growthIn, useDocument } from '../document/document';
import { say } from '../toasts';
import { usersOf } from './items';
import { movedRow, type ListRow } from './rows';
import { setView } from '../document/view';

/** Leaves out groups that no growth is in any more. */
export function dropEmptyGroups(draft: Scene): void {
  const used = new Set(draft.growths.map(({ group }) => group));
  if (draft.groups.some(({ id }) => !used.has(id))) draft.groups = draft.groups.filter(({ id }) => used.has(id));
}

/**
 * Puts a growth of a draft into a group, or into none. It starts when it did and is seen as it was: the start delay of the
 * group that it leaves is added to its own, that of the group that it joins is taken off.
 */
function regroup(draft: Scene, growth: Growth, group: string | null): void {
  if (growth.group === group) return;
  const find = (id: string | null): GrowthGroup | undefined => draft.groups.find((entry) => entry.id === id);
  const [from, to] = [find(growth.group), find(group)];
  growth.shift += (from?.shift ?? 0) - (to?.shift ?? 0);
  growth.visible &&= from?.visible ?? true;
  growth.group = group;
}

/** Puts a row of the list in another place. */
export function moveRow(rows: readonly ListRow[], from: number, to: number, byKey = false): void {
  const placed = movedRow(rows, from, to, byKey);
  edit('Reorder growths', (draft) => {
    const byId = new Map(draft.growths.map((growth) => [growth.id, growth]));
    placed.forEach(({ id, group }) => {
      regroup(draft, byId.get(id)!, group);
    });
    draft.growths = placed.map(({ id }) => byId.get(id)!);
    dropEmptyGroups(draft);
  });
}

/** Puts growths together into a new group, where the first of them stands. */
export function groupGrowths(ids: readonly string[]): void {
  const { scene } = useDocument.getState();
  const members = scene.growths.filter(({ id }) => ids.includes(id));
  if (members.length === 0) return;
  const group: GrowthGroup = {
    id: newId(),
    name: unusedName('Group', new Set(scene.groups.map(({ name }) => name))),
    hue: HUES[(scene.groups.length + 3) % HUES.length],
    visible: true,
    shift: 0,
  };
  edit(`Group ${members.length} growths`, (draft) => {
    const at = draft.growths.findIndex(({ id }) => id === members[0].id);
    const taken = draft.growths.filter(({ id }) => ids.includes(id));
    const left = draft.growths.filter(({ id }) => !ids.includes(id));
    draft.growths = [...left.slice(0, at), ...taken, ...left.slice(at)];
    draft.groups.push(group);
    for (const growth of taken) regroup(draft, growth, group.id);
    dropEmptyGroups(draft);
  });
}

/** Undoes a group; its growths stay where they are, as late as they were with it. Who copied it is told. */
export function ungroup(id: string): void {
  const { scene } = useDocument.getState();
  const name = scene.groups.find((group) => group.id === id)?.name;
  const users = usersOf(scene, id).map((growth) => growth.name);
  const done = edit('Ungroup', (draft) => {
    for (const growth of draft.growths) if (growth.group === id) regroup(draft, growth, null);
    dropEmptyGroups(draft);
  });
  if (done && users.length > 0)
    say({ tone: 'info', text: `“${name}” was copied by ${users.join(', ')}: choose another item there.` });
}

/** Takes a growth out of its group; it comes to stand after it, as late as it was. */
export function takeOutOfGroup(growthId: string): void {
  edit('Remove from the group', (draft) => {
    const growth = growthIn(draft, growthId);
    if (!growth || growth.group === null) return;
    const { group: from } = growth;
    const index = draft.growths.indexOf(growth);
    draft.growths.splice(index, 1);
    const last = draft.growths.findLastIndex(({ group }) => group === from);
    draft.growths.splice(last < 0 ? index : last + 1, 0, growth);
    regroup(draft, growth, null);
    dropEmptyGroups(draft);
  });
}

export function changeGroup(
  id: string,
  label: string,
  changes: Partial<Omit<GrowthGroup, 'id'>>,
  merge: string | null = null,
): void {
  edit(label, (draft) => Object.assign(draft.groups.find((group) => group.id === id) ?? {}, changes), { merge });
}

/** Folds a group's growths away in list and timeline, or shows them. */
export const foldGroup = (id: string): void =>
  setView(({ folded }) => ({ folded: folded.includes(id) ? folded.filter((other) => other !== id) : [...folded, id] }));
