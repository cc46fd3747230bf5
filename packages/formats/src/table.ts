import { boundsOf, countsOf, type Form, formHash, grownLength } from '@uvrex/core';

/** Columns of the growth table, in order. */
export const COLUMNS = [
  'frame',
  'growth',
  'share_grown',
  'path_length_m',
  'points',
  'faces',
  'copies',
  'min_x',
  'min_y',
  'min_z',
  'max_x',
  'max_y',
  'max_z',
  'milliseconds',
  'hash',
] as const;

/** One line of the growth table: what can be measured of a growth at a frame. */
export function measureRow(
  frame: number,
  name: string,
  form: Form,
  share: number | null,
  milliseconds: number,
): string {
  const { paths } = form;
  const length = grownLength(paths);
  const { points, faces, copies } = countsOf(form);
  const bounds = boundsOf(form);
  const corners = bounds ? [...bounds.min, ...bounds.max].map((value) => value.toFixed(6)) : Array<string>(6).fill('');
  return [
    frame,
    quoted(name),
    share === null ? '' : share.toFixed(6),
    length.toFixed(6),
    points,
    faces,
    copies,
    ...corners,
    milliseconds.toFixed(2),
    formHash(form),
  ].join(',');
}

/** A CSV field after RFC 4180: in quotes where it has to be. */
const quoted = (text: string): string => (/[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text);
