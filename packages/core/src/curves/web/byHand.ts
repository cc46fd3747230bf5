import { Problem } from '../../problem';
import { add, type Vec3 } from '../../geometry/vec';
import type { Links } from './links';

/** A node that is moved by hand: its number, counted from 0, and by how much, metres. */
export type Moved = readonly [node: number, by: Vec3];

/** Numbers of each row; rows without any are passed over. */
function rowsOf(text: string, field: string, count: number, example: string): number[][] {
  return text.split('\n').flatMap((row, line) => {
    if (row.trim() === '') return [];
    const words = [...row.matchAll(/[^\s,]+/g)];
    const wrong = words.find(([word]) => !Number.isFinite(Number(word)));
    const first = Number(words[0][0]);
    if (wrong || words.length !== count || !Number.isInteger(first) || first < 1)
      throw new Problem(
        wrong
          ? `Row ${line + 1} of ${field}: “${wrong[0]}” is no number.`
          : `Row ${line + 1} of ${field} has to have ${count} numbers, that of a node first.`,
        `Write it as in ${example}.`,
        { text: { field, line: line + 1, column: (wrong?.index ?? 0) + 1 } },
      );
    return [words.map(([word]) => Number(word))];
  });
}

/** Links by the numbers of their nodes, a row each, counted from 1: `3 17`. @returns pairs counted from 0, the smaller first */
export function readLinks(text: string): Links {
  const found = new Map<string, readonly [number, number]>();
  for (const [p, q] of rowsOf(text, 'own', 2, '3 17')) {
    const [a, b] = p < q ? [p - 1, q - 1] : [q - 1, p - 1];
    if (a !== b && Number.isInteger(b)) found.set(`${a} ${b}`, [a, b]);
  }
  return [...found.values()];
}

/** Nodes that are moved, a row each: number counted from 1, and by how many metres along each axis: `3 0.1 0 -0.2`. */
export const parseMovedNodes = (text: string): Moved[] =>
  rowsOf(text, 'moved', 4, '3 0.1 0 -0.2').map(([node, x, y, z]) => [node - 1, [x, y, z]]);

const figures = (values: readonly number[]): string => values.map((value) => Number(value.toFixed(4))).join(' ');

/** The rows of links with one more, or without it where it is there. */
export function withLink(text: string, a: number, b: number): string {
  const [p, q] = a < b ? [a, b] : [b, a];
  const links = readLinks(text);
  const left = links.filter(([c, d]) => c !== p || d !== q);
  const next = left.length < links.length ? left : [...links, [p, q] as const];
  return next.map(([c, d]) => `${c + 1} ${d + 1}`).join('\n');
}

/** The rows of moved nodes with one moved by so much more. */
export function moveNodes(text: string, node: number, by: Vec3): string {
  const moved = new Map(parseMovedNodes(text));
  moved.set(node, add(moved.get(node) ?? [0, 0, 0], by));
  return [...moved].map(([k, way]) => figures([k + 1, ...way])).join('\n');
}
