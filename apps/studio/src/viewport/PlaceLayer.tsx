'use client';

import Box from '@mui/material/Box';
import { type KeyboardEvent, type PointerEvent, useRef } from 'react';
import type { Anchor, Growth, Step, Vec3 } from '@uvrex/core';
import { setParam } from '@/state/actions';
import { endEdit } from '@/state/document';
import { useView } from '@/state/view';
import { INK } from '@/ui/theme';
import { say } from '@/ui/Toasts';
import { useOwnSpace } from './ownSpace';
import { skinUnder, toScreen, useProjection } from './projection';
import { toTenthMillimetre } from './snapping';

interface Props {
  growth: Growth;
  step: Step;
  /** The parameter that holds the places. */
  param: string;
}

/** Places on a form: clicks put new ones down while they are being placed; those that are there can be dragged and deleted. */
export function PlaceLayer({ growth, step, param }: Props) {
  // Drawn again with every picture, since the camera may have moved.
  useProjection((state) => state.drawn);
  const placing = useView(({ placing: now }) => now?.step === step.id && now.param === param);
  const { toOwn, toWorld } = useOwnSpace(growth);
  const dragged = useRef<number | null>(null);
  const places = step.params[param] as readonly Anchor[];
  const projection = useProjection.getState();
  const set = (next: readonly Anchor[], merge: string | null = null): void =>
    setParam(growth.id, step.id, param, [...next], merge);

  /** The place on the skin under the pointer, in the growth's own space. */
  const under = (event: PointerEvent | React.MouseEvent): Vec3 | null => {
    const svg = event.currentTarget.closest('svg')!;
    const box = svg.getBoundingClientRect();
    const hit = skinUnder(event.clientX - box.left, event.clientY - box.top, useProjection.getState());
    return hit && toTenthMillimetre(toOwn(hit.place));
  };
  const remove = (event: KeyboardEvent, i: number): void => {
    if (event.key !== 'Delete' && event.key !== 'Backspace') return;
    event.stopPropagation();
    event.preventDefault();
    set(places.filter((_, k) => k !== i));
  };
  return (
    <Box
      component="svg"
      aria-label="Places on the form"
      role="group"
      data-testid={placing ? 'place-layer' : undefined}
      sx={{
        position: 'absolute',
        inset: 0,
        width: '100%',
        height: '100%',
        pointerEvents: placing ? 'all' : 'none',
        cursor: placing ? 'crosshair' : undefined,
        touchAction: 'none',
      }}
      onClick={(event) => {
        if (!placing) return;
        const place = under(event);
        if (place) set([...places, place]);
        else say({ tone: 'info', text: 'There was nothing there: click on the form.' });
      }}
    >
      {places.map((anchor, i) => {
        const dot = toScreen(toWorld([anchor[0], anchor[1], anchor[2]]), projection);
        if (!dot) return null;
        return (
          <circle
            key={i}
            cx={dot.x}
            cy={dot.y}
            r={6}
            tabIndex={0}
            role="button"
            aria-label={`Place ${i + 1} of ${places.length}`}
            fill={INK.front}
            stroke={INK.deep}
            strokeWidth={2}
            pointerEvents="all"
            cursor="grab"
            onClick={(event) => event.stopPropagation()}
            onKeyDown={(event) => remove(event, i)}
            onPointerDown={(event) => {
              event.currentTarget.setPointerCapture(event.pointerId);
              event.currentTarget.focus();
              dragged.current = i;
            }}
            onPointerMove={(event) => {
              if (dragged.current !== i) return;
              const place = under(event);
              if (place)
                set(
                  places.map((old, k) => (k === i ? place : old)),
                  'place',
                );
            }}
            onPointerUp={() => {
              dragged.current = null;
              endEdit();
            }}
            onPointerCancel={() => {
              dragged.current = null;
              endEdit();
            }}
          />
        );
      })}
    </Box>
  );
}
