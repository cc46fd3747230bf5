'use client';

import Box from '@mui/material/Box';
import type { StepDeclaration } from '@uvrex/core';
import { MOMENTS, SMALL } from '@uvrex/examples/small';
import { SmallPicture } from '@/ui/SmallPicture';

/** What a step does, in a moving picture and a sentence. */
export function StepHelp({ declaration: { kind, family, help } }: { declaration: StepDeclaration }) {
  const src = SMALL[`${family === 'start' ? 'start' : 'step'}-${kind}`];
  return (
    <Box sx={{ width: 232, py: 0.5 }}>
      {src && (
        <Box sx={{ height: 155, borderRadius: 1.5, overflow: 'hidden', mb: 1 }}>
          <SmallPicture src={src} moments={MOMENTS} moving />
        </Box>
      )}
      {help}
    </Box>
  );
}
