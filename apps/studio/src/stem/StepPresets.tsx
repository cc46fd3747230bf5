'use client';

import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import Button from '@mui/material/Button';
import Popover from '@mui/material/Popover';
import { useState } from 'react';
import type { StepPreset } from '@uvrex/core';
import { takePreset } from '@/state/actions/valueActions';
import { INK } from '@/ui/theme';
import { sayProblem } from '@/state/toasts';

interface Props {
  growth: string;
  step: string;
  hue: string;
  presets: () => Promise<readonly StepPreset[]>;
}

/** Ready values of a step, each with a picture of what it comes to. */
export function StepPresets({ growth, step, hue, presets }: Props) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [ready, setReady] = useState<readonly StepPreset[]>([]);
  return (
    <Box sx={{ py: 0.5 }}>
      <Button
        variant="outlined"
        color="inherit"
        aria-haspopup="dialog"
        sx={{ py: 0.1 }}
        onClick={(event) => {
          const at = event.currentTarget;
          presets().then((found) => {
            setReady(found);
            setAnchor(at);
          }, sayProblem);
        }}
      >
        Begin from a preset
      </Button>
      <Popover
        open={anchor !== null}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}
        slotProps={{ paper: { 'aria-label': 'Presets', sx: { p: 1, border: `1px solid ${INK.line}` } } }}
      >
        <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, 104px)', gap: 1 }}>
          {ready.map(({ label, params, picture }) => (
            <ButtonBase
              key={label}
              onClick={() => {
                setAnchor(null);
                takePreset(growth, step, label, params);
              }}
              sx={{
                display: 'grid',
                justifyItems: 'center',
                gap: 0.5,
                p: 0.75,
                borderRadius: 2,
                fontSize: 12.5,
                bgcolor: INK.ground,
                border: `1px solid ${INK.line}`,
                '&:hover': { borderColor: hue },
              }}
            >
              <svg viewBox="0 0 100 100" width={88} height={88} aria-hidden>
                <path d={picture} fill="none" stroke={hue} strokeWidth={0.9} strokeLinejoin="round" />
              </svg>
              {label}
            </ButtonBase>
          ))}
        </Box>
      </Popover>
    </Box>
  );
}
