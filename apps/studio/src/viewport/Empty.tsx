'use client';

import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { setView, useView } from '@/state/document/view';

/** What an empty scene offers first. */
export function Empty() {
  const drawing = useView((state) => state.tool === 'draw');
  // Beside the lesson, where one is open.
  const left = useView((state) => (state.lesson ? 340 : 0));
  if (drawing) return null;
  return (
    <Box
      style={{ left }}
      sx={{
        position: 'absolute',
        inset: 0,
        display: 'grid',
        placeContent: 'center',
        justifyItems: 'center',
        gap: 1.5,
        textAlign: 'center',
        pointerEvents: 'none',
        '& button': { pointerEvents: 'auto' },
      }}
    >
      <Typography variant="h2">Nothing grows here yet</Typography>
      <Typography color="text.secondary" sx={{ maxWidth: 340 }}>
        Draw a path in this view and it grows at once, or choose from all that a growth can begin with.
      </Typography>
      <Box sx={{ display: 'flex', gap: 1 }}>
        <Button variant="contained" onClick={() => setView({ tool: 'draw', redraw: null })}>
          Draw a path
        </Button>
        <Button variant="outlined" color="inherit" onClick={() => setView({ palette: 'begin' })}>
          Choose what grows
        </Button>
      </Box>
    </Box>
  );
}
