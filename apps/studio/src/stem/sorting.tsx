'use client';

import { closestCenter, DndContext, PointerSensor, type UniqueIdentifier, useSensor, useSensors } from '@dnd-kit/core';
import { restrictToVerticalAxis } from '@dnd-kit/modifiers';
import { SortableContext, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import type { ReactNode } from 'react';
import type { RowDrag } from './SortableRows';

// Made once: a new one at each render would render every row anew.
const BY_POINTER = { activationConstraint: { distance: 5 } };
const MODIFIERS = [restrictToVerticalAxis];

interface Props {
  ids: readonly string[];
  nameOf: (id: string) => string;
  onMove: (from: number, to: number) => void;
  children: ReactNode;
}

/** Rows that can be dragged into another order. */
export function Sorting({ ids, nameOf, onMove, children }: Props) {
  const sensors = useSensors(useSensor(PointerSensor, BY_POINTER));
  const name = (id: UniqueIdentifier | undefined): string => nameOf(String(id));
  const placeOf = (id: UniqueIdentifier | undefined): string => `place ${ids.indexOf(String(id)) + 1} of ${ids.length}`;
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      modifiers={MODIFIERS}
      accessibility={{
        screenReaderInstructions: { draggable: 'Alt with the up or down arrow moves it.' },
        announcements: {
          onDragStart: ({ active }) => `${name(active.id)} is taken.`,
          onDragOver: ({ active, over }) => `${name(active.id)} is over ${placeOf(over?.id)}.`,
          onDragEnd: ({ active, over }) => `${name(active.id)} is put at ${placeOf(over?.id)}.`,
          onDragCancel: ({ active }) => `${name(active.id)} stays where it was.`,
        },
      }}
      onDragEnd={({ active, over }) => {
        if (over && active.id !== over.id) onMove(ids.indexOf(String(active.id)), ids.indexOf(String(over.id)));
      }}
    >
      <SortableContext items={ids as string[]} strategy={verticalListSortingStrategy}>
        {children}
      </SortableContext>
    </DndContext>
  );
}

/** What a row puts on itself to be dragged. */
export function useSortedRow(id: string): RowDrag {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id });
  return {
    ref: setNodeRef,
    handle: { ...attributes, ...listeners },
    style: { transform: CSS.Translate.toString(transform), transition },
    dragged: isDragging,
  };
}
