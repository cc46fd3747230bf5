'use client';

import Box from '@mui/material/Box';
import { Line, LineChart, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { figure, paceOf } from '@uvrex/core';
import { growthIn, useDocument } from '@/state/document';
import { useResults } from '@/state/results';
import { useView } from '@/state/view';
import { INK, MONO } from '@/ui/theme';

const tick = { fill: INK.mute, fontSize: 10, fontFamily: MONO };

/** Visible length and tip speed of the selected growth over the range, and how uneven its pace is. */
export function PaceCheck() {
  const scene = useDocument((state) => state.scene);
  const frame = useView((state) => state.frame);
  const growth =
    growthIn(
      scene,
      useView((state) => state.growth),
    ) ?? scene.growths[0];
  const lengths = useResults((state) => (growth ? state.lengths.get(growth.id) : undefined));
  const first = scene.range[0];
  if (!growth) return null;
  const known = lengths && !lengths.some(Number.isNaN) ? lengths : null;
  const pace = known && paceOf(known, scene.fps);
  return (
    <>
      <h3>Pace of {growth.name}</h3>
      {!known || !pace ? (
        <Box sx={{ color: 'text.secondary' }}>Measured as soon as all frames are ready.</Box>
      ) : (
        <>
          <Box data-testid="pace" sx={{ color: 'text.secondary' }}>
            {pace.unevenness === null
              ? 'Its length does not change.'
              : `Unevenness ${figure(100 * pace.unevenness, 1)} %, fastest ${figure(Math.max(...pace.speed.map(Math.abs)), 3)} m/s`}
          </Box>
          {pace.unevenness !== null && (
            <>
              <Chart
                label="Length, m"
                color={growth.hue}
                frame={frame}
                data={Array.from(known, (value, i) => ({ frame: first + i, value }))}
              />
              <Chart
                label="Speed of its tips, m/s"
                color={INK.front}
                frame={frame}
                data={Array.from(pace.speed, (value, i) => ({ frame: first + i, value }))}
              />
            </>
          )}
        </>
      )}
    </>
  );
}

function Chart({
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
