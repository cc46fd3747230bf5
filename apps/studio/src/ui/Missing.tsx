'use client';

import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import Link from 'next/link';

/** A page for what is not there, with the way back. */
export function Missing({ what }: { what: string }) {
  return (
    <Box
      component="main"
      sx={{ height: '100vh', display: 'grid', placeContent: 'center', justifyItems: 'center', gap: 2 }}
    >
      <Typography variant="h2" component="h1">
        {what}
      </Typography>
      <Button component={Link} href="/" variant="contained">
        Go to the library
      </Button>
    </Box>
  );
}
