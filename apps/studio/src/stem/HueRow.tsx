'use client';

import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { HUES } from '@uvrex/core';
import { INK } from '@/ui/theme';

/** The hues that growths and groups can have. */
export function HueRow({ value, pick }: { value: string | null; pick: (hue: string) => void }) {
  return (
    <Box sx={{ display: 'flex', gap: 0.75, px: 2, py: 0.75 }}>
      {HUES.map((hue) => (
        <ButtonBase
          key={hue}
          aria-label={`Hue ${hue}`}
          onClick={() => pick(hue)}
          sx={{
            width: 18,
            height: 18,
            borderRadius: 9,
            bgcolor: hue,
            outline: value === hue ? `2px solid ${INK.text}` : 'none',
          }}
        />
      ))}
    </Box>
  );
}
