'use client';

import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import dynamic from 'next/dynamic';
import { useState } from 'react';
import type { Anchor } from '@uvrex/core';
import { setView } from '@/state/document/view';

/** The table of anchors is seldom open, and is loaded when it is. */
const AnchorTable = dynamic(() => import('./AnchorTable').then((module) => module.AnchorTable));

/** The anchors of a drawn path. */
export function AnchorsField({
  growth,
  step,
  anchors,
  onChange,
}: {
  growth: string;
  step: string;
  anchors: readonly Anchor[];
  onChange: (anchors: Anchor[]) => void;
}) {
  const [table, setTable] = useState(false);
  const button = { flexShrink: 0, py: 0.1 };
  return (
    <>
      <Box sx={{ fontSize: 12, color: 'text.secondary', pt: 0.5 }}>
        {anchors.length} anchors: drag them in the view, double-click the line to add one.
      </Box>
      <Box sx={{ display: 'flex', gap: 0.75, py: 0.5 }}>
        <Button
          variant="outlined"
          color="inherit"
          sx={button}
          onClick={() => setView({ tool: 'draw', redraw: { growth, step, part: false }, playing: false })}
        >
          Redraw
        </Button>
        <Button
          variant="outlined"
          color="inherit"
          title="The next stroke replaces the part of the path that it lies along"
          sx={button}
          onClick={() => setView({ tool: 'draw', redraw: { growth, step, part: true }, playing: false })}
        >
          Part
        </Button>
        <Button
          variant="outlined"
          color="inherit"
          aria-expanded={table}
          sx={button}
          onClick={() => setTable((open) => !open)}
        >
          Table
        </Button>
      </Box>
      {table && <AnchorTable anchors={anchors} onChange={onChange} />}
    </>
  );
}
