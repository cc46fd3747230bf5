'use client';

import Box from '@mui/material/Box';
import { type PointerEvent, useState } from 'react';
import { add, distance, figure, scale, type Vec3 } from '@uvrex/core';
import { INK, MONO } from '@/ui/theme';
import { Overlay } from './Overlay';
import { groundPlane, ontoPlane, skinUnder, toScreen, useProjection } from '../state/director/projection';

/** Two clicks on skins or on the ground, and how far they are apart; a third begins anew. */
export function MeasureLayer() {
  const [ends, setEnds] = useState<readonly Vec3[]>([]);
  const [free, setFree] = useState<Vec3 | null>(null);
  useProjection((state) => state.drawn);
  const projection = useProjection.getState();
  const under = (event: PointerEvent): Vec3 | null => {
    const box = event.currentTarget.getBoundingClientRect();
    const [x, y] = [event.clientX - box.left, event.clientY - box.top];
    return skinUnder(x, y, projection)?.place ?? ontoPlane(x, y, groundPlane(), projection);
  };
  const line = ends.length === 1 && free ? [ends[0], free] : ends;
  const dots = line.flatMap((place) => toScreen(place, projection) ?? []);
  const said = line.length === 2 ? saidOf(line[0], line[1]) : null;
  const middle = line.length === 2 ? toScreen(scale(add(line[0], line[1]), 0.5), projection) : null;
  return (
    <>
      <Overlay role="img" label={said ? `Measured: ${said.length}, ${said.parts}` : 'Measure'}>
        {dots.length === 2 && (
          <line x1={dots[0].x} y1={dots[0].y} x2={dots[1].x} y2={dots[1].y} stroke={INK.front} strokeWidth={1.6} />
        )}
        {dots.map(({ x, y }, i) => (
          <circle key={i} cx={x} cy={y} r={4} fill={INK.deep} stroke={INK.front} strokeWidth={1.8} />
        ))}
      </Overlay>
      <Box
        data-testid="measure-layer"
        sx={{ position: 'absolute', inset: 0, cursor: 'crosshair', touchAction: 'none' }}
        onPointerMove={(event) => ends.length === 1 && setFree(under(event))}
        onPointerDown={(event) => {
          const place = event.button === 0 ? under(event) : null;
          if (!place) return;
          setEnds((before) => (before.length === 1 ? [before[0], place] : [place]));
          setFree(null);
        }}
      />
      {said && middle && (
        <Box
          data-testid="measured"
          style={{ left: middle.x, top: middle.y }}
          sx={{
            position: 'absolute',
            transform: 'translate(-50%, -135%)',
            pointerEvents: 'none',
            px: 1,
            py: 0.5,
            borderRadius: 1.5,
            fontSize: 12,
            fontFamily: MONO,
            textAlign: 'center',
            bgcolor: '#0b1316e0',
            border: `1px solid ${INK.line}`,
          }}
        >
          <Box component="b" sx={{ color: INK.front, fontWeight: 600 }}>
            {said.length}
          </Box>
          <Box sx={{ color: 'text.secondary' }}>{said.parts}</Box>
        </Box>
      )}
    </>
  );
}

/** A distance and its parts along the axes, in words. */
function saidOf(from: Vec3, to: Vec3): { length: string; parts: string } {
  const by = ['X', 'Y', 'Z'].map((axis, c) => `${axis} ${figure(Math.abs(to[c] - from[c]), 3)}`);
  return { length: `${figure(distance(from, to), 4)} m`, parts: `${by.join('  ')} m` };
}
