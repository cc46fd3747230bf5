'use client';

import Box from '@mui/material/Box';
import { MOMENTS, SMALL } from '@uvrex/examples/small';
import { SmallPicture } from '@/ui/SmallPicture';

/** What something does: in a moving picture, where there is one of that name, and in a sentence. */
export function PicturedHelp({ picture, help }: { picture: string; help: string }) {
  const src = SMALL[picture];
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
