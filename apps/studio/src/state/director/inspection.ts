import { create } from 'zustand';
import type { Sheet, SheetColumn, SheetOf } from '@uvrex/core';
import { SCENE_ENTRY, useView } from '../document/view';

/** An attribute of a growth that is shown as colours. */
export interface Shade {
  growth: string;
  of: SheetOf;
  name: string;
  part: number | null;
  /** Values at the scale's ends; null for the least and greatest of the frame. */
  range: readonly [number, number] | null;
}

/** What a growth knows at the frame on screen. */
export interface Inspected {
  growth: string;
  frame: number;
  /** The key of the form that it was read from. */
  key: string;
  sheets: readonly Sheet[];
}

/** What was last read of the growth that is looked into. */
export const useInspection = create<{ inspected: Inspected | null }>(() => ({ inspected: null }));

/** The growth whose attributes are wanted: for the table, or to be shown as colours. */
export function wantedGrowth({ shade, table, growth } = useView.getState()): string | null {
  if (shade) return shade.growth;
  return table && growth !== SCENE_ENTRY ? growth : null;
}

/** The column that a shade shows, of what has been read of its growth. */
export const shadedColumn = (shade: Shade, inspected: Inspected | null): SheetColumn | undefined =>
  inspected?.growth === shade.growth
    ? inspected.sheets
        .find(({ of }) => of === shade.of)
        ?.columns.find(({ name, part }) => name === shade.name && part === shade.part)
    : undefined;
