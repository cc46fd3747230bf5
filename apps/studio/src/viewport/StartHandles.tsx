'use client';

import { useState } from 'react';
import { add, byAxis, type Growth, type NumberParam, scale, type Step, type Vec3 } from '@uvrex/core';
import { type Handle, HANDLES } from '@uvrex/core/handles';
import { setParams } from '@/state/actions/valueActions';
import { endEdit } from '@/state/document/document';
import { useDrag } from '@/ui/drag';
import { keyStep } from '@/ui/pressed';
import { Knob } from './Knob';
import { NUDGES } from './nudges';
import { Overlay } from './Overlay';
import { useOwnSpace } from './ownSpace';
import { facingPlane, ontoPlane, toScreen, useProjection } from '../state/director/projection';
import { snapUnder } from './snapping';
import { isFree, useStepValues } from './stepValues';
import { within } from './within';

/** With Shift, places snap to so many metres; and near the ground always to it. */
const GRID = 0.1;
const GROUND = 0.03;

const snapped = (place: Vec3, grid: boolean): Vec3 =>
  byAxis((c) => {
    if (grid) return Math.round(place[c] / GRID) * GRID;
    return c === 1 && Math.abs(place[c]) < GROUND ? 0 : place[c];
  });

/** What the open start of a growth is taken hold of by: its ends, radius, height, place. Arrows and Page keys move the focused one. */
export function StartHandles({ growth, step }: { growth: Growth; step: Step }) {
  const read = useStepValues(growth, step);
  return read && <Handles growth={growth} step={step} read={read} />;
}

interface Props {
  growth: Growth;
  step: Step;
  read: NonNullable<ReturnType<typeof useStepValues>>;
}

function Handles({ growth, step, read: { declaration, values } }: Props) {
  useProjection((state) => state.drawn);
  const { toOwn, toWorld } = useOwnSpace(growth);
  const [held, setHeld] = useState<string | null>(null);
  /** What the held one has snapped to. */
  const [met, setMet] = useState<string | null>(null);
  const projection = useProjection.getState();
  const handles = HANDLES[step.kind](values).filter(({ at, set }) =>
    Object.keys(set(at)).every((name) => isFree(step, name)),
  );

  const put = ({ label, set }: Handle, place: Vec3): void => {
    const next = Object.entries(set(place)).map(([name, value]) => [
      name,
      within(declaration.params[name] as NumberParam, value),
    ]);
    setParams(growth.id, step.id, Object.fromEntries(next), `handle ${label}`);
  };
  const drag = useDrag<string>({
    take(label) {
      setHeld(label);
      return true;
    },
    move(label, { at, event: { shiftKey, altKey } }) {
      const handle = handles.find((other) => other.label === label);
      if (!handle || !projection.camera) return;
      // A whole place meets what is under it of other growths; with Alt it goes free.
      const met =
        Object.keys(handle.set(handle.at)).length === 3 && !shiftKey && !altKey
          ? snapUnder(at, growth.id, projection)
          : null;
      setMet(met?.to ?? null);
      const point = met?.at ?? ontoPlane(at.x, at.y, facingPlane(toWorld(handle.at), projection.camera), projection);
      if (point) put(handle, toOwn(met || altKey ? point : snapped(point, shiftKey)));
    },
    end() {
      setHeld(null);
      setMet(null);
    },
  });
  const dots = handles.map(({ at }) => toScreen(toWorld(at), projection));
  return (
    <Overlay role="group" label={`Handles of ${declaration.label}`}>
      {handles.map((handle, i) => {
        const dot = dots[i];
        if (!dot) return null;
        // Where another stands in the way of its name, that is on the other side.
        const left = dots.some((other, k) => {
          const [across, down] = other && k !== i ? [other.x - dot.x, other.y - dot.y] : [0, 0];
          return across > 0 && across < 80 && Math.abs(down) < 14;
        });
        const said = Object.values(handle.set(handle.at)).map((value) => value.toFixed(2));
        return (
          <Knob
            key={handle.label}
            dot={dot}
            label={handle.label}
            of={declaration.label}
            hue={growth.hue}
            held={held === handle.label}
            said={`${said.join(', ')} m${met ? `, on ${met}` : ''}`}
            left={left}
            onBlur={endEdit}
            onKeyDown={(event) => {
              const way = keyStep(event, NUDGES);
              if (way) put(handle, add(handle.at, scale(way, event.shiftKey ? GRID : 0.01)));
            }}
            {...drag(handle.label)}
          />
        );
      })}
    </Overlay>
  );
}
