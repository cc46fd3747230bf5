'use client';

import Box from '@mui/material/Box';
import { useState } from 'react';
import { strokeToAnchors, type Vec3 } from '@uvrex/core';
import { takeStroke } from '@/state/actions/growthActions';
import { useDocument } from '@/state/document/document';
import { useView } from '@/state/document/view';
import { type Spot, useDrag } from '@/ui/drag';
import { say } from '@/state/toasts';
import { sceneLook } from '@/state/actions/sceneLook';
import { INK } from '@/ui/theme';
import { facingPlane, groundPlane, ontoPlane, skinUnder, useProjection } from '../state/director/projection';

interface Stroke {
  points: Vec3[];
  /** The growth on whose skin it begins; null elsewhere. */
  skin: string | null;
}

/** Takes a freehand stroke over the picture and lays it on the ground, on the plane that faces the camera, or on a skin. */
export function DrawLayer() {
  const [line, setLine] = useState<[number, number][]>([]);

  const plane = () => {
    const { drawOn, eye, frame } = useView.getState();
    const { camera } = useProjection.getState();
    if (drawOn === 'ground' || !camera) return groundPlane();
    return facingPlane((eye ?? sceneLook(useDocument.getState().scene, frame).camera).target, camera);
  };
  const add = ({ x, y }: Spot, stroke: Stroke): void => {
    const projection = useProjection.getState();
    const onSurface = useView.getState().drawOn === 'surface';
    const hit = onSurface ? skinUnder(x, y, projection) : null;
    const point = onSurface ? (hit?.place ?? null) : ontoPlane(x, y, plane(), projection);
    if (!point) return;
    stroke.skin ??= hit?.growth ?? null;
    stroke.points.push(point);
    setLine((before) => [...before, [x, y]]);
  };
  const finish = ({ points, skin }: Stroke): void => {
    const anchors = strokeToAnchors(points.flat());
    if (anchors.length >= 2) takeStroke(anchors, skin);
    else if (useView.getState().drawOn === 'surface')
      say({
        tone: 'info',
        text: 'There was no skin under that stroke: draw over one, or on the ground or the view plane.',
      });
    else say({ tone: 'info', text: 'That stroke was too short for a path: press, and draw on before letting go.' });
  };
  const drag = useDrag<void, Stroke>({
    take(_, { at }) {
      const stroke: Stroke = { points: [], skin: null };
      add(at, stroke);
      return stroke;
    },
    move: (_, { at }, stroke) => add(at, stroke),
    end(_, stroke, ending) {
      setLine([]);
      if (ending !== 'taken back') finish(stroke);
    },
  });

  return (
    <Box
      data-testid="draw-layer"
      sx={{ position: 'absolute', inset: 0, cursor: 'crosshair', touchAction: 'none' }}
      {...drag()}
    >
      <svg width="100%" height="100%" aria-hidden>
        <polyline
          points={line.map((point) => point.join()).join(' ')}
          fill="none"
          stroke={INK.front}
          strokeWidth={2.5}
          strokeLinecap="round"
          strokeLinejoin="round"
        />
      </svg>
    </Box>
  );
}
