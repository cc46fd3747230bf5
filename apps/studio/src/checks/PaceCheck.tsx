'use client';

import Box from '@mui/material/Box';
import { figure, paceOf } from '@uvrex/core';
import { growthIn, useDocument } from '@/state/document/document';
import { useResults } from '@/state/director/results';
import { useView } from '@/state/document/view';
import { INK } from '@/ui/theme';
import { Chart } from './Chart';

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
        <Box sx={{ color: 'text.secondary' }}>
          {growth.visible
            ? 'Measured as soon as all frames are ready.'
            : 'Measured while it is shown: it is hidden now.'}
        </Box>
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
