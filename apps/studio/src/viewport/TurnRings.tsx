'use client';

import { type KeyboardEvent, useState } from 'react';
import { add, cross, distance, dot, scale, sub, unit, type Vec3 } from '@uvrex/core';
import { endEdit } from '@/state/document/document';
import { useDrag } from '@/ui/drag';
import { keyStep } from '@/ui/pressed';
import { HandleLabel } from './HandleLabel';
import { NUDGES } from './nudges';
import { facingPlane, ontoPlane, toScreen, useProjection } from '../state/director/projection';
import { pathOnScreen } from './screenPath';

/** With Shift, turns snap to so many degrees. */
const SNAP = 15;

/** Points of a ring, and how many of them the names of two rings are apart, so that they do not lie over each other. */
const POINTS = 64;
const MARK_APART = 7;

/** An angle that is turned by hand. */
export interface Ring<Name extends string> {
  name: Name;
  /** What it is called for screen readers. */
  label: string;
  /** What is written at it. */
  mark: string;
  /** Unit vector that a positive turn goes anticlockwise about. */
  axis: Vec3;
  /** Degrees. */
  value: number;
}

interface Props<Name extends string> {
  centre: Vec3;
  /** On screen, pixels. */
  radius: number;
  rings: readonly Ring<Name>[];
  hue: string;
  put: (name: Name, value: number) => void;
}

/** Metres that so many pixels take at a place, in the picture that is drawn. */
export function metresOf(pixels: number, place: Vec3): number {
  const { camera, height } = useProjection.getState();
  if (!camera) return 0;
  return (pixels * 2 * distance(camera.position.toArray(), place) * Math.tan((camera.fov * Math.PI) / 360)) / height;
}

/** Rings round a place, each of which turns one angle: by dragging it round, or with the arrow keys. */
export function TurnRings<Name extends string>({ centre, radius, rings, hue, put }: Props<Name>) {
  const [shown, setShown] = useState<Name | null>(null);
  const projection = useProjection.getState();
  const { camera } = projection;
  const reach = metresOf(radius, centre);
  const drag = useDrag<Name, { from: Vec3; value: number }>({
    take(name, { at }) {
      const from = camera && ontoPlane(at.x, at.y, facingPlane(centre, camera), projection);
      const ring = rings.find((one) => one.name === name);
      if (!from || !ring) return null;
      setShown(name);
      return { from, value: ring.value };
    },
    move(name, { at, event }, { from, value }) {
      const to = camera && ontoPlane(at.x, at.y, facingPlane(centre, camera), projection);
      const ring = rings.find((one) => one.name === name);
      if (!to || !ring) return;
      // Whichever way the ring is seen from, what is dragged follows the pointer round the middle.
      const facing = dot(ring.axis, sub(camera.position.toArray(), centre)) >= 0 ? 1 : -1;
      const next = value + (facing * angleBetween(from, to, centre, camera) * 180) / Math.PI;
      put(name, event.shiftKey ? Math.round(next / SNAP) * SNAP : next);
    },
    end: () => setShown(null),
  });
  const onKey = (event: KeyboardEvent, { name, value }: Ring<Name>): void => {
    const way = keyStep(event, NUDGES);
    if (way) put(name, value + (way[0] + way[1] - way[2]) * (event.shiftKey ? SNAP : 1));
  };
  return rings.map((ring, k) => {
    const { name, label, mark, axis, value } = ring;
    const points = circle(centre, axis, reach);
    const path = pathOnScreen(points, projection);
    const held = shown === name;
    return (
      <g key={name}>
        <path d={path} fill="none" stroke={hue} strokeWidth={held ? 2.4 : 1.4} opacity={held ? 1 : 0.75} />
        <path
          d={path}
          fill="none"
          stroke="transparent"
          strokeWidth={11}
          pointerEvents="stroke"
          cursor="grab"
          tabIndex={0}
          role="button"
          aria-label={label}
          onBlur={endEdit}
          onKeyDown={(event) => onKey(event, ring)}
          {...drag(name)}
        />
        <HandleLabel place={toScreen(points[k * MARK_APART], projection)}>
          {mark}
          {held && ` ${value.toFixed(0)}°`}
        </HandleLabel>
      </g>
    );
  });
}

/** A direction square to an axis, where its ring begins. */
function ringBegin(axis: Vec3): Vec3 {
  const way: Vec3 = Math.abs(axis[1]) < 0.8 ? [0, 1, 0] : [1, 0, 0];
  return unit(sub(way, scale(axis, dot(axis, way))));
}

/** A circle about an axis, as points. */
function circle(centre: Vec3, axis: Vec3, radius: number): Vec3[] {
  const one = ringBegin(axis);
  const two = cross(axis, one);
  return Array.from({ length: POINTS + 1 }, (_, i) => {
    const angle = (2 * Math.PI * i) / POINTS;
    return add(centre, add(scale(one, radius * Math.cos(angle)), scale(two, radius * Math.sin(angle))));
  });
}

/** How far the pointer has gone round the middle, as it is seen, radians, anticlockwise. */
function angleBetween(
  from: Vec3,
  to: Vec3,
  centre: Vec3,
  camera: { matrixWorld: { elements: readonly number[] } },
): number {
  const e = camera.matrixWorld.elements;
  const seen = (place: Vec3): number => {
    const way = sub(place, centre);
    return Math.atan2(dot(way, [e[4], e[5], e[6]]), dot(way, [e[0], e[1], e[2]]));
  };
  const by = seen(to) - seen(from);
  return by - 2 * Math.PI * Math.round(by / (2 * Math.PI));
}
