'use client';

import { useView } from '@/state/document/view';
import { INK } from '@/ui/theme';
import { Overlay } from './Overlay';
import { toScreen, useProjection } from '../state/director/projection';

/** Marks the places that a check points at. */
export function Pins() {
  const pins = useView((state) => state.pins);
  // Drawn again with every picture, since the camera may have moved.
  useProjection((state) => state.drawn);
  if (pins.length === 0) return null;
  const projection = useProjection.getState();
  return (
    <Overlay role="img" label="Places found by the checks">
      {pins.map(({ place, label }, i) => {
        const dot = toScreen(place, projection);
        if (!dot) return null;
        return (
          <g key={i} transform={`translate(${dot.x} ${dot.y})`}>
            <circle r={9} fill="none" stroke={INK.deep} strokeWidth={5} opacity={0.6} />
            <circle r={9} fill="none" stroke="#f2d06b" strokeWidth={2} />
            <text x={14} y={4} fill="#f2d06b" fontSize={12} stroke={INK.deep} strokeWidth={3} paintOrder="stroke">
              {label}
            </text>
          </g>
        );
      })}
    </Overlay>
  );
}
