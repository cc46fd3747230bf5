'use client';

import Box from '@mui/material/Box';
import Link from 'next/link';
import type { ReactNode } from 'react';
import { INK } from './theme';

/** A button in the least that it takes: every page brings this one along, for when all else fails. */
export const plainButton = {
  px: 2,
  py: 0.75,
  border: 0,
  borderRadius: 4,
  font: 'inherit',
  fontWeight: 600,
  cursor: 'pointer',
  textDecoration: 'none',
  bgcolor: INK.sprout,
  color: INK.ground,
  '&:focus-visible': { outline: `2px solid ${INK.text}`, outlineOffset: 2 },
} as const;

/** A page for what cannot be shown: what is the matter, what can be done, and the way back. */
export function Missing({ what, advice, children }: { what: string; advice?: string; children?: ReactNode }) {
  return (
    <Box
      component="main"
      sx={{ minHeight: '100vh', display: 'grid', placeContent: 'center', justifyItems: 'center', gap: 2, p: 3 }}
    >
      <Box component="h1" sx={{ m: 0, fontSize: 17, fontWeight: 650, textAlign: 'center' }}>
        {what}
      </Box>
      {advice && <Box sx={{ color: 'text.secondary', maxWidth: 560, textAlign: 'center' }}>{advice}</Box>}
      {children}
      <Box
        component={Link}
        href="/"
        sx={children ? { ...plainButton, bgcolor: 'transparent', color: INK.sprout } : plainButton}
      >
        Go to the library
      </Box>
    </Box>
  );
}
