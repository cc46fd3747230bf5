'use client';

import type { SVGProps } from 'react';
import { INK } from '@/ui/theme';
import type { Spot } from '@/ui/drag';

interface Props extends SVGProps<SVGCircleElement> {
  /** Where it is on screen, pixels. */
  at: Spot;
  /** What it is called, for screen readers. */
  label: string;
}

/** A dot in the view that is taken hold of. */
export const Grip = ({ at, label, ...rest }: Props) => (
  <circle
    cx={at.x}
    cy={at.y}
    r={6}
    tabIndex={0}
    role="button"
    aria-label={label}
    fill={INK.deep}
    stroke={INK.text}
    strokeWidth={2}
    pointerEvents="all"
    cursor="grab"
    {...rest}
  />
);
