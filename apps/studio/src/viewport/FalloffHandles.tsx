'use client';

import Box from '@mui/material/Box';
import { type KeyboardEvent, type PointerEvent, useRef } from 'react';
import {
  add,
  baseOf,
  distance,
  type Growth,
  GrowthValues,
  isTrack,
  type NumberParam,
  type Resolved,
  rotationOf,
  scale,
  type Step,
  stepOf,
  sub,
  turnedBy,
  unit,
  type Vec3,
} from '@uvrex/core';
import { setParams, toggleKeys } from '@/state/actions';
import { endEdit, growthIn, useDocument } from '@/state/document';
import { useView } from '@/state/view';
import { INK } from '@/ui/theme';
import { outlineOf } from './falloffOutline';
import { facingPlane, ontoPlane, toScreen, useProjection } from './projection';

const PLACE = ['atX', 'atY', 'atZ'] as const;
const TURN = ['turnX', 'turnY', 'turnZ'] as const;
/** Length of the arrow that turns a shape, metres. */
const ARROW = 0.5;

/** The shape of the falloff whose step is open: drag its middle, its arrow, its size; the leaf sets keys. */
export function FalloffHandles() {
  const scene = useDocument((state) => state.scene);
  const growth = useView((state) => growthIn(scene, state.growth));
  const openSteps = useView((state) => state.openSteps);
  const frame = useView((state) => state.frame);
  const busy = useView((state) => state.tool === 'draw' || state.playing);
  const step = growth?.steps.find(({ id, kind, on }) => kind === 'falloff' && on && openSteps.includes(id));
  if (!growth || !step || busy) return null;
  let values: Resolved;
  try {
    values = new GrowthValues(growth, scene, frame - growth.shift).of(stepOf('falloff')!, step);
  } catch {
    // A formula that fails is told at its field.
    return null;
  }
  if (!['plane', 'ball', 'box'].includes(String(values.shape))) return null;
  return <Handles growth={growth} step={step} values={values} />;
}

