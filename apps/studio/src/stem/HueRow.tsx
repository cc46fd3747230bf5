'use client';

import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { HUES } from '@uvrex/core';
import { hueDot } from './hueDot';

/** The hues that growths can have. */
export function HueRow({ value, pick }: { value: string | null; pick: (hue: string) => void }) {
  return (
    <Box role="group" aria-label="Hue" sx={{ display: 'flex', gap: 0.75, px: 2, py: 0.75 }}>
      {HUES.map((hue) => (
        <ButtonBase
          key={hue}
          aria-label={`Hue ${hue}`}
          aria-pressed={value === hue}
          onClick={() => pick(hue)}
          sx={hueDot(hue, value)}
        />
      ))}
    </Box>
  );
}
