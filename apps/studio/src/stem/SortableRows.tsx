'use client';

import { closestCenter, DndContext, PointerSensor, type UniqueIdentifier, useSensor, useSensors } from '@dnd-kit/core';
import { restrictToVerticalAxis } from '@dnd-kit/modifiers';
import { SortableContext, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { type KeyboardEvent, type ReactNode, useMemo } from 'react';

// Made once: a new one at each render would render every row anew.
const BY_POINTER = { activationConstraint: { distance: 5 } };
const MODIFIERS = [restrictToVerticalAxis];

interface Props {
  rows: readonly { id: string; name: string }[];
  onMove: (from: number, to: number) => void;
  children: ReactNode;
}

/** Rows that are put in another order by dragging, or by Alt with an arrow key: Enter and Space open them. */
export function SortableRows({ rows, onMove, children }: Props) {
  const sensors = useSensors(useSensor(PointerSensor, BY_POINTER));
  const joined = rows.map(({ id }) => id).join('\n');
  const ids = useMemo(() => joined.split('\n'), [joined]);
  const nameOf = (id: UniqueIdentifier | undefined): string => rows.find((row) => row.id === id)?.name ?? '';
  const placeOf = (id: UniqueIdentifier | undefined): string => `place ${ids.indexOf(String(id)) + 1} of ${ids.length}`;
  const onKeyDown = (event: KeyboardEvent): void => {
    const by = { ArrowUp: -1, ArrowDown: 1 }[event.key];
    const row = (event.target as Element).closest('[data-row]')?.getAttribute('data-row');
    const from = ids.indexOf(row ?? '');
    if (!event.altKey || !by || from < 0) return;
    event.preventDefault();
    event.stopPropagation();
    const to = from + by;
    if (to >= 0 && to < ids.length) onMove(from, to);
  };
  return (
    <div onKeyDown={onKeyDown}>
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        modifiers={MODIFIERS}
        accessibility={{
          screenReaderInstructions: { draggable: 'Alt with the up or down arrow moves it.' },
          announcements: {
            onDragStart: ({ active }) => `${nameOf(active.id)} is taken.`,
            onDragOver: ({ active, over }) => `${nameOf(active.id)} is over ${placeOf(over?.id)}.`,
            onDragEnd: ({ active, over }) => `${nameOf(active.id)} is put at ${placeOf(over?.id)}.`,
            onDragCancel: ({ active }) => `${nameOf(active.id)} stays where it was.`,
          },
        }}
        onDragEnd={({ active, over }) => {
          if (over && active.id !== over.id) onMove(ids.indexOf(String(active.id)), ids.indexOf(String(over.id)));
        }}
      >
        <SortableContext items={ids} strategy={verticalListSortingStrategy}>
          {children}
        </SortableContext>
      </DndContext>
    </div>
  );
}
