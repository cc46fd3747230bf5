'use client';

import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react';
import {
  baseOf,
  type Growth,
  GrowthValues,
  isFormula,
  isVaried,
  type NumberParam,
  type Resolved,
  type Step,
  stepOf,
  type Vec3,
} from '@uvrex/core';
import { type Handle, HANDLES } from '@uvrex/core/handles';
import { ownFrame, setParams } from '@/state/actions';
import { endEdit, useDocument } from '@/state/document';
import { useView } from '@/state/view';
import { INK, MONO } from '@/ui/theme';
import { NUDGES } from './nudges';
import { Overlay } from './Overlay';
import { useOwnSpace } from './ownSpace';
import { facingPlane, ontoPlane, toScreen, useProjection } from './projection';

/** With Shift, places snap to so many metres; and near the ground always to it. */
const GRID = 0.1;
const GROUND = 0.03;

const snapped = (place: Vec3, grid: boolean): Vec3 =>
  place.map((x, c) => {
    if (grid) return Math.round(x / GRID) * GRID;
    return c === 1 && Math.abs(x) < GROUND ? 0 : x;
  }) as unknown as Vec3;

/** What the open start of a growth is taken hold of by: its ends, radius, height, place. Arrows and Page keys move the focused one. */
export function StartHandles({ growth, step }: { growth: Growth; step: Step }) {
  const frame = useView((state) => state.frame);
  const fps = useDocument((state) => state.scene.fps);
  const range = useDocument((state) => state.scene.range);
  useProjection((state) => state.drawn);
  const { toOwn, toWorld } = useOwnSpace(growth);
  const dragged = useRef<string | null>(null);
  const [held, setHeld] = useState<string | null>(null);
  const projection = useProjection.getState();
  const declaration = stepOf(step.kind)!;
  let values: Resolved;
  try {
    values = new GrowthValues(growth, { fps, range }, ownFrame(growth, frame)).of(declaration, step);
  } catch {
    // A formula that fails is told at its field.
    return null;
  }
  // What a formula or a variation says is not dragged.
  const free = (name: string): boolean => !isVaried(step.params[name]) && !isFormula(baseOf(step.params[name]));
  const handles = HANDLES[step.kind](values).filter(({ at, set }) => Object.keys(set(at)).every(free));

  const put = ({ label, set }: Handle, place: Vec3): void => {
    const next = Object.entries(set(place)).map(([name, value]) => {
      const { min, max } = declaration.params[name] as NumberParam;
      return [name, Math.round(Math.min(max, Math.max(min, value)) * 1e4) / 1e4] as const;
    });
    setParams(growth.id, step.id, Object.fromEntries(next), `handle ${label}`);
  };
  const onMove = (event: PointerEvent<SVGElement>, handle: Handle): void => {
    if (dragged.current !== handle.label || !projection.camera) return;
    const box = event.currentTarget.ownerSVGElement!.getBoundingClientRect();
    const plane = facingPlane(toWorld(handle.at), projection.camera);
    const point = ontoPlane(event.clientX - box.left, event.clientY - box.top, plane, projection);
    if (point) put(handle, toOwn(snapped(point, event.shiftKey)));
  };
  const release = (): void => {
    dragged.current = null;
    setHeld(null);
    endEdit();
  };
  const onKey = (event: KeyboardEvent, handle: Handle): void => {
    const way = NUDGES[event.key];
    if (!way) return;
    event.preventDefault();
    event.stopPropagation();
    const by = event.shiftKey ? GRID : 0.01;
    put(handle, handle.at.map((x, c) => x + by * way[c]) as unknown as Vec3);
  };
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
          <g key={handle.label}>
            <circle
              cx={dot.x}
              cy={dot.y}
              r={6}
              tabIndex={0}
              role="button"
              aria-label={`${handle.label} of ${declaration.label}`}
              fill={INK.deep}
              stroke={held === handle.label ? INK.text : growth.hue}
              strokeWidth={2}
              pointerEvents="all"
              cursor="grab"
              onKeyDown={(event) => onKey(event, handle)}
              onPointerDown={(event) => {
                event.currentTarget.setPointerCapture(event.pointerId);
                event.currentTarget.focus();
                dragged.current = handle.label;
                setHeld(handle.label);
              }}
              onPointerMove={(event) => onMove(event, handle)}
              onPointerUp={release}
              onPointerCancel={release}
              onBlur={endEdit}
            />
            <text
              x={dot.x + (left ? -11 : 11)}
              y={dot.y + 4}
              textAnchor={left ? 'end' : 'start'}
              fill={INK.text}
              fontSize={11.5}
              opacity={0.85}
            >
              {handle.label}
              {held === handle.label && (
                <tspan dx={6} fontFamily={MONO}>
                  {said.join(', ')} m
                </tspan>
              )}
            </text>
          </g>
        );
      })}
    </Overlay>
  );
}
