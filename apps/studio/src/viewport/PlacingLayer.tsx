'use client';

import Box from '@mui/material/Box';
import type { ReactNode } from 'react';
import type { Spot } from '@/ui/drag';

interface Props {
  label: string;
  /** Name for tests, while places are being put down. */
  id: string;
  /** Whether clicks add places; else only handles take the pointer. */
  placing: boolean;
  /** A click beside all handles. */
  put: (spot: Spot) => void;
  children: ReactNode;
}

/** SVG overlay of the view; while placing, clicks add places. */
export const PlacingLayer = ({ label, id, placing, put, children }: Props) => (
  <Box
    component="svg"
    role="group"
    aria-label={label}
    data-testid={placing ? id : undefined}
    sx={{
      position: 'absolute',
      inset: 0,
      width: '100%',
      height: '100%',
      pointerEvents: placing ? 'all' : 'none',
      cursor: placing ? 'crosshair' : undefined,
      touchAction: 'none',
    }}
    onClick={(event) => {
      if (!placing || event.target !== event.currentTarget) return;
      const box = event.currentTarget.getBoundingClientRect();
      put({ x: event.clientX - box.left, y: event.clientY - box.top });
    }}
  >
    {children}
  </Box>
);
