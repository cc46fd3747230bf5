'use client';

import type { ReactNode } from 'react';
import type { Spot } from '@/ui/drag';
import { INK, MONO } from '@/ui/theme';

/** What is written beside a handle; nothing where that is not in the picture. */
export const HandleLabel = ({ place, children }: { place: Spot | null; children: ReactNode }) =>
  place && (
    <text x={place.x + 4} y={place.y + 4} fill={INK.text} fontSize={11.5} fontFamily={MONO} opacity={0.9}>
      {children}
    </text>
  );
