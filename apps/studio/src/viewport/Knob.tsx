'use client';

import type { KeyboardEvent, PointerEvent } from 'react';
import { endEdit } from '@/state/document';
import { INK, MONO } from '@/ui/theme';

interface Props {
  /** Where it is on screen, pixels. */
  dot: { x: number; y: number };
  label: string;
  /** What it belongs to. */
  of: string;
  hue: string;
  held: boolean;
  /** What is said of it while it is held. */
  said: string;
  /** Its name stands on the left of it. */
  left?: boolean;
  onKey: (event: KeyboardEvent) => void;
  take: () => void;
  /** The pointer moves while this is held; `at` is where it is in the view, pixels. */
  onMove: (at: { x: number; y: number }, event: PointerEvent<SVGElement>) => void;
  release: () => void;
}

/** A dot in the view that is taken hold of, with its name, and its value while it is held. */
export function Knob({ dot, label, of, hue, held, said, left = false, onKey, take, onMove, release }: Props) {
  const letGo = (): void => {
    release();
    endEdit();
  };
  return (
    <g>
      <circle
        cx={dot.x}
        cy={dot.y}
        r={6}
        tabIndex={0}
        role="button"
        aria-label={`${label} of ${of}`}
        fill={INK.deep}
        stroke={held ? INK.text : hue}
        strokeWidth={2}
        pointerEvents="all"
        cursor="grab"
        onKeyDown={onKey}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          event.currentTarget.focus();
          take();
        }}
        onPointerMove={(event) => {
          if (!held) return;
          const box = event.currentTarget.ownerSVGElement!.getBoundingClientRect();
          onMove({ x: event.clientX - box.left, y: event.clientY - box.top }, event);
        }}
        onPointerUp={letGo}
        onPointerCancel={letGo}
        onBlur={endEdit}
      />
      <text
        x={dot.x + (left ? -11 : 11)}
        y={dot.y + 4}
        textAnchor={left ? 'end' : 'start'}
        fill={INK.text}
        fontSize={11.5}
        opacity={0.85}
      >
        {label}
        {held && (
          <tspan dx={6} fontFamily={MONO}>
            {said}
          </tspan>
        )}
      </text>
    </g>
  );
}