function Handles({ growth, step, values }: { growth: Growth; step: Step; values: Resolved }) {
  // Drawn again with every picture, since the camera may have moved.
  useProjection((state) => state.drawn);
  const projection = useProjection.getState();
  const dragged = useRef<string | null>(null);
  const of = (name: string): number => Number(values[name]);
  const shape = String(values.shape);
  const centre: Vec3 = [of('atX'), of('atY'), of('atZ')];
  const turns: Vec3 = shape === 'ball' ? [0, 0, 0] : [of('turnX'), of('turnY'), of('turnZ')];
  const turn = rotationOf(turns);
  const size: Vec3 = [of('sizeX'), of('sizeY'), of('sizeZ')];
  const arrow = add(centre, scale(turnedBy(turn, [0, 1, 0]), ARROW + (shape === 'box' ? size[1] / 2 : 0)));
  const corner = add(centre, turnedBy(turn, scale(size, 0.5)));
  const rim = add(centre, [of('radius'), 0, 0]);

  const set = (names: readonly string[], to: readonly number[], merge: string): void =>
    setParams(
      growth.id,
      step.id,
      Object.fromEntries(names.map((name, i) => [name, Math.round(to[i] * 1e4) / 1e4])),
      merge,
    );
  const acts: Record<string, (place: Vec3) => void> = {
    middle: (place) => set(PLACE, place, 'falloff'),
    arrow: (place) => {
      const [x, y, z] = unit(sub(place, centre));
      set(
        TURN,
        [Math.asin(z), 0, Math.atan2(-x, y)].map((angle) => (angle * 180) / Math.PI),
        'falloff turn',
      );
    },
    rim: (place) => set(['radius'], [Math.max(0.001, distance(place, centre))], 'falloff size'),
    corner: (place) => {
      const back = [-turn[0], -turn[1], -turn[2], turn[3]] as const;
      const half = turnedBy(back, sub(place, centre));
      set(
        ['sizeX', 'sizeY', 'sizeZ'],
        half.map((x) => Math.max(0.001, 2 * Math.abs(x))),
        'falloff size',
      );
    },
  };
  const onMove = (event: PointerEvent<SVGElement>, name: string, through: Vec3): void => {
    if (dragged.current !== name || !projection.camera) return;
    const box = event.currentTarget.ownerSVGElement!.getBoundingClientRect();
    const plane = facingPlane(through, projection.camera);
    const point = ontoPlane(event.clientX - box.left, event.clientY - box.top, plane, projection);
    if (point) acts[name](point);
  };
  const onKey = (event: KeyboardEvent): void => {
    const nudge = (
      { ArrowLeft: [-1, 0, 0], ArrowRight: [1, 0, 0], ArrowUp: [0, 1, 0], ArrowDown: [0, -1, 0] } as Record<
        string,
        Vec3
      >
    )[event.key];
    if (!nudge) return;
    event.preventDefault();
    event.stopPropagation();
    acts.middle(add(centre, scale(nudge, event.shiftKey ? 0.1 : 0.01)));
  };

  const keyed = shape === 'ball' ? [...PLACE, 'radius'] : shape === 'box' ? [...PLACE, ...TURN] : [...PLACE, ...TURN];
  const keyHere = keyed.every((name) => {
    const track = baseOf(step.params[name]);
    return isTrack(track) && track.keys.some(({ frame }) => frame === useView.getState().frame - growth.shift);
  });
  const specs = stepOf('falloff')!.params as Record<string, NumberParam>;
  const handles: [string, Vec3, string][] = [
    ['middle', centre, 'Middle of the falloff'],
    ...(shape === 'ball' ? [['rim', rim, 'Radius of the falloff'] as [string, Vec3, string]] : []),
    ...(shape === 'box' ? [['corner', corner, 'Size of the falloff'] as [string, Vec3, string]] : []),
    ...(shape === 'ball' ? [] : [['arrow', arrow, 'Direction of the falloff'] as [string, Vec3, string]]),
  ];
  const [from, to] = [toScreen(centre, projection), toScreen(arrow, projection)];
  const lines = (soft: number): string =>
    outlineOf(
      {
        which: shape as 'plane',
        centre,
        rotation: turns,
        size: shape === 'ball' ? [2 * of('radius'), 0, 0] : size,
        soft: 0,
      },
      soft,
    )
      .map((line) =>
        line
          .flatMap((point, i) => {
            const dot = toScreen(point, projection);
            return dot ? [`${i === 0 ? 'M' : 'L'}${dot.x.toFixed(1)} ${dot.y.toFixed(1)}`] : [];
          })
          .join(''),
      )
      .join('');
  return (
    <Box
      component="svg"
      role="group"
      aria-label="Falloff"
      sx={{ position: 'absolute', inset: 0, width: '100%', height: '100%', pointerEvents: 'none' }}
    >
      <path d={lines(0)} fill="none" stroke={growth.hue} strokeWidth={1.6} opacity={0.9} />
      {of('soft') > 0 &&
        [1, -1].map((side) => (
          <path
            key={side}
            d={lines((side * of('soft')) / 2)}
            fill="none"
            stroke={growth.hue}
            strokeWidth={1}
            strokeDasharray="3 5"
            opacity={0.5}
          />
        ))}
      {shape !== 'ball' && from && to && (
        <line x1={from.x} y1={from.y} x2={to.x} y2={to.y} stroke={INK.text} strokeWidth={1.4} />
      )}
      {handles.map(([name, place, label]) => {
        const dot = toScreen(place, projection);
        if (!dot) return null;
        return (
          <circle
            key={name}
            cx={dot.x}
            cy={dot.y}
            r={name === 'middle' ? 7 : 5.5}
            tabIndex={0}
            role="button"
            aria-label={label}
            fill={name === 'middle' ? growth.hue : INK.deep}
            stroke={INK.text}
            strokeWidth={1.8}
            pointerEvents="all"
            cursor="grab"
            onKeyDown={onKey}
            onPointerDown={(event) => {
              event.currentTarget.setPointerCapture(event.pointerId);
              event.currentTarget.focus();
              dragged.current = name;
            }}
            onPointerMove={(event) => onMove(event, name, place)}
            onPointerUp={() => {
              dragged.current = null;
              endEdit();
            }}
          />
        );
      })}
      {from && (
        <path
          d={`M${from.x + 16} ${from.y + 4}c-1-9 6-14 14-13 1 8-5 14-14 13z`}
          role="button"
          tabIndex={0}
          aria-label={keyHere ? 'Take the keys of the falloff here' : 'Set keys of the falloff here'}
          aria-pressed={keyHere}
          fill={keyHere ? INK.front : INK.deep}
          stroke={INK.front}
          strokeWidth={1.5}
          pointerEvents="all"
          cursor="pointer"
          onClick={() => toggleKeys(growth.id, step.id, keyed, specs)}
          onKeyDown={(event) => {
            if (event.key !== 'Enter' && event.key !== ' ') return;
            event.preventDefault();
            event.stopPropagation();
            toggleKeys(growth.id, step.id, keyed, specs);
          }}
        />
      )}
    </Box>
  );
}
