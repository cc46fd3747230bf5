'use client';

import { type KeyboardEvent, type PointerEvent, useRef } from 'react';
import {
  byAxis,
  add,
  distance,
  type FalloffShape,
  rotationOf,
  scale,
  sub,
  turnedBy,
  unit,
  type Vec3,
} from '@uvrex/core';
import { INK } from '@/ui/theme';
import { outlineOf } from './falloffOutline';
import { facingPlane, ontoPlane, toScreen, useProjection } from './projection';

/** Length of the arrow that turns a shape, metres. */
const ARROW = 0.5;

/** What dragging a handle asks for. */
export interface ShapeChange {
  centre?: Vec3;
  /** Turns about X, Y, Z, degrees. */
  rotation?: Vec3;
  radius?: number;
  size?: Vec3;
}

interface Props {
  /** What the handles are called after: “Middle of …”. */
  of: string;
  hue: string;
  shape: Omit<FalloffShape, 'which'> & { which: FalloffShape['which'] | 'point' };
  change: (change: ShapeChange) => void;
  /** Ends what is one undo. */
  done: () => void;
  /** Whether all it stands by is keyed at this frame; absent where it has no keys. */
  keyed?: { here: boolean; toggle: () => void };
  /** Written beside its middle. */
  name?: string;
}

const STEPS: Record<string, Vec3> = {
  ArrowLeft: [-1, 0, 0],
  ArrowRight: [1, 0, 0],
  ArrowUp: [0, 1, 0],
  ArrowDown: [0, -1, 0],
};

/** A shape in space, drawn over the picture: drag its middle, its arrow, its size; the leaf sets keys. */
export function ShapeHandles({ of, hue, shape, change, done, keyed, name }: Props) {
  // Drawn again with every picture, since the camera may have moved.
  useProjection((state) => state.drawn);
  const projection = useProjection.getState();
  const dragged = useRef<string | null>(null);
  const { which, centre, size, soft } = shape;
  const turns: Vec3 = which === 'ball' ? [0, 0, 0] : shape.rotation;
  const turn = rotationOf(turns);
  const arrow = add(centre, scale(turnedBy(turn, [0, 1, 0]), ARROW + (which === 'box' ? size[1] / 2 : 0)));

  const acts: Record<string, (place: Vec3) => void> = {
    Middle: (place) => change({ centre: place }),
    Direction: (place) => {
      const [x, y, z] = unit(sub(place, centre));
      change({
        rotation: scale([Math.asin(z), 0, Math.atan2(-x, y)], 180 / Math.PI),
      });
    },
    Radius: (place) => change({ radius: Math.max(0.001, distance(place, centre)) }),
    Size: (place) => {
      const half = turnedBy([-turn[0], -turn[1], -turn[2], turn[3]], sub(place, centre));
      change({ size: byAxis((c) => Math.max(0.001, 2 * Math.abs(half[c]))) });
    },
  };
  const handles: [string, Vec3][] = [['Middle', centre]];
  if (which === 'ball') handles.push(['Radius', add(centre, [size[0] / 2, 0, 0])]);
  if (which === 'box') handles.push(['Size', add(centre, turnedBy(turn, scale(size, 0.5)))]);
  if (which === 'plane' || which === 'box') handles.push(['Direction', arrow]);

  const onMove = (event: PointerEvent<SVGElement>, handle: string, through: Vec3): void => {
    if (dragged.current !== handle || !projection.camera) return;
    const box = event.currentTarget.ownerSVGElement!.getBoundingClientRect();
    const plane = facingPlane(through, projection.camera);
    const point = ontoPlane(event.clientX - box.left, event.clientY - box.top, plane, projection);
    if (point) acts[handle](point);
  };
  const onKey = (event: KeyboardEvent): void => {
    const step = STEPS[event.key];
    if (!step) return;
    event.preventDefault();
    event.stopPropagation();
    change({ centre: add(centre, scale(step, event.shiftKey ? 0.1 : 0.01)) });
  };
  const lines = (out: number): string =>
    which === 'point'
      ? ''
      : outlineOf({ which, centre, rotation: turns, size, soft: 0 }, out)
          .map((line) =>
            line
              .flatMap((point, i) => {
                const dot = toScreen(point, projection);
                return dot ? [`${i === 0 ? 'M' : 'L'}${dot.x.toFixed(1)} ${dot.y.toFixed(1)}`] : [];
              })
              .join(''),
          )
          .join('');
  const [from, to] = [toScreen(centre, projection), toScreen(arrow, projection)];
  return (
    <>
      <path d={lines(0)} fill="none" stroke={hue} strokeWidth={1.6} opacity={0.9} />
      {soft > 0 &&
        [1, -1].map((side) => (
          <path
            key={side}
            d={lines((side * soft) / 2)}
            fill="none"
            stroke={hue}
            strokeWidth={1}
            strokeDasharray="3 5"
            opacity={0.5}
          />
        ))}
      {(which === 'plane' || which === 'box') && from && to && (
        <line x1={from.x} y1={from.y} x2={to.x} y2={to.y} stroke={INK.text} strokeWidth={1.4} />
      )}
      {handles.map(([handle, place]) => {
        const dot = toScreen(place, projection);
        if (!dot) return null;
        const middle = handle === 'Middle';
        return (
          <circle
            key={handle}
            cx={dot.x}
            cy={dot.y}
            r={middle ? 7 : 5.5}
            tabIndex={0}
            role="button"
            aria-label={`${handle} of ${of}`}
            fill={middle ? hue : INK.deep}
            stroke={INK.text}
            strokeWidth={1.8}
            pointerEvents="all"
            cursor="grab"
            onKeyDown={onKey}
            onPointerDown={(event) => {
              event.currentTarget.setPointerCapture(event.pointerId);
              event.currentTarget.focus();
              dragged.current = handle;
            }}
            onPointerMove={(event) => onMove(event, handle, place)}
            onPointerUp={() => {
              dragged.current = null;
              done();
            }}
            onPointerCancel={() => {
              dragged.current = null;
              done();
            }}
          />
        );
      })}
      {from && name && (
        <text x={from.x + (keyed ? 36 : 14)} y={from.y + 4} fill={INK.text} fontSize={12}>
          {name}
        </text>
      )}
      {from && keyed && (
        <path
          d={`M${from.x + 16} ${from.y + 4}c-1-9 6-14 14-13 1 8-5 14-14 13z`}
          role="button"
          tabIndex={0}
          aria-label={keyed.here ? `Take the keys of ${of} here` : `Set keys of ${of} here`}
          aria-pressed={keyed.here}
          fill={keyed.here ? INK.front : INK.deep}
          stroke={INK.front}
          strokeWidth={1.5}
          pointerEvents="all"
          cursor="pointer"
          onClick={keyed.toggle}
          onKeyDown={(event) => {
            if (event.key !== 'Enter' && event.key !== ' ') return;
            event.preventDefault();
            event.stopPropagation();
            keyed.toggle();
          }}
        />
      )}
    </>
  );
}
