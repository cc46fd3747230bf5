'use client';

import { type KeyboardEvent, useState } from 'react';
import type { Growth, NumberParam, Resolved, Step } from '@uvrex/core';
import { setParams } from '@/state/actions';
import { useResults } from '@/state/results';
import { Knob } from './Knob';
import { Overlay } from './Overlay';
import { useOwnSpace } from './ownSpace';
import { toScreen, useProjection } from './projection';
import { isFree, useStepValues } from './stepValues';
import { within } from './within';
import { nearestAlong, placeAt, secondAlong, wholePath } from './wholePath';

/** With Shift, lengths snap to so many metres. */
const GRID = 0.1;

interface PathHandle {
  name: 'start' | 'end' | 'count' | 'distance' | 'gap';
  label: string;
  /** How far along the path it stands, metres of the growth's own space. */
  at: number;
  /** What the parameter becomes where it is put so far along. */
  value: (at: number) => number;
  /** What one press of an arrow key adds to the parameter, towards the tip. */
  press: number;
  said: (value: number) => string;
}

/** Where the second copy stands along the path, and the gap that it stands so by. */
interface Second {
  at: number;
  gap: number;
}

const metres = (value: number): string => `${value.toFixed(2)} m`;

/**
 * What copies along a path are held by: where they begin and end, how many they are or how far apart.
 * @param second where the second copy stood, and the gap then; null where there is none
 */
function handlesOf(p: Resolved, length: number, closed: boolean, second: Second | null): PathHandle[] {
  const [start, end, count, apart] = ['start', 'end', 'count', 'distance'].map((name) => Number(p[name]));
  const [from, room] = closed ? [0, length] : [start, length - start - end];
  const ends: PathHandle[] = closed
    ? []
    : [
        {
          name: 'start',
          label: 'Start',
          at: start,
          value: (at) => Math.min(at, length - end),
          press: 0.01,
          said: metres,
        },
        {
          name: 'end',
          label: 'End',
          at: length - end,
          value: (at) => length - Math.max(at, start),
          press: -0.01,
          said: metres,
        },
      ];
  if (room <= 0) return ends;
  if (p.by === 'count')
    ends.push({
      ...{ name: 'count', label: 'Count', at: from + room / count, press: -1 },
      value: (at) => Math.round(room / Math.max(1e-9, at - from)),
      said: (value) => `${value} copies`,
    });
  if (p.by === 'distance')
    ends.push({
      ...{ name: 'distance', label: 'Distance', at: from + Math.min(apart, room), press: 0.01, said: metres },
      value: (at) => at - from,
    });
  if (p.by === 'item' && second)
    ends.push({
      ...{ name: 'gap', label: 'Gap', at: second.at + Number(p.gap) - second.gap, press: 0.01, said: metres },
      value: (at) => second.gap + at - second.at,
    });
  return ends;
}

/** Handles on the path that copies stand along. Arrows move the focused one; with Shift, by a larger step. */
export function AlongHandles({ growth, step }: { growth: Growth; step: Step }) {
  const read = useStepValues(growth, step);
  const told = useResults(({ record }) => record?.growths.find(({ id }) => id === growth.id));
  const drawn = useResults(({ onScreen }) => onScreen.find(({ id }) => id === growth.id));
  useProjection((state) => state.drawn);
  const { size } = useOwnSpace(growth);
  const [held, setHeld] = useState<string | null>(null);
  // Pictures come after the hand: while it drags, the copies are where they stood at first.
  const [taken, setTaken] = useState<Second | null>(null);
  const projection = useProjection.getState();
  const path = told ? wholePath(drawn?.shown.paths ?? null, told.ahead) : null;
  if (!path || !read) return null;
  const { declaration, values } = read;
  const stands = values.by === 'item' ? secondAlong(path, drawn?.shown.copies ?? []) : null;
  const second = taken ?? (stands === null ? null : { at: stands / size, gap: Number(values.gap) });
  const handles = handlesOf(values, path.along.at(-1)! / size, path.closed, second).filter(({ name }) =>
    isFree(step, name),
  );
  const put = ({ name }: PathHandle, value: number): void =>
    setParams(growth.id, step.id, { [name]: within(declaration.params[name] as NumberParam, value) }, `handle ${name}`);
  const onMove = (handle: PathHandle, point: { x: number; y: number }, snap: boolean): void => {
    const at = nearestAlong(path, point, (place) => toScreen(place, projection)) / size;
    const value = handle.value(at);
    put(handle, snap && handle.name !== 'count' ? Math.round(value / GRID) * GRID : value);
  };
  const onKey = (event: KeyboardEvent, handle: PathHandle): void => {
    const way = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
    if (!way) return;
    event.preventDefault();
    event.stopPropagation();
    put(handle, Number(values[handle.name]) + way * handle.press * (event.shiftKey ? 10 : 1));
  };
  return (
    <Overlay role="group" label={`Handles of ${declaration.label}`}>
      {handles.map((handle) => {
        const dot = toScreen(placeAt(path, handle.at * size), projection);
        if (!dot) return null;
        return (
          <Knob
            key={handle.name}
            dot={dot}
            label={handle.label}
            of={declaration.label}
            hue={growth.hue}
            held={held === handle.name}
            said={handle.said(Number(values[handle.name]))}
            onKey={(event) => onKey(event, handle)}
            take={() => {
              setHeld(handle.name);
              setTaken(second);
            }}
            onMove={(at, event) => onMove(handle, at, event.shiftKey)}
            release={() => {
              setHeld(null);
              setTaken(null);
            }}
          />
        );
      })}
    </Overlay>
  );
}
