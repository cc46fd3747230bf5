'use client';

import { useState } from 'react';
import { at, type Growth, isVaried, type Step, sub, type Vec3 } from '@uvrex/core';
import { withLink, moveNodes } from '@uvrex/core/webs';
import { setParam } from '@/state/actions/valueActions';
import { endEdit } from '@/state/document/document';
import { useResults } from '@/state/director/results';
import { useDrag } from '@/ui/drag';
import { keyStep } from '@/ui/pressed';
import { INK } from '@/ui/theme';
import { sayProblem } from '@/state/toasts';
import { Grip } from './Grip';
import { Overlay } from './Overlay';
import { useOwnSpace } from './ownSpace';
import { facingPlane, ontoPlane, toScreen, useProjection } from '../state/director/projection';

/** Nodes that are taken hold of at most: more would hide the web. */
const MOST = 400;

/** The nodes of the open web: dragged they move, clicked one after the other they are linked, or no more. */
export function WebHandles({ growth, step }: { growth: Growth; step: Step }) {
  const shown = useResults(({ onScreen }) => onScreen.find(({ id }) => id === growth.id)?.shown);
  useProjection((state) => state.drawn);
  const { toOwn } = useOwnSpace(growth);
  const [first, setFirst] = useState<number | null>(null);
  const projection = useProjection.getState();
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
  const drag = useDrag<{ node: number; place: Vec3 }, { from: Vec3; moved: string }>({
    take: (held) => ({ from: held.place, moved: text('moved') }),
    move({ node }, { at: { x, y } }, { from, moved }) {
      if (!projection.camera) return;
      const point = ontoPlane(x, y, facingPlane(from, projection.camera), projection);
      if (point) set('moved', () => moveNodes(moved, node, sub(toOwn(point), toOwn(from))));
    },
    click: ({ node }) => choose(node),
  });
  if (!shown?.dots || !shown.dotIds || shown.dotIds.length > MOST) return null;
  return (
    <Overlay role="group" label="Nodes of the web">
      {Array.from(shown.dotIds, (node, k) => {
        const place = at(shown.dots!, k);
        const dot = toScreen(place, projection);
        if (!dot) return null;
        return (
          <Grip
            key={node}
            at={dot}
            label={`Node ${node + 1}`}
            r={first === node ? 7 : 5}
            aria-pressed={first === node}
            fill={first === node ? INK.front : INK.deep}
            fillOpacity={0.8}
            stroke={growth.hue}
            strokeWidth={1.5}
            onKeyDown={(event) => keyStep(event, { Enter: true, ' ': true }) && choose(node)}
            {...drag({ node, place })}
          />
        );
      })}
    </Overlay>
  );
}
