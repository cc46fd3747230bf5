'use client';

import Box from '@mui/material/Box';
import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react';
import { Vector3 } from 'three';
import { type Anchor, at, catmullRom, distance, type Growth, type Step, type Vec3 } from '@uvrex/core';
import { setParam } from '@/state/actions';
import { endEdit } from '@/state/document';
import { INK } from '@/ui/theme';
import { useOwnSpace } from './ownSpace';
import { facingPlane, ontoPlane, toScreen, useProjection } from './projection';
import { snapUnder, toTenthMillimetre } from './snapping';

const PER_SEGMENT = 16;

/**
 * The anchors of the drawn path whose step is open: drag to move, double-click the line to add one, Delete to remove
 * the focused one, arrow keys to nudge it.
 */
export function AnchorHandles({ growth, step }: { growth: Growth; step: Step }) {
  return (
    <Handles
      growth={growth}
      step={step.id}
      anchors={step.params.anchors as Anchor[]}
      closed={step.params.closed === true}
    />
  );
}

const placeOf = ([x, y, z]: Anchor): Vec3 => [x, y, z];

interface Props {
  growth: Growth;
  step: string;
  anchors: Anchor[];
  closed: boolean;
}

function Handles({ growth, step, anchors, closed }: Props) {
  const { hue } = growth;
  const { toOwn, toWorld } = useOwnSpace(growth);
  // Drawn again with every picture, since the camera may have moved.
  useProjection((state) => state.drawn);
  const projection = useProjection.getState();
  const dragged = useRef<number | null>(null);
  const [focused, setFocused] = useState<number | null>(null);

  const set = (next: Anchor[], merge: string | null = null): void => setParam(growth.id, step, 'anchors', next, merge);
  /** Where in the growth's own space the pointer is, as far off as a place of it; on another growth where `snaps`. */
  const place = (event: PointerEvent | React.MouseEvent, through: Vec3, snaps = false): Vec3 | null => {
    const box = (event.currentTarget as SVGElement).ownerSVGElement!.getBoundingClientRect();
    if (!projection.camera) return null;
    const [x, y] = [event.clientX - box.left, event.clientY - box.top];
    const met = snaps && !event.altKey ? snapUnder({ x, y }, growth.id, projection) : null;
    const point = met?.at ?? ontoPlane(x, y, facingPlane(toWorld(through), projection.camera), projection);
    return point && toTenthMillimetre(toOwn(point));
  };
  /** An anchor elsewhere: its size and lean stay. */
  const replace = (i: number, [x, y, z]: Vec3): Anchor[] =>
    anchors.map((anchor, k) => (k === i ? ([x, y, z, ...anchor.slice(3)] as unknown as Anchor) : anchor));

  const onKey = (event: KeyboardEvent, i: number): void => {
    if (event.key === 'Delete' || event.key === 'Backspace') {
      event.stopPropagation();
      event.preventDefault();
      if (anchors.length > 2) set(anchors.filter((_, k) => k !== i));
      return;
    }
    const nudge = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[event.key];
    if (!nudge || !projection.camera) return;
    event.preventDefault();
    event.stopPropagation();
    const [right, up] = [new Vector3(), new Vector3()];
    projection.camera.matrixWorld.extractBasis(right, up, new Vector3());
    const by = event.shiftKey ? 0.1 : 0.01;
    const moved = new Vector3(...toWorld(placeOf(anchors[i])))
      .addScaledVector(right, nudge[0] * by)
      .addScaledVector(up, nudge[1] * by);
    set(replace(i, toOwn([moved.x, moved.y, moved.z])), 'nudge');
  };

  const curve =
    anchors.length > 1
      ? catmullRom(anchors.flatMap(placeOf), PER_SEGMENT, closed && anchors.length > 2)
      : new Float64Array();
  const dots = Array.from({ length: curve.length / 3 }, (_, i) => toScreen(toWorld(at(curve, i)), projection));
  const line = dots.flatMap((dot) => (dot ? [`${dot.x.toFixed(1)},${dot.y.toFixed(1)}`] : [])).join(' ');

  /** Puts an anchor in where the line was double-clicked. */
  const insert = (event: React.MouseEvent): void => {
    const box = (event.currentTarget as SVGElement).ownerSVGElement!.getBoundingClientRect();
    const [x, y] = [event.clientX - box.left, event.clientY - box.top];
    const near = dots.map((dot) => (dot ? Math.hypot(dot.x - x, dot.y - y) : Infinity));
    const nearest = near.indexOf(Math.min(...near));
    const segment = Math.min(Math.floor(nearest / PER_SEGMENT), closed ? anchors.length - 1 : anchors.length - 2);
    const point = place(event, at(curve, nearest));
    if (point && anchors.every((anchor) => distance(placeOf(anchor), point) > 1e-4))
      set([...anchors.slice(0, segment + 1), point, ...anchors.slice(segment + 1)]);
  };

  return (
    <Box
      component="svg"
      aria-label="Anchors"
      role="group"
      sx={{ position: 'absolute', inset: 0, width: '100%', height: '100%', pointerEvents: 'none' }}
    >
      <polyline points={line} fill="none" stroke={hue} strokeWidth={1.2} strokeDasharray="3 4" opacity={0.8} />
      <polyline
        points={line}
        fill="none"
        stroke="transparent"
        strokeWidth={14}
        pointerEvents="stroke"
        cursor="copy"
        data-testid="anchor-line"
        onDoubleClick={insert}
      />
      {anchors.map((anchor, i) => {
        const dot = toScreen(toWorld(placeOf(anchor)), projection);
        if (!dot) return null;
        return (
          <circle
            key={i}
            cx={dot.x}
            cy={dot.y}
            r={focused === i ? 7 : 5.5}
            tabIndex={0}
            role="button"
            aria-label={`Anchor ${i + 1} of ${anchors.length}`}
            fill={focused === i ? INK.front : INK.deep}
            stroke={focused === i ? INK.text : hue}
            strokeWidth={2}
            pointerEvents="all"
            cursor="grab"
            onFocus={() => setFocused(i)}
            onBlur={() => setFocused(null)}
            onKeyDown={(event) => onKey(event, i)}
            onPointerDown={(event) => {
              event.currentTarget.setPointerCapture(event.pointerId);
              event.currentTarget.focus();
              dragged.current = i;
            }}
            onPointerMove={(event) => {
              if (dragged.current !== i) return;
              const point = place(event, placeOf(anchor), true);
              if (point) set(replace(i, point), 'anchor');
            }}
            onPointerUp={() => {
              dragged.current = null;
              endEdit();
            }}
            onPointerCancel={() => {
              dragged.current = null;
              endEdit();
            }}
          />
        );
      })}
    </Box>
  );
}
