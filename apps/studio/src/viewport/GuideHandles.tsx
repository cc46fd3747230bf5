'use client';

import Box from '@mui/material/Box';
import { type PointerEvent, useRef } from 'react';
import { type Guide } from '@uvrex/core';
import { useDocument } from '@/state/document';
import { SCENE_ENTRY, useView } from '@/state/view';
import { moveGuide } from '@/stem/Guides';
import { INK } from '@/ui/theme';
import { facingPlane, ontoPlane, toScreen, useProjection } from './projection';

/** The scene's guides, to be dragged, while the scene itself is selected. */
export function GuideHandles() {
  const guides = useDocument((state) => state.scene.guides);
  const shown = useView((state) => state.growth === SCENE_ENTRY && !state.playing && state.tool === 'look');
  return shown && guides.length > 0 ? <Handles guides={guides} /> : null;
}

function Handles({ guides }: { guides: readonly Guide[] }) {
  // Drawn again with every picture, since the camera may have moved.
  useProjection((state) => state.drawn);
  const projection = useProjection.getState();
  const dragged = useRef<string | null>(null);
  const onMove = (event: PointerEvent<SVGElement>, guide: Guide): void => {
    if (dragged.current !== guide.id || !projection.camera) return;
    const box = event.currentTarget.ownerSVGElement!.getBoundingClientRect();
    const plane = facingPlane(guide.position, projection.camera);
    const point = ontoPlane(event.clientX - box.left, event.clientY - box.top, plane, projection);
    if (point) moveGuide(guide.id, [round(point[0]), round(point[1]), round(point[2])], true);
  };
  return (
    <Box
      component="svg"
      role="group"
      aria-label="Guides"
      sx={{ position: 'absolute', inset: 0, width: '100%', height: '100%', pointerEvents: 'none' }}
    >
      {guides.map((guide) => {
        const dot = toScreen(guide.position, projection);
        if (!dot) return null;
        return (
          <g key={guide.id} transform={`translate(${dot.x} ${dot.y})`}>
            <path d="M0-12 9 0 0 12-9 0Z" fill={`${INK.deep}aa`} stroke={INK.text} strokeWidth={1.6} />
            <circle
              r={13}
              fill="transparent"
              pointerEvents="all"
              cursor="grab"
              data-guide={guide.id}
              onPointerDown={(event) => {
                event.currentTarget.setPointerCapture(event.pointerId);
                dragged.current = guide.id;
              }}
              onPointerMove={(event) => onMove(event, guide)}
              onPointerUp={() => {
                dragged.current = null;
                moveGuide(guide.id, guide.position, false);
              }}
            />
            <text x={14} y={4} fill={INK.text} fontSize={12}>
              {guide.name}
            </text>
          </g>
        );
      })}
    </Box>
  );
}

const round = (metres: number): number => Math.round(metres * 1e3) / 1e3;
