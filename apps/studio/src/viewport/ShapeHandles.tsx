'use client';

import type { KeyboardEvent } from 'react';
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
import { endEdit } from '@/state/document/document';
import { useDrag } from '@/ui/drag';
import { keyStep } from '@/ui/pressed';
import { INK } from '@/ui/theme';
import { outlineOf } from './falloffOutline';
import { Grip } from './Grip';
import { NUDGES } from './nudges';
import { pathOnScreen } from './screenPath';
import { facingPlane, ontoPlane, toScreen, useProjection } from '../state/director/projection';

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
  /** Whether all it stands by is keyed at this frame; absent where it has no keys. */
  keyed?: { here: boolean; toggle: () => void };
  /** Written beside its middle. */
  name?: string;
  /** The space that it lies in; the scene's, where nothing is said. */
  space?: { toOwn: (place: Vec3) => Vec3; toWorld: (place: Vec3) => Vec3 };
}

const SCENE_SPACE = { toOwn: (place: Vec3) => place, toWorld: (place: Vec3) => place };

/**
 * A shape in space, drawn over the picture: drag its middle, its arrow, its size, or move the focused one with the arrow and Page keys; the
 * leaf sets keys.
 */
export function ShapeHandles({ of, hue, shape, change, keyed, name, space = SCENE_SPACE }: Props) {
  const { toOwn, toWorld } = space;
  // Drawn again with every picture, since the camera may have moved.
  useProjection((state) => state.drawn);
  const projection = useProjection.getState();
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

  const drag = useDrag<string>({
    move(handle, { at }) {
      const through = handles.find(([own]) => own === handle)?.[1];
      if (!through || !projection.camera) return;
      const point = ontoPlane(at.x, at.y, facingPlane(toWorld(through), projection.camera), projection);
      if (point) acts[handle](toOwn(point));
    },
  });
  const onKey = (event: KeyboardEvent, handle: string, place: Vec3): void => {
    const way = keyStep(event, NUDGES);
    if (!way) return;
    // A radius has no direction: what goes right, up or away makes it larger.
    const goes: Vec3 = handle === 'Radius' ? [way[0] + way[1] - way[2], 0, 0] : way;
    acts[handle](add(place, scale(goes, event.shiftKey ? 0.1 : 0.01)));
  };
  const onScreen = (place: Vec3) => toScreen(toWorld(place), projection);
  const lines = (out: number): string =>
    which === 'point'
      ? ''
      : outlineOf({ which, centre, rotation: turns, size, soft: 0 }, out)
          .map((line) => pathOnScreen(line.map(toWorld), projection))
          .join('');
  const [from, to] = [onScreen(centre), onScreen(arrow)];
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
        const dot = onScreen(place);
        if (!dot) return null;
        const middle = handle === 'Middle';
        return (
          <Grip
            key={handle}
            at={dot}
            label={`${handle} of ${of}`}
            r={middle ? 7 : 5.5}
            fill={middle ? hue : INK.deep}
            strokeWidth={1.8}
            onBlur={endEdit}
            onKeyDown={(event) => onKey(event, handle, place)}
            {...drag(handle)}
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
          onKeyDown={(event) => keyStep(event, { Enter: true, ' ': true }) && keyed.toggle()}
        />
      )}
    </>
  );
}
