'use client';

import Close from '@mui/icons-material/Close';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import { figure } from '@uvrex/core';
import { VALUE_SCALE } from '@uvrex/core/page';
import { shadedColumn, useInspection } from '@/state/director/inspection';
import { setView, useView } from '@/state/document/view';
import { columnLabel } from '@/table/words';
import { INK, MONO } from '@/ui/theme';
import { rangeOf } from './shading';

const SCALE = VALUE_SCALE.map(({ at, color }) => `${color} ${(100 * at).toFixed(1)}%`).join(', ');

/** What the colours mean in which an attribute is shown. */
export function Legend() {
  const shade = useView((state) => state.shade);
  const painting = useView((state) => state.tool === 'paint');
  const inspected = useInspection((state) => state.inspected);
  if (!shade) return null;
  const column = shadedColumn(shade, inspected);
  const [low, high] = column ? rangeOf(shade, column) : [0, 1];
  return (
    <Box
      role="group"
      aria-label="What the colours mean"
      data-testid="legend"
      sx={{
        position: 'absolute',
        left: 14,
        top: 50,
        width: 216,
        px: 1.25,
        py: 0.75,
        fontSize: 12,
        borderRadius: 2,
        bgcolor: '#0b1316d8',
        border: `1px solid ${INK.line}99`,
      }}
    >
      <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between', minHeight: 22 }}>
        <Box component="span" sx={{ fontWeight: 650 }}>
          {columnLabel(shade)}
        </Box>
        {!painting && (
          <IconButton
            aria-label="Show the growth's own colours"
            sx={{ p: 0.1 }}
            onClick={() => setView({ shade: null })}
          >
            <Close sx={{ fontSize: 15 }} />
          </IconButton>
        )}
      </Box>
      {column ? (
        <>
          <Box sx={{ height: 9, borderRadius: 1, background: `linear-gradient(in oklab to right, ${SCALE})` }} />
          <Box sx={{ display: 'flex', justifyContent: 'space-between', fontFamily: MONO, color: INK.mute, pt: 0.25 }}>
            <span>{figure(low, 4)}</span>
            <span>{figure((low + high) / 2, 4)}</span>
            <span>{figure(high, 4)}</span>
          </Box>
        </>
      ) : (
        <Box sx={{ color: 'text.secondary' }}>Not there at this frame.</Box>
      )}
    </Box>
  );
}
