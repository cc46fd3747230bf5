'use client';

import Box from '@mui/material/Box';
import dynamic from 'next/dynamic';
import { useView } from '@/state/view';
import { AnchorHandles } from './AnchorHandles';
import { FalloffHandles } from './FalloffHandles';
import { GuideHandles } from './GuideHandles';
import { DrawLayer } from './DrawLayer';
import { Empty } from './Empty';
import { PickLayer } from './PickLayer';
import { Pins } from './Pins';
import { TrailLine } from './TrailLine';
import { LostNotice } from './LostNotice';
import { Chips } from './Chips';
import { Surface } from './Surface';

const ChecksPanel = dynamic(() => import('@/checks/ChecksPanel').then((module) => module.ChecksPanel), { ssr: false });

/** The picture and what lies over it. */
export function Viewport() {
  const drawing = useView((state) => state.tool === 'draw');
  const picking = useView((state) => state.tool === 'pick');
  const checks = useView((state) => state.checks);
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
      <GuideHandles />
      <FalloffHandles />
      <Pins />
      <TrailLine />
      {drawing && <DrawLayer />}
      {picking && <PickLayer />}
      <Empty />
      <Chips />
      <LostNotice />
      {checks && <ChecksPanel />}
    </Box>
  );
}
