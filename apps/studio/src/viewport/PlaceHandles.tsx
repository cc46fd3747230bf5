'use client';

import { type KeyboardEvent, type ReactNode, useState } from 'react';
import { type PerspectiveCamera, Vector3 } from 'three';
import {
  add,
  baseOf,
  cross,
  distance,
  dot,
  type Growth,
  growthPlace,
  GrowthValues,
  isFormula,
  placeOwner,
  type Resolved,
  scale,
  sub,
  turnOf,
  turnedBack,
  turnedBy,
  unit,
  type Vec3,
} from '@uvrex/core';
import { ownFrame, setParams } from '@/state/actions/valueActions';
import { endEdit, useDocument } from '@/state/document/document';
import { useView } from '@/state/document/view';
import { type Spot, useDrag } from '@/ui/drag';
import { keyStep } from '@/ui/pressed';
import { INK, MONO } from '@/ui/theme';
import { Grip } from './Grip';
import { NUDGES } from './nudges';
import { Overlay } from './Overlay';
import { facingPlane, ontoPlane, toScreen, useProjection } from './projection';
import { pathOnScreen } from './screenPath';
import { snapUnder } from './snapping';
import { within } from './within';

/** Radius of the rings on screen, pixels. */
const RING = 74;
/** With Shift, places snap to so many metres, turns to so many degrees, sizes to so much. */
const SNAPS = { move: 0.1, turn: 15, size: 0.1 } as const;

const TURNS = ['turnX', 'turnY', 'turnZ'] as const;
const MOVES = ['moveX', 'moveY', 'moveZ'] as const;

interface Held {
  /** Where the pointer took hold, in space, and the values then. */
  from: Vec3;
  values: Record<string, number>;
}

/** Where a growth stands, how it is turned and how large it is, by hand: its middle, three rings, and a dot for its size. */
export function PlaceHandles({ growth }: { growth: Growth }) {
  const frame = useView((state) => state.frame);
  const fps = useDocument((state) => state.scene.fps);
  const range = useDocument((state) => state.scene.range);
  useProjection((state) => state.drawn);
  const { camera } = useProjection.getState();
  const own = placeOwner(growth);
  let values: Resolved;
  try {
    values = new GrowthValues(growth, { fps, range }, ownFrame(growth, frame)).of(growthPlace, own);
  } catch {
    // A formula that fails is told at its field.
    return null;
  }
  return camera && <Handles growth={growth} values={values} camera={camera} />;
}

interface Props {
  growth: Growth;
  values: Resolved;
  camera: PerspectiveCamera;
}

