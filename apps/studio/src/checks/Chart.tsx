'use client';

import Box from '@mui/material/Box';
import { Line, LineChart, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { figure } from '@uvrex/core';
import { INK, MONO } from '@/ui/theme';

const tick = { fill: INK.mute, fontSize: 10, fontFamily: MONO };

/** A measured value over frames, with the present one marked. */
export function Chart({
  label,
  color,
  data,
  frame,
}: {
  label: string;
  color: string;
  data: { frame: number; value: number }[];
  frame: number;
}) {
  return (
    <Box role="img" aria-label={`${label} over frames`} sx={{ pt: 0.75 }}>
      <Box sx={{ fontSize: 11.5, color: 'text.secondary' }}>{label}</Box>
      <ResponsiveContainer width="100%" height={86}>
        <LineChart data={data} margin={{ top: 6, right: 6, bottom: 0, left: -14 }}>
          <XAxis
            dataKey="frame"
            type="number"
            domain={['dataMin', 'dataMax']}
            tick={tick}
            stroke={INK.line}
            tickCount={5}
          />
          <YAxis
            tick={tick}
            stroke={INK.line}
            width={48}
            tickCount={3}
            tickFormatter={(value: number) => figure(value, 2)}
          />
          <ReferenceLine x={frame} stroke={INK.front} />
          <Line dataKey="value" type="linear" stroke={color} strokeWidth={1.6} dot={false} isAnimationActive={false} />
        </LineChart>
      </ResponsiveContainer>
    </Box>
  );
}
