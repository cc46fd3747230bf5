import type { Growth, GrowthGroup, Scene } from '@uvrex/core';

/** A line of the list of growths: a group, or a growth, which may be in one. */
export type ListRow =
  | { id: string; name: string; group: GrowthGroup; members: readonly Growth[] }
  | { id: string; name: string; growth: Growth; within: string | null };

/**
 * What the list shows, in order: a group stands where its first growth does, with its others below it.
 * @param folded ids of groups whose growths are not shown
 */
export function rowsOf({ growths, groups }: Pick<Scene, 'growths' | 'groups'>, folded: readonly string[]): ListRow[] {
  const byId = new Map(groups.map((group) => [group.id, group]));
  const done = new Set<string>();
  return growths.flatMap((growth): ListRow[] => {
    const group = growth.group === null ? undefined : byId.get(growth.group);
    if (!group) return [{ id: growth.id, name: growth.name, growth, within: null }];
    if (done.has(group.id)) return [];
    done.add(group.id);
    const members = growths.filter((other) => other.group === group.id);
    const below = folded.includes(group.id)
      ? []
      : members.map((member) => ({ id: member.id, name: member.name, growth: member, within: group.id }));
    return [{ id: group.id, name: group.name, group, members }, ...below];
  });
}

/** A growth's place in the order, and the group that it is in there. */
export interface Placed {
  id: string;
  group: string | null;
}

/**
 * The order of growths once a row has been put in another place. A growth that is put between a group's name and its last
 * growth goes into that group; a group takes its growths along and goes into no other.
 * @param byKey by one place with the keyboard: the ends of groups are places of their own then
 */
export function movedRow(rows: readonly ListRow[], from: number, to: number, byKey = false): Placed[] {
  const moved = rows[from];
  const stepped = byKey && 'growth' in moved ? steppedOver(rows, moved, from, to) : undefined;
  if (stepped !== undefined) return placedRows(rows, moved, stepped);
  const block = 'group' in moved ? rows.filter((row) => row === moved || withinOf(row) === moved.id) : [moved];
  const left = rows.filter((row) => !block.includes(row));
  let at = Math.min(left.length, Math.max(0, to > from ? to - (block.length - 1) : to));
  // A group is not put into another: it goes past the whole of it.
  if ('group' in moved) while (at > 0 && at < left.length && withinOf(left[at]) !== null) at += to > from ? 1 : -1;
  const [above, below] = [left[at - 1], left[at]];
  let group: string | null = null;
  if ('growth' in moved && above) {
    const around = 'group' in above ? above.id : above.within;
    if (around !== null && ((below && withinOf(below) === around) || moved.within === around)) group = around;
  }
  return placedRows([...left.slice(0, at), ...block, ...left.slice(at)], moved, group);
}

/**
 * The group of a growth that takes one step over the end of a group, which changes nothing else: down out of it, or up into it.
 * Undefined for any other move.
 */
function steppedOver(rows: readonly ListRow[], moved: ListRow, from: number, to: number): string | null | undefined {
  const own = withinOf(moved);
  if (to === from + 1 && own !== null && (from + 1 === rows.length || withinOf(rows[from + 1]) !== own)) return null;
  const above = to === from - 1 ? withinOf(rows[from - 1]) : null;
  return above !== null && above !== own ? above : undefined;
}

/** Growths in the order of rows; the moved one is in the given group. */
function placedRows(order: readonly ListRow[], moved: ListRow, group: string | null): Placed[] {
  const folded = (id: string): boolean => !order.some((row) => withinOf(row) === id);
  return order.flatMap((row): Placed[] => {
    if ('growth' in row) return [{ id: row.id, group: row === moved ? group : row.within }];
    return folded(row.id) ? row.members.map(({ id }) => ({ id, group: row.id })) : [];
  });
}

const withinOf = (row: ListRow): string | null => ('growth' in row ? row.within : null);

/** Rows with growths whose names, or whose steps' names, hold a text; groups with one of them. */
export function foundRows(
  rows: readonly ListRow[],
  text: string,
  stepNames: (growth: Growth) => readonly string[],
): ListRow[] {
  const wanted = text.trim().toLowerCase();
  if (wanted === '') return [...rows];
  const fits = (growth: Growth): boolean =>
    [growth.name, ...stepNames(growth)].some((name) => name.toLowerCase().includes(wanted));
  return rows.filter((row) =>
    'growth' in row ? fits(row.growth) : row.name.toLowerCase().includes(wanted) || row.members.some(fits),
  );
}
