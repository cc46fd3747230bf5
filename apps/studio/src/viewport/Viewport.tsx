'use client';

import Box from '@mui/material/Box';
import { useView } from '@/state/view';
import { AnchorHandles } from './AnchorHandles';
import { DrawLayer } from './DrawLayer';
import { Empty } from './Empty';
import { LostNotice } from './LostNotice';
import { Chips } from './Chips';
import { Surface } from './Surface';

/** The picture and what lies over it. */
export function Viewport() {
  const drawing = useView((state) => state.tool === 'draw');
  return (
    <Box
      component="section"
      aria-label="Viewport"
      sx={{
        position: 'relative',
        minHeight: 0,
        minWidth: 0,
        overflow: 'hidden',
        bgcolor: '#0a1215',
        touchAction: 'none',
      }}
    >
      <Surface />
      <AnchorHandles />
      {drawing && <DrawLayer />}
      <Empty />
      <Chips />
      <LostNotice />
    </Box>
  );
}
