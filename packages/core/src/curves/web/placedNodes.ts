import { Problem } from '../../problem';
import type { Vec3 } from '../../geometry/vec';

/** A point that is put down by hand. */
export interface PlacedNode {
  /** In the growth's own space, metres. */
  place: Vec3;
  /** The number of the point that it grows from, counted from 0; −1 where it grows from none. */
  parent: number;
  size: number;
  /** A whole number that later steps may go by. */
  kind: number;
}

const EXAMPLE = 'Write it as X Y Z, parent, size and kind: 0.2 1 0 1 0.8 2.';

/**
 * Reads points, a row each: X, Y and Z in metres, then the number of its parent counted from 1 (0 for none), its size and its kind, of
 * which the last may be left out.
 * @throws Problem with its row, for what is no number, a parent that is not there, or a circle
 */
export function readNodes(text: string): PlacedNode[] {
  const nodes: PlacedNode[] = [];
  const lines: number[] = [];
  text.split('\n').forEach((row, line) => {
    if (row.trim() === '') return;
    const words = [...row.matchAll(/[^\s,]+/g)];
    const fail = (what: string, column = 1): Problem =>
      new Problem(`Row ${line + 1} of Points: ${what}.`, EXAMPLE, { text: { field: 'nodes', line: line + 1, column } });
    const wrong = words.find(([word]) => !Number.isFinite(Number(word)));
    if (wrong) throw fail(`“${wrong[0]}” is no number`, wrong.index + 1);
    if (words.length < 3 || words.length > 6) throw fail('it has to have three to six numbers');
    const [x, y, z, parent = 0, size = 1, kind = 1] = words.map(([word]) => Number(word));
    if (!Number.isInteger(parent) || parent < 0)
      throw fail('the fourth number is that of another row', words[3].index + 1);
    if (size < 0) throw fail('a size is 0 or more', words[4].index + 1);
    if (!Number.isInteger(kind)) throw fail('a kind is a whole number', words[5].index + 1);
    nodes.push({ place: [x, y, z], parent: parent - 1, size, kind });
    lines.push(line);
  });
  nodes.forEach(({ parent }, k) => {
    const place = { text: { field: 'nodes', line: lines[k] + 1, column: 1 } };
    if (parent >= nodes.length)
      throw new Problem(`Row ${lines[k] + 1} of Points: there is no point ${parent + 1}.`, EXAMPLE, place);
    if (inCircle(nodes, k, parent))
      throw new Problem(`Row ${lines[k] + 1} of Points: it would grow from itself.`, 'Give it another parent.', place);
  });
  return nodes;
}

/** Whether a point would grow from itself, had it this parent. */
export function inCircle(nodes: readonly PlacedNode[], node: number, parent: number): boolean {
  let [at, left] = [parent, nodes.length];
  while (at >= 0 && left-- >= 0) {
    if (at === node) return true;
    at = nodes[at].parent;
  }
  return at >= 0;
}

const figure = (value: number): string => String(Number(value.toFixed(4)));

/** The rows of points: what is as it would be anyway is left out at their ends. */
export const writeNodes = (nodes: readonly PlacedNode[]): string =>
  nodes
    .map(({ place, parent, size, kind }) => {
      const row = [...place.map(figure), String(parent + 1), figure(size), String(kind)];
      if (kind === 1) row.pop();
      if (kind === 1 && size === 1) row.pop();
      if (row.length === 4 && parent < 0) row.pop();
      return row.join(' ');
    })
    .join('\n');

/** The points with one more; its parent is told by its number from 0, −1 for none. */
export const withNode = (nodes: readonly PlacedNode[], place: Vec3, parent: number): PlacedNode[] => [
  ...nodes,
  { place, parent, size: 1, kind: 1 },
];

/** The points with one changed. */
export const changedNode = (nodes: readonly PlacedNode[], node: number, change: Partial<PlacedNode>): PlacedNode[] =>
  nodes.map((one, k) => (k === node ? { ...one, ...change } : one));

/** The points without one: what grew from it grows from its parent. */
export const withoutNode = (nodes: readonly PlacedNode[], node: number): PlacedNode[] =>
  nodes.flatMap((one, k) => {
    if (k === node) return [];
    const parent = one.parent === node ? nodes[node].parent : one.parent;
    return [{ ...one, parent: parent > node ? parent - 1 : parent }];
  });
