'use client';

import {
  createContext,
  type CSSProperties,
  type HTMLAttributes,
  type KeyboardEvent,
  type ReactNode,
  type Ref,
  useContext,
  useEffect,
} from 'react';
import { create } from 'zustand';
import { focusRow } from '@/ui/focusRow';
import { afterFirstPicture } from '@/state/director/afterPicture';
import type * as SortingModule from './sorting';

/** What a row puts on itself to be dragged: its place on the page, and what it is taken by. */
export interface RowDrag {
  ref: Ref<HTMLDivElement>;
  handle: HTMLAttributes<HTMLElement>;
  style: CSSProperties | undefined;
  dragged: boolean;
}

const STILL: RowDrag = { ref: null, handle: {}, style: undefined, dragged: false };

/** Milliseconds after the first picture when dragging is loaded, and after which it is tried again. */
const SOON = 600;

/** What is open over the rows, or is about to be: a menu that is still being loaded would be lost with its row. */
const OPEN = '[role="dialog"],[role="menu"],[role="listbox"],.MuiPopover-root,[data-opened]';

const useLoaded = create<{ sorting: typeof SortingModule | null }>(() => ({ sorting: null }));
let asked = false;

/** Loads dragging once, at a moment when nothing is held or being typed: rows are made anew with it. */
function loadSoon(): void {
  if (asked) return;
  asked = true;
  let held = false;
  const hold = (event: Event): void => void (held = event.type === 'pointerdown');
  const events = ['pointerdown', 'pointerup', 'pointercancel'];
  for (const name of events) window.addEventListener(name, hold, true);
  const load = (): void =>
    void import('./sorting').then((sorting) => {
      const { activeElement } = document;
      // A row gets the focus back; what is in one, and the parts of it that are folded, would be lost.
      const within = activeElement?.closest('[data-rows]') && !activeElement.matches('[data-row]');
      const busy = held || within || activeElement?.matches('input, textarea') || document.querySelector(OPEN) !== null;
      if (busy) return void setTimeout(load, SOON);
      for (const name of events) window.removeEventListener(name, hold, true);
      const row = activeElement?.getAttribute('data-row') ?? undefined;
      useLoaded.setState({ sorting });
      focusRow(row);
    });
  afterFirstPicture(load, SOON);
}

const Loaded = createContext<typeof SortingModule | null>(null);

/** What a row of `SortableRows` puts on itself to be dragged; nothing until dragging is there. */
export function useRowDrag(id: string): RowDrag {
  const sorting = useContext(Loaded);
  // It comes to be with rows that are made anew, so that each row calls the same hooks all its life.
  return sorting ? sorting.useSortedRow(id) : STILL;
}

interface Props {
  ids: readonly string[];
  nameOf: (id: string) => string;
  onMove: (from: number, to: number, byKey?: boolean) => void;
  children: ReactNode;
}

/** Rows that are put in another order by dragging, or by Alt with an arrow key: Enter and Space open them. */
export function SortableRows({ ids, nameOf, onMove, children }: Props) {
  const sorting = useLoaded((state) => state.sorting);
  useEffect(loadSoon, []);
  const onKeyDown = (event: KeyboardEvent): void => {
    const by = { ArrowUp: -1, ArrowDown: 1 }[event.key];
    const row = (event.target as Element).closest('[data-row]')?.getAttribute('data-row');
    const from = ids.indexOf(row ?? '');
    if (!event.altKey || !by || from < 0) return;
    event.preventDefault();
    event.stopPropagation();
    const to = from + by;
    // Past the last one a row can still leave its group.
    if (to >= 0 && to <= ids.length) onMove(from, to, true);
  };
  return (
    <div data-rows onKeyDown={onKeyDown}>
      {sorting ? (
        <Loaded value={sorting}>
          <sorting.Sorting {...{ ids, nameOf, onMove }}>{children}</sorting.Sorting>
        </Loaded>
      ) : (
        children
      )}
    </div>
  );
}