function Handles({ growth, values, camera }: Props) {
  const [shown, setShown] = useState<string | null>(null);
  const projection = useProjection.getState();
  const own = placeOwner(growth);
  const now = Object.fromEntries([...MOVES, ...TURNS, 'scale'].map((name) => [name, Number(values[name])]));
  const free = (...names: string[]): boolean => names.every((name) => !isFormula(baseOf(own.params[name])));
  const centre: Vec3 = [now.moveX, now.moveY, now.moveZ];
  const eye = camera.position.toArray();
  const radius = (RING * 2 * distance(eye, centre) * Math.tan((camera.fov * Math.PI) / 360)) / projection.height;
  const put = (changes: Record<string, number>): void =>
    setParams(
      growth.id,
      own.id,
      Object.fromEntries(
        Object.entries(changes).map(([name, value]) => [name, within(growthPlace.params[name as 'scale'], value)]),
      ),
      `place ${Object.keys(changes).join()}`,
    );
  const right = new Vector3().setFromMatrixColumn(camera.matrixWorld, 0).toArray();

  const under = ({ x, y }: Spot): Vec3 | null => ontoPlane(x, y, facingPlane(centre, camera), projection);
  const acts: Record<string, (to: Vec3, from: Held, snap: boolean) => void> = {
    Middle: (to, { from, values: before }, snap) => {
      const by = sub(to, from);
      put(Object.fromEntries(MOVES.map((name, c) => [name, snapTo(before[name] + by[c], snap && SNAPS.move)])));
    },
    Size: (to, { from, values: before }, snap) => {
      const by = distance(to, centre) / Math.max(1e-9, distance(from, centre));
      put({ scale: snapTo(before.scale * by, snap && SNAPS.size) });
    },
  };
  for (const name of TURNS)
    acts[name] = (to, { from, values: before }, snap) => {
      // Whichever way the ring is seen from, what is dragged follows the pointer round the middle.
      const axis = axisOf(name, before);
      const facing = dot(axis, sub(eye, centre)) >= 0 ? 1 : -1;
      put({
        [name]: snapTo(
          before[name] + (facing * angleBetween(from, to, centre, camera) * 180) / Math.PI,
          snap && SNAPS.turn,
        ),
      });
    };
  const drag = useDrag<string, Held>({
    take(handle, { at }) {
      const from = under(at);
      if (from) setShown(handle);
      return from && { from, values: now };
    },
    move(handle, { at, event }, held) {
      // The middle comes onto what is under it of other growths; with Alt it goes free.
      const free = handle !== 'Middle' || event.shiftKey || event.altKey;
      const met = free ? null : snapUnder(at, growth.id, projection);
      if (met) return put(Object.fromEntries(MOVES.map((name, c) => [name, met.at[c]])));
      const to = under(at);
      if (to) acts[handle](to, held, event.shiftKey);
    },
    end: () => setShown(null),
  });
  const onKey = (event: KeyboardEvent, handle: string): void => {
    const way = keyStep(event, NUDGES);
    if (!way) return;
    const sum = way[0] + way[1] - way[2];
    if (handle === 'Middle') {
      const by = event.shiftKey ? SNAPS.move : 0.01;
      put(Object.fromEntries(MOVES.map((name, c) => [name, now[name] + by * way[c]])));
    } else if (handle === 'Size') put({ scale: now.scale * (1 + sum * (event.shiftKey ? 0.1 : 0.01)) });
    else put({ [handle]: now[handle] + sum * (event.shiftKey ? SNAPS.turn : 1) });
  };

  const dots = [
    ...(free(...MOVES)
      ? [{ handle: 'Middle', label: 'Place', at: centre, said: `${centre.map((x) => x.toFixed(2)).join(', ')} m` }]
      : []),
    ...(free('scale')
      ? [
          {
            handle: 'Size',
            label: 'Size',
            at: add(centre, scale(right, 1.3 * radius)),
            said: `${(100 * now.scale).toFixed(0)} %`,
          },
        ]
      : []),
  ];
  return (
    <Overlay role="group" label={`Place, turn and size of ${growth.name}`}>
      {TURNS.filter((name) => free(name)).map((name) => {
        const axis = axisOf(name, now);
        const ring = pathOnScreen(circle(centre, axis, radius), projection);
        const label = `Turn about ${name.slice(-1)}`;
        return (
          <g key={name}>
            <path
              d={ring}
              fill="none"
              stroke={growth.hue}
              strokeWidth={shown === name ? 2.4 : 1.4}
              opacity={shown === name ? 1 : 0.75}
            />
            <path
              d={ring}
              fill="none"
              stroke="transparent"
              strokeWidth={11}
              pointerEvents="stroke"
              cursor="grab"
              tabIndex={0}
              role="button"
              aria-label={`${label} of ${growth.name}`}
              onBlur={endEdit}
              onKeyDown={(event) => onKey(event, name)}
              {...drag(name)}
            />
            <Label place={toScreen(add(centre, scale(ringMark(axis), radius)), projection)}>
              {name.slice(-1)}
              {shown === name && ` ${now[name].toFixed(0)}°`}
            </Label>
          </g>
        );
      })}
      {dots.map(({ handle, label, at, said }) => {
        const dot = toScreen(at, projection);
        return (
          dot && (
            <g key={handle}>
              <Grip
                at={dot}
                label={`${label} of ${growth.name}`}
                r={6.5}
                fill={handle === 'Middle' ? growth.hue : INK.deep}
                stroke={shown === handle ? INK.text : growth.hue}
                onBlur={endEdit}
                onKeyDown={(event) => onKey(event, handle)}
                {...drag(handle)}
              />
              <Label place={{ x: dot.x + 11, y: dot.y - 8 }}>{shown === handle ? said : label}</Label>
            </g>
          )
        );
      })}
    </Overlay>
  );
}

function Label({ place, children }: { place: Spot | null; children: ReactNode }) {
  return (
    place && (
      <text x={place.x + 4} y={place.y + 4} fill={INK.text} fontSize={11.5} fontFamily={MONO} opacity={0.9}>
        {children}
      </text>
    )
  );
}

const snapTo = (value: number, step: number | false): number => (step ? Math.round(value / step) * step : value);

/** The axis in space that a growth turns about when one of its angles changes: what turns come after it have turned it. */
function axisOf(name: (typeof TURNS)[number], values: Readonly<Record<string, number>>): Vec3 {
  const turn = (change: number) =>
    turnOf(...(TURNS.map((other) => values[other] + (other === name ? change : 0)) as [number, number, number]));
  const [before, after] = [turn(0), turn(1)];
  // What moves most of the three directions tells it best: each goes round the axis, so the axis is square to how they move.
  const moves = (
    [
      [1, 0, 0],
      [0, 1, 0],
      [0, 0, 1],
    ] as Vec3[]
  ).map((way) => sub(turnedBy(after, way), turnedBy(before, way)));
  moves.sort((a, b) => dot(b, b) - dot(a, a));
  const axis = unit(cross(moves[0], moves[1]));
  // Its sign: a positive change turns anticlockwise seen from its tip.
  const way = Math.abs(axis[0]) < 0.9 ? ([1, 0, 0] as Vec3) : ([0, 1, 0] as Vec3);
  const side = sub(way, scale(axis, dot(axis, way)));
  const moved = sub(turnedBy(after, turnedBack(before, side)), side);
  return dot(moved, cross(axis, side)) >= 0 ? axis : scale(axis, -1);
}

/** A direction square to an axis, where its ring is named. */
function ringMark(axis: Vec3): Vec3 {
  const way: Vec3 = Math.abs(axis[1]) < 0.8 ? [0, 1, 0] : [1, 0, 0];
  return unit(sub(way, scale(axis, dot(axis, way))));
}

/** A circle about an axis, as points. */
function circle(centre: Vec3, axis: Vec3, radius: number): Vec3[] {
  const one = ringMark(axis);
  const two = cross(axis, one);
  return Array.from({ length: 65 }, (_, i) => {
    const angle = (2 * Math.PI * i) / 64;
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
