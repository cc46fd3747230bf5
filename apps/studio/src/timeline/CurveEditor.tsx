'use client';

import Box from '@mui/material/Box';
import type { KeyboardEvent } from 'react';
import { type BezierEase, CSS_EASES, type Ease, easeAt } from '@uvrex/core';
import { useDrag } from '@/ui/drag';
import { keyStep } from '@/ui/pressed';
import { INK, MONO } from '@/ui/theme';

const SIZE = 168;
/** Room above and below for curves that overshoot, as a share of the height of the curve's own box. */
const OVER = 0.4;
const box = SIZE / (1 + 2 * OVER);
const px = (x: number): number => 12 + x * (SIZE - 24);
const py = (y: number): number => SIZE - OVER * box - y * box;

/** The curve nearest to an easing that has no handles of its own: its slopes at both ends. */
function handlesOf(ease: Ease): BezierEase {
  if (typeof ease !== 'string') return ease;
  if (ease in CSS_EASES) return CSS_EASES[ease as keyof typeof CSS_EASES];
  if (ease === 'hold') return [1, 0, 1, 0];
  const h = 1e-3;
  const [start, end] = [easeAt(ease, h) / h, (1 - easeAt(ease, 1 - h)) / h];
  const clamp = (y: number): number => Math.min(1.6, Math.max(-0.6, y));
  return [1 / 3, clamp(start / 3), 2 / 3, clamp(1 - end / 3)];
}

/** An easing as a curve with two handles: drag them, or move them with the arrow keys. */
export function CurveEditor({ ease, set }: { ease: Ease; set: (ease: BezierEase, merge: string | null) => void }) {
  const [x1, y1, x2, y2] = handlesOf(ease);
  const put = (which: 0 | 1, x: number, y: number, merge: string | null): void => {
    const [a, b] = [Math.min(1, Math.max(0, x)), Math.min(1.4, Math.max(-0.4, y))].map(
      (v) => Math.round(v * 1000) / 1000,
    );
    set(which === 0 ? [a, b, x2, y2] : [x1, y1, a, b], merge);
  };
  const drag = useDrag<0 | 1>({
    move: (which, { at: { x, y } }) => put(which, (x - 12) / (SIZE - 24), (SIZE - OVER * box - y) / box, 'curve'),
  });
  const onKey = (event: KeyboardEvent, which: 0 | 1): void => {
    const by = keyStep(event, { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] });
    if (!by) return;
    const step = event.shiftKey ? 0.1 : 0.01;
    const [x, y] = which === 0 ? [x1, y1] : [x2, y2];
    put(which, x + by[0] * step, y + by[1] * step, null);
  };
  const course = Array.from(
    { length: 61 },
    (_, i) => `${px(i / 60).toFixed(1)},${py(easeAt(ease, i / 60)).toFixed(1)}`,
  );
  return (
    <Box sx={{ display: 'grid', justifyItems: 'center', gap: 0.5 }}>
      <svg width={SIZE} height={SIZE} role="group" aria-label="Easing curve" style={{ touchAction: 'none' }}>
        <rect x={px(0)} y={py(1)} width={px(1) - px(0)} height={py(0) - py(1)} fill={INK.deep} rx={6} />
        <line x1={px(0)} y1={py(0)} x2={px(x1)} y2={py(y1)} stroke={INK.mute} />
        <line x1={px(1)} y1={py(1)} x2={px(x2)} y2={py(y2)} stroke={INK.mute} />
        <polyline points={course.join(' ')} fill="none" stroke={INK.front} strokeWidth={2} />
        {([0, 1] as const).map((which) => (
          <circle
            key={which}
            cx={px(which === 0 ? x1 : x2)}
            cy={py(which === 0 ? y1 : y2)}
            r={6}
            fill={INK.ground}
            stroke={INK.sprout}
            strokeWidth={2}
            role="button"
            tabIndex={0}
            aria-label={which === 0 ? 'Handle of this key' : 'Handle of the next key'}
            cursor="grab"
            onKeyDown={(event) => onKey(event, which)}
            {...drag(which)}
          />
        ))}
      </svg>
      <Box sx={{ fontFamily: MONO, fontSize: 11, color: 'text.secondary' }}>
        {[x1, y1, x2, y2].map((v) => v.toFixed(2)).join('  ')}
      </Box>
    </Box>
  );
}
