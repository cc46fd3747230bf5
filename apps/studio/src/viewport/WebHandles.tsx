'use client';

import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react';
import { at, type Growth, isVaried, type Step, sub, type Vec3 } from '@uvrex/core';
import { withLink, withMoved } from '@uvrex/core/webs';
import { setParam } from '@/state/actions';
import { endEdit } from '@/state/document';
import { useResults } from '@/state/results';
import { INK } from '@/ui/theme';
import { sayProblem } from '@/ui/Toasts';
import { Overlay } from './Overlay';
import { useOwnSpace } from './ownSpace';
import { facingPlane, ontoPlane, toScreen, useProjection } from './projection';

/** Pixels that a pointer may move in a click. */
const STILL = 4;
/** Nodes that are taken hold of at most: more would hide the web. */
const MOST = 400;

/** The nodes of the open web: dragged they move, clicked one after the other they are linked, or no more. */
export function WebHandles({ growth, step }: { growth: Growth; step: Step }) {
  const shown = useResults(({ onScreen }) => onScreen.find(({ id }) => id === growth.id)?.shown);
  useProjection((state) => state.drawn);
  const { toOwn } = useOwnSpace(growth);
  const [first, setFirst] = useState<number | null>(null);
  const drag = useRef<{ node: number; from: Vec3; moved: string; x: number; y: number; going: boolean } | null>(null);
  const projection = useProjection.getState();
  if (!shown?.dots || !shown.dotIds || shown.dotIds.length > MOST) return null;
  const text = (name: 'own' | 'moved'): string => {
    const value = step.params[name];
    return typeof value === 'string' && !isVaried(value) ? value : '';
  };
  const set = (name: 'own' | 'moved', value: () => string): void => {
    try {
      setParam(growth.id, step.id, name, value(), 'drag');
    } catch (error) {
      // A row that is typed wrongly is told at its field, and first.
      sayProblem(error);
    }
  };
  const choose = (node: number): void => {
    if (first === null || first === node) {
      setFirst(first === node ? null : node);
      return;
    }
    set('own', () => withLink(text('own'), first, node));
    endEdit();
    setFirst(null);
  };
  const onMove = (event: PointerEvent<SVGElement>): void => {
    const held = drag.current;
    if (!held || !projection.camera) return;
    held.going ||= Math.hypot(event.clientX - held.x, event.clientY - held.y) > STILL;
    if (!held.going) return;
    const box = event.currentTarget.ownerSVGElement!.getBoundingClientRect();
    const plane = facingPlane(held.from, projection.camera);
    const point = ontoPlane(event.clientX - box.left, event.clientY - box.top, plane, projection);
    if (point) set('moved', () => withMoved(held.moved, held.node, sub(toOwn(point), toOwn(held.from))));
  };
  const release = (chosen: boolean): void => {
    const held = drag.current;
    drag.current = null;
    endEdit();
    if (held && !held.going && chosen) choose(held.node);
  };
  const pressed = (event: KeyboardEvent, node: number): void => {
    if (event.key !== 'Enter' && event.key !== ' ') return;
    event.preventDefault();
    event.stopPropagation();
    choose(node);
  };
  return (
    <Overlay role="group" label="Nodes of the web">
      {Array.from(shown.dotIds, (node, k) => {
        const place = at(shown.dots!, k);
        const dot = toScreen(place, projection);
        if (!dot) return null;
        return (
          <circle
            key={node}
            cx={dot.x}
            cy={dot.y}
            r={first === node ? 7 : 5}
            tabIndex={0}
            role="button"
            aria-label={`Node ${node + 1}`}
            aria-pressed={first === node}
            fill={first === node ? INK.front : INK.deep}
            fillOpacity={0.8}
            stroke={growth.hue}
            strokeWidth={1.5}
            pointerEvents="all"
            cursor="grab"
            onKeyDown={(event) => pressed(event, node)}
            onPointerDown={(event) => {
              event.currentTarget.setPointerCapture(event.pointerId);
              const [x, y] = [event.clientX, event.clientY];
              drag.current = { node, from: place, moved: text('moved'), x, y, going: false };
            }}
            onPointerMove={onMove}
            onPointerUp={() => release(true)}
            onPointerCancel={() => release(false)}
          />
        );
      })}
    </Overlay>
  );
}
