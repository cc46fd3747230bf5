import type { Anchor } from '@uvrex/core';

/** Numbers as the table shows them: metres, percent, degrees. */
export const shown = (anchor: Anchor): number[] => [...anchor.slice(0, 3), 100 * (anchor[3] ?? 1), anchor[4] ?? 0];

/** An anchor of what a row shows; size and lean are left out where they are plain. */
export function anchorOf([x, y, z, size = 100, lean = 0]: readonly number[]): Anchor {
  if (lean !== 0) return [x, y, z, size / 100, lean];
  return size !== 100 ? [x, y, z, size / 100] : [x, y, z];
}

/** Rows of three to five numbers of a text, as tables and spreadsheets hand them over; null for anything else. */
export function anchorsOf(text: string): Anchor[] | null {
  const lines = text.trim().split(/\r?\n/);
  const rows = lines.map((line) =>
    line
      .trim()
      .split(/\s*[;\t]\s*|\s+/)
      .map((word) => Number(word.replace(',', '.'))),
  );
  const fits = rows.every(
    (row) => row.length >= 3 && row.length <= 5 && row.every(Number.isFinite) && (row[3] ?? 100) >= 0,
  );
  return fits ? rows.map(anchorOf) : null;
}
