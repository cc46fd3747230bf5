'use client';

import type { ComponentProps } from 'react';
import type { Spot } from '@/ui/drag';
import { INK, MONO } from '@/ui/theme';
import { Grip } from './Grip';

interface Props extends Omit<ComponentProps<typeof Grip>, 'at'> {
  /** Where it is on screen, pixels. */
  dot: Spot;
  label: string;
  /** What it belongs to. */
  of: string;
  hue: string;
  held: boolean;
  /** What is said of it while it is held. */
  said: string;
  /** Its name stands on the left of it. */
  left?: boolean;
}

/** A dot in the view that is taken hold of, with its name, and its value while it is held. */
export const Knob = ({ dot, label, of, hue, held, said, left = false, ...rest }: Props) => (
  <g>
    <Grip at={dot} label={`${label} of ${of}`} stroke={held ? INK.text : hue} {...rest} />
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
