import Papa from 'papaparse';
import { Problem } from '../problem';

/** A table of numbers by columns. */
export interface Table {
  /** What each column is called: by the first row where that holds words, else by its number from 1. */
  names: readonly string[];
  /** Values of each column, row by row; NaN where there is no number. */
  columns: readonly Float64Array[];
  rows: number;
}

/** What a table may come to. */
export const TABLE_LIMITS = { rows: 1_000_000, columns: 1000 };

/** Tables that have been read, by their bytes. */
const known = new WeakMap<Uint8Array, Table>();

/**
 * Reads a table of comma-, semicolon- or tab-separated values (RFC 4180; the separator is found by itself). Where values are separated by
 * semicolons or tabs, a comma in a number is its decimal point.
 * @throws Problem where there is no row of numbers, or too many
 */
export function readTable(bytes: Uint8Array): Table {
  const before = known.get(bytes);
  if (before) return before;
  const text = new TextDecoder().decode(bytes).replace(/^\uFEFF/, '');
  const { data, meta } = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy' });
  const number = (cell: string | undefined): number => {
    const trimmed = (cell ?? '').trim();
    const plain = meta.delimiter === ',' ? trimmed : trimmed.replace(/^([+-]?\d*),(\d+)$/, '$1.$2');
    return plain === '' ? NaN : Number(plain);
  };
  const width = data.reduce((most, row) => Math.max(most, row.length), 0);
  const headed = data.length > 0 && data[0].some((cell) => cell.trim() !== '' && Number.isNaN(number(cell)));
  const rows = data.slice(headed ? 1 : 0);
  if (rows.length > TABLE_LIMITS.rows || width > TABLE_LIMITS.columns)
    throw new Problem(
      `The table has ${rows.length} rows and ${width} columns; ${TABLE_LIMITS.rows} and ${TABLE_LIMITS.columns} are the most.`,
      'Choose a smaller one.',
    );
  const columns = Array.from({ length: width }, (_, c) => Float64Array.from(rows, (row) => number(row[c])));
  if (!columns.some((column) => column.some((value) => !Number.isNaN(value))))
    throw new Problem(
      'The table holds no numbers.',
      'Choose a file of values separated by commas, semicolons or tabs.',
    );
  const names = Array.from({ length: width }, (_, c) => (headed && data[0][c]?.trim()) || String(c + 1));
  const table = { names, columns, rows: rows.length };
  known.set(bytes, table);
  return table;
}

/**
 * A column by its name, or by its number from 1; the first with numbers where nothing is asked for.
 * @throws Problem where there is none
 */
export function columnOf({ names, columns }: Table, asked: string): Float64Array {
  const wanted = asked.trim().toLowerCase();
  const place =
    wanted === ''
      ? columns.findIndex((column) => column.some((value) => !Number.isNaN(value)))
      : names.findIndex((name) => name.toLowerCase() === wanted);
  const found = columns[place >= 0 ? place : Number(wanted) - 1];
  if (!found)
    throw new Problem(
      `The table has no column “${asked}”.`,
      `Its columns are ${names.slice(0, 12).join(', ')}${names.length > 12 ? ' …' : ''}.`,
    );
  return found;
}
