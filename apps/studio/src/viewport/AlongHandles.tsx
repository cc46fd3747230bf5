'use client';

import { useState } from 'react';
import type { Growth, NumberParam, Resolved, Step, Vec3 } from '@uvrex/core';
import { setParams } from '@/state/actions/valueActions';
import { endEdit } from '@/state/document/document';
import { useResults } from '@/state/director/results';
import { useDrag } from '@/ui/drag';
import { keyStep } from '@/ui/pressed';
import { Knob } from './Knob';
import { Overlay } from './Overlay';
import { useOwnSpace } from './ownSpace';
import { toScreen, useProjection } from '../state/director/projection';
import { isFree, useStepValues } from './stepValues';
import { TurnRings } from './TurnRings';
import { within } from './within';
import {
  alongAt,
  firstCopy,
  nearestAlong,
  placeAt,
  secondAlong,
  tangentAt,
  wholePath,
  type WholePath,
} from './wholePath';

/** Radius of the ring that rolls the copies, pixels. */
const RING = 52;
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

/** Which way along the path each key goes. */
const WAYS = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 };

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
  const path = told ? wholePath(drawn?.shown.paths ?? null, told.ahead) : null;
  if (!path || !read) return null;
  const stands = read.values.by === 'item' ? secondAlong(path, drawn?.shown.copies ?? []) : null;
  const standing = firstCopy(drawn?.shown.copies ?? []);
  return <Handles growth={growth} step={step} read={read} path={path} stands={stands} standing={standing} />;
}

interface Props {
  growth: Growth;
  step: Step;
  read: NonNullable<ReturnType<typeof useStepValues>>;
  path: WholePath;
  /** How far along the second copy stands, metres in the scene; null where there is none. */
  stands: number | null;
  /** Where the first copy stands, in the scene; null where there is none. */
  standing: Vec3 | null;
}

function Handles({ growth, step, read: { declaration, values }, path, stands, standing }: Props) {
  const { size } = useOwnSpace(growth);
  const [held, setHeld] = useState<PathHandle['name'] | null>(null);
  // Pictures come after the hand: while it drags, the copies are where they stood at first.
  const [taken, setTaken] = useState<Second | null>(null);
  const projection = useProjection.getState();
  const second = taken ?? (stands === null ? null : { at: stands / size, gap: Number(values.gap) });
  const handles = handlesOf(values, path.along.at(-1)! / size, path.closed, second).filter(({ name }) =>
    isFree(step, name),
  );
  const put = (name: PathHandle['name'] | 'roll', value: number): void =>
    setParams(growth.id, step.id, { [name]: within(declaration.params[name] as NumberParam, value) }, `handle ${name}`);
  const drag = useDrag<PathHandle['name']>({
    take(name) {
      setHeld(name);
      setTaken(second);
      return true;
    },
    move(name, { at, event }) {
      const handle = handles.find((other) => other.name === name);
      if (!handle) return;
      const value = handle.value(nearestAlong(path, at, (place) => toScreen(place, projection)) / size);
      put(name, event.shiftKey && name !== 'count' ? Math.round(value / GRID) * GRID : value);
    },
    end() {
      setHeld(null);
      setTaken(null);
    },
  });
  return (
    <Overlay role="group" label={`Handles of ${declaration.label}`}>
      {standing && isFree(step, 'roll') && (
        <TurnRings
          centre={standing}
          radius={RING}
          hue={growth.hue}
          rings={[
            {
              name: 'roll',
              label: `Roll of ${declaration.label}`,
              mark: 'Roll',
              axis: tangentAt(path, alongAt(path, standing)),
              value: Number(values.roll),
            },
          ]}
          put={(_, value) => put('roll', value)}
        />
      )}
      {handles.map(({ name, label, at, press, said }) => {
        const dot = toScreen(placeAt(path, at * size), projection);
        if (!dot) return null;
        return (
          <Knob
            key={name}
            dot={dot}
            label={label}
            of={declaration.label}
            hue={growth.hue}
            held={held === name}
            said={said(Number(values[name]))}
            onBlur={endEdit}
            onKeyDown={(event) => {
              const way = keyStep(event, WAYS);
              if (way) put(name, Number(values[name]) + way * press * (event.shiftKey ? 10 : 1));
            }}
            {...drag(name)}
          />
        );
      })}
    </Overlay>
  );
}
