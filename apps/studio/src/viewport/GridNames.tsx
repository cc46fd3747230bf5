'use client';

import type { Vec3 } from '@uvrex/core';
import { INK, MONO } from '@/ui/theme';
import { cellFor } from './grid';
import { Overlay } from './Overlay';
import { toScreen, useProjection } from '../state/director/projection';

/** The names of the axes, and how large a square of the grid is. */
export function GridNames() {
  useProjection((state) => state.drawn);
  const projection = useProjection.getState();
  const cell = cellFor(projection.radius);
  const reach = 10 * cell;
  const ends: [string, Vec3][] = [
    ['X', [reach, 0, 0]],
    ['Y', [0, reach, 0]],
    ['Z', [0, 0, reach]],
  ];
  return (
    <Overlay role="img" label={`Grid: a square is ${cell} m`} id="grid">
      {ends.map(([name, place]) => {
        const dot = toScreen(place, projection);
        return (
          dot && (
            <text
              key={name}
              x={dot.x}
              y={dot.y - 6}
              fill={INK.text}
              fontSize={12}
              fontFamily={MONO}
              textAnchor="middle"
            >
              {name}
            </text>
          )
        );
      })}
      <text x={20} y={projection.height - 52} fill={INK.mute} fontSize={12} fontFamily={MONO}>
        a square is {cell} m
      </text>
    </Overlay>
  );
}
