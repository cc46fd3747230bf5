import { type Growth, type GrowthGroup, newId, type Scene, unusedName } from '@uvrex/core';
import { say } from '../toasts';
import { usersOf } from './items';
import { edit, useDocument } from '../document/document';
import { dropEmptyGroups } from './groups';
import { SCENE_ENTRY, setView } from '../document/view';

const scene = (): Scene => useDocument.getState().scene;
const those = (ids: readonly string[]): Growth[] => scene().growths.filter(({ id }) => ids.includes(id));

/** Changes several growths in the same way: one entry of the history. */
export function changeGrowths(
  ids: readonly string[],
  label: string,
  changes: Partial<Omit<Growth, 'id' | 'steps'>>,
): void {
  edit(label, (draft) => {
    for (const growth of draft.growths) if (ids.includes(growth.id)) Object.assign(growth, changes);
  });
}

/** Lets each of several growths run so many frames later than the one above it; the first stays as it is. */
export function spreadLate(ids: readonly string[], by: number, merge: string | null = null): void {
  edit(
    'Late by a step each',
    (draft) => {
      const chosen = draft.growths.filter(({ id }) => ids.includes(id));
      const [first] = chosen;
      if (first) chosen.forEach((growth, i) => void (growth.shift = first.shift + i * by));
    },
    { merge },
  );
}

/** By how many frames each runs later than the one above it; null where that is not the same for all. */
export function stepOfLate(ids: readonly string[]): number | null {
  const late = those(ids).map(({ shift }) => shift);
  const by = late.length > 1 ? late[1] - late[0] : 0;
  return late.every((shift, i) => Math.abs(shift - (late[0] + i * by)) < 1e-9) ? by : null;
}

/**
 * Copies several growths, each after its original. What they refer to among themselves, the copies refer to among the copies.
 * @returns ids of the copies
 */
export function duplicateGrowths(ids: readonly string[]): string[] {
  const originals = those(ids);
  const names = new Set(scene().growths.map(({ name }) => name));
  const fresh = new Map(originals.map(({ id }) => [id, newId()]));
  const copies = originals.map((growth): Growth => {
    const name = unusedName(growth.name, names);
    names.add(name);
    return { ...withOthers(structuredClone(growth), fresh), id: fresh.get(growth.id)!, name, locked: false };
  });
  const groups = wholeGroups(scene(), ids);
  const twins = new Map(groups.map(({ id }) => [id, newId()]));
  const groupNames = new Set(scene().groups.map(({ name }) => name));
  const done = edit(`Duplicate ${originals.length} growths`, (draft) => {
    for (const group of groups) {
      const name = unusedName(group.name, groupNames);
      groupNames.add(name);
      draft.groups.push({ ...group, id: twins.get(group.id)!, name });
    }
    // The copies of a whole group stand together behind it, as a group of their own.
    const behind = new Map<string, Growth[]>();
    const copyOf = ({ id }: Growth): Growth | undefined => copies[originals.findIndex((one) => one.id === id)];
    const last = (growth: Growth): boolean =>
      draft.growths.findLast(({ group }) => group === growth.group)?.id === growth.id;
    draft.growths = draft.growths.flatMap((growth) => {
      const copy = copyOf(growth);
      const twin = growth.group === null ? undefined : twins.get(growth.group);
      if (!copy || twin === undefined) return copy ? [growth, copy] : [growth];
      const gathered = [...(behind.get(twin) ?? []), { ...copy, group: twin }];
      behind.set(twin, gathered);
      return last(growth) ? [growth, ...gathered] : [growth];
    });
  });
  const made = done ? copies.map(({ id }) => id) : [];
  if (made.length > 0) setView({ growth: made[0], chosen: made, keys: [] });
  return made;
}

/** Groups of which all growths are among these. */
const wholeGroups = ({ groups, growths }: Scene, ids: readonly string[]): GrowthGroup[] =>
  groups.filter(({ id }) => growths.every((growth) => growth.group !== id || ids.includes(growth.id)));

/** A growth whose values name other growths than before. */
function withOthers(growth: Growth, others: ReadonlyMap<string, string>): Growth {
  const other = (value: unknown): unknown => {
    if (typeof value !== 'string') return value;
    const tip = value.startsWith('tip:') ? 'tip:' : '';
    const id = others.get(value.slice(tip.length));
    return id === undefined ? value : tip + id;
  };
  return {
    ...growth,
    steps: growth.steps.map((step) => ({
      ...step,
      params: Object.fromEntries(
        Object.entries(step.params).map(([name, value]) => [name, other(value) as typeof value]),
      ),
    })),
  };
}

/** Deletes several growths; says what is left without what it copied. */
export function deleteGrowths(ids: readonly string[]): void {
  const gone = those(ids);
  const users = new Set(
    gone.flatMap(({ id }) =>
      usersOf(scene(), id)
        .filter((user) => !ids.includes(user.id))
        .map(({ name }) => name),
    ),
  );
  const done = edit(gone.length === 1 ? `Delete ${gone[0].name}` : `Delete ${gone.length} growths`, (draft) => {
    draft.growths = draft.growths.filter(({ id }) => !ids.includes(id));
    dropEmptyGroups(draft);
  });
  if (!done) return;
  setView({ growth: scene().growths[0]?.id ?? SCENE_ENTRY, chosen: [], keys: [] });
  if (users.size > 0)
    say({ tone: 'info', text: `Some of them were used by ${[...users].join(', ')}: choose others there, or undo.` });
}
