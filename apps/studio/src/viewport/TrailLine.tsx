'use client';

import { at } from '@uvrex/core';
import { useView } from '@/state/document/view';
import { INK } from '@/ui/theme';
import { Overlay } from './Overlay';
import { toScreen, useProjection } from '../state/director/projection';

/** Where the followed point travels, with a dot a frame and the present one marked. */
export function TrailLine() {
  const trail = useView((state) => state.trail);
  const frame = useView((state) => state.frame);
  useProjection((state) => state.drawn);
  if (!trail) return null;
  const projection = useProjection.getState();
  const dots = Array.from({ length: trail.positions.length / 3 }, (_, i) => {
    const place = at(trail.positions, i);
    return Number.isNaN(place[0]) ? null : toScreen(place, projection);
  });
  const now = dots[Math.round(frame) - trail.first];
  const line = dots.map((dot, i) => (dot ? `${dots[i - 1] ? 'L' : 'M'}${dot.x.toFixed(1)} ${dot.y.toFixed(1)}` : ''));
  return (
    <Overlay role="img" label="Trail of the followed point" id="trail">
      <path d={line.join('')} fill="none" stroke={INK.deep} strokeWidth={4} opacity={0.5} />
      <path d={line.join('')} fill="none" stroke={INK.front} strokeWidth={1.6} />
      {dots.map((dot, i) => dot && <circle key={i} cx={dot.x} cy={dot.y} r={1.8} fill={INK.text} />)}
      {now && <circle cx={now.x} cy={now.y} r={6} fill={INK.front} stroke={INK.text} strokeWidth={1.6} />}
    </Overlay>
  );
}
