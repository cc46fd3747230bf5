'use client';

import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import Link from 'next/link';
import { type ReactNode } from 'react';

/** A page for what cannot be shown: what is the matter, what can be done, and the way back. */
export function Missing({ what, advice, children }: { what: string; advice?: string; children?: ReactNode }) {
  return (
    <Box
      component="main"
      sx={{ minHeight: '100vh', display: 'grid', placeContent: 'center', justifyItems: 'center', gap: 2, p: 3 }}
    >
      <Typography variant="h2" component="h1" sx={{ textAlign: 'center' }}>
        {what}
      </Typography>
      {advice && <Typography sx={{ color: 'text.secondary', maxWidth: 560, textAlign: 'center' }}>{advice}</Typography>}
      {children}
      <Button component={Link} href="/" variant={children ? 'text' : 'contained'}>
        Go to the library
      </Button>
    </Box>
  );
}
