'use client';

import MenuItem from '@mui/material/MenuItem';
import { HUES } from '@uvrex/core';
import { INK } from '@/ui/theme';
import { hueDot } from './hueDot';

/** Hues at the end of a menu: items of it, which its arrow keys come to. */
export function HueItems({ value, pick }: { value: string | null; pick: (hue: string) => void }) {
  return HUES.map((hue, k) => (
    <MenuItem
      key={hue}
      role="menuitemradio"
      aria-checked={value === hue}
      aria-label={`Hue ${hue}`}
      onClick={() => pick(hue)}
      sx={{
        ...hueDot(hue, value),
        display: 'inline-flex',
        minHeight: 0,
        p: 0,
        ml: k === 0 ? 2 : 0.75,
        my: 0.75,
        '&:hover': { bgcolor: hue },
        '&.Mui-focusVisible': { bgcolor: hue, outline: `2px solid ${INK.sprout}`, outlineOffset: '1px' },
      }}
    />
  ));
}
