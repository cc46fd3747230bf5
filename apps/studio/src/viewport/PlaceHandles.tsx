'use client';

import { type KeyboardEvent, useState } from 'react';
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
import { INK } from '@/ui/theme';
import { Grip } from './Grip';
import { HandleLabel } from './HandleLabel';
import { NUDGES } from './nudges';
import { Overlay } from './Overlay';
import { facingPlane, ontoPlane, toScreen, useProjection } from '../state/director/projection';
import { snapUnder } from './snapping';
import { metresOf, TurnRings } from './TurnRings';
import { within } from './within';

/** Radius of the rings on screen, pixels. */
const RING = 74;
/** With Shift, places snap to so many metres, sizes to so much. */
const SNAPS = { move: 0.1, size: 0.1 } as const;

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
  const radius = metresOf(RING, centre);
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
    if (handle === 'Middle') {
      const by = event.shiftKey ? SNAPS.move : 0.01;
      put(Object.fromEntries(MOVES.map((name, c) => [name, now[name] + by * way[c]])));
    } else put({ scale: now.scale * (1 + (way[0] + way[1] - way[2]) * (event.shiftKey ? 0.1 : 0.01)) });
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
      <TurnRings
        centre={centre}
        radius={RING}
        hue={growth.hue}
        rings={TURNS.filter((name) => free(name)).map((name) => ({
          name,
          label: `Turn about ${name.slice(-1)} of ${growth.name}`,
          mark: name.slice(-1),
          axis: axisOf(name, now),
          value: now[name],
        }))}
        put={(name, value) => put({ [name]: value })}
      />
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
              <HandleLabel place={{ x: dot.x + 11, y: dot.y - 8 }}>{shown === handle ? said : label}</HandleLabel>
            </g>
          )
        );
      })}
    </Overlay>
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
