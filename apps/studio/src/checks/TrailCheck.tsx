'use client';

import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useEffect } from 'react';
import { figure } from '@uvrex/core';
import { growthIn, useDocument } from '@/state/document/document';
import { setView, useView } from '@/state/document/view';
import { INK } from '@/ui/theme';
import { Chart } from './Chart';
import { followPoint, stopFollowing, useFollowing } from './follow';

/** Where a point travels over the range, how fast, and how smoothly. */
export function TrailCheck() {
  const scene = useDocument((state) => state.scene);
  const frame = useView((state) => state.frame);
  const trail = useView((state) => state.trail);
  const { target, share } = useFollowing();
  useEffect(() => stopFollowing, []);
  const data = (values: Float32Array): { frame: number; value: number }[] =>
    Array.from(values, (value, i) => ({ frame: trail!.first + i, value })).filter(({ value }) => !Number.isNaN(value));
  return (
    <>
      <h3>Trail{target ? ` of a point of ${growthIn(scene, target.growth)?.name ?? 'a growth'}` : ''}</h3>
      <Box sx={{ color: 'text.secondary', pb: 1 }}>Pick a point of a copy or of a skin, and see where it travels.</Box>
      <Box sx={{ display: 'flex', gap: 1 }}>
        <Button
          variant="outlined"
          color="inherit"
          onClick={() => setView({ tool: 'pick', playing: false })}
          sx={{ borderColor: INK.line }}
        >
          Pick a point
        </Button>
        {target && share === null && (
          <Button color="inherit" onClick={() => void followPoint(target)}>
            Follow again
          </Button>
        )}
        {target && (
          <Button color="inherit" onClick={stopFollowing}>
            {share === null ? 'Forget it' : 'Cancel'}
          </Button>
        )}
      </Box>
      {share !== null && (
        <LinearProgress variant="determinate" value={100 * share} aria-label="Following the point" sx={{ mt: 1 }} />
      )}
      {trail && (
        <Box data-testid="trail-charts">
          <Chart label="Speed, m/s" color={INK.front} frame={frame} data={data(trail.speed)} />
          <Chart label="Jerk, m/s³" color="#f2d06b" frame={frame} data={data(trail.jerk)} />
          <Box sx={{ color: 'text.secondary' }}>Fastest {figure(largest(trail.speed), 3)} m/s</Box>
        </Box>
      )}
    </>
  );
}

const largest = (values: Float32Array): number =>
  values.reduce((top, value) => (Number.isNaN(value) ? top : Math.max(top, value)), 0);
