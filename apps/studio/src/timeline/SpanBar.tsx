'use client';

import Box from '@mui/material/Box';
import Slider from '@mui/material/Slider';
import { memo } from 'react';
import { setView, useView } from '@/state/document/view';
import { INK } from '@/ui/theme';
import { LABELS } from '../state/document/timeScale';

/** Which frames the timeline shows: drag either end to come nearer, the middle to go along. */
export const SpanBar = memo(function SpanBar({ range }: { range: readonly [number, number] }) {
  const span = useView((state) => state.span);
  return (
    <Box sx={{ pl: `${LABELS}px`, pr: '18px', height: 16, flexShrink: 0 }}>
      <Slider
        size="small"
        value={[...(span ?? range)]}
        min={range[0]}
        max={range[1]}
        step={1}
        disableSwap
        onChange={(_, value) => {
          const [a, b] = value as number[];
          if (b - a >= 4) setView({ span: a <= range[0] && b >= range[1] ? null : [a, b] });
        }}
        getAriaLabel={(index) => (index === 0 ? 'Shown from' : 'Shown up to')}
        sx={{
          p: '4px 0 !important',
          height: 4,
          color: span ? INK.sprout : INK.line,
          '& .MuiSlider-thumb': { width: 9, height: 9, bgcolor: span ? INK.sprout : INK.mute },
          '& .MuiSlider-rail': { opacity: 0.5, bgcolor: INK.line },
        }}
      />
    </Box>
  );
});
