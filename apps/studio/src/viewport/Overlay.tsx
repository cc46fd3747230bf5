'use client';

import Box from '@mui/material/Box';
import type { ReactNode } from 'react';

/** Drawing over the picture, in its pixels; lets the pointer through but for what asks for it. */
export function Overlay({
  label,
  role,
  id,
  children,
}: {
  label: string;
  role: 'img' | 'group';
  id?: string;
  children: ReactNode;
}) {
  return (
    <Box
      component="svg"
      role={role}
      aria-label={label}
      data-testid={id}
      // What a finger takes hold of here is not the page, to be scrolled by it.
      sx={{ position: 'absolute', inset: 0, width: '100%', height: '100%', pointerEvents: 'none', touchAction: 'none' }}
    >
      {children}
    </Box>
  );
}
