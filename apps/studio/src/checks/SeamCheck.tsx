'use client';

import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { CLOSED, figure, type Scene, type Seam } from '@uvrex/core';
import { edit, growthIn, useDocument } from '@/state/document/document';
import { INK, MONO } from '@/ui/theme';
import { CheckBar } from './CheckBar';
import { useOwnEngine } from './ownEngine';

/** How the end of the range meets its beginning, by growth; and the shortest range that closes. */
export function SeamCheck() {
  const scene = useDocument((state) => state.scene);
  const { busy, run, cancel } = useOwnEngine<'seam' | 'loop'>();
  const [seam, setSeam] = useState<{ of: Scene; seam: Seam } | null>(null);
  const [loop, setLoop] = useState<{ of: Scene; end: number | null } | null>(null);
  const measure = () =>
    run(
      'seam',
      (at) => at.seam(),
      (found) => setSeam({ of: scene, seam: found }),
    );
  const search = () =>
    run(
      'loop',
      (at) => at.loop(),
      ({ end }) => setLoop({ of: scene, end }),
    );
  const [first, last] = scene.range;
  const current = seam?.of === scene ? seam.seam : null;
  const found = loop?.of === scene ? loop : null;

  return (
    <>
      <h3>Seam at frame {last + 1}</h3>
      <Box sx={{ color: 'text.secondary', pb: 1 }}>
        The frame after the last against the first: largest distance, and how the motion differs.
      </Box>
      <CheckBar
        actions={[
          { label: 'Measure', run: () => void measure() },
          { label: 'Find the shortest loop', run: () => void search() },
        ]}
        doing={busy && (busy === 'seam' ? 'Measuring the seam' : 'Looking for a loop')}
        cancel={cancel}
      />
      {current && (
        <Box role="status" data-testid="seam" sx={{ pt: 1 }}>
          {current.growths.map(({ id, gap, jolt }) => {
            const closed = gap <= CLOSED * current.size;
            return (
              <Box key={id} sx={{ display: 'flex', gap: 1, py: 0.25 }}>
                <Box component="span" sx={{ flex: 1 }}>
                  {growthIn(scene, id)?.name}
                </Box>
                <Box
                  component="span"
                  sx={{ fontFamily: MONO, fontSize: 12, color: closed ? INK.sprout : '#f2d06b', textAlign: 'right' }}
                >
                  {Number.isFinite(gap)
                    ? `${figure(1000 * gap, 2)} mm, ${figure((100 * gap) / (current.size || 1), 2)} %`
                    : 'nothing to meet'}
                  {Number.isFinite(jolt) && jolt > 0 ? `; ${figure(1000 * jolt, 1)} mm/s` : ''}
                </Box>
              </Box>
            );
          })}
        </Box>
      )}
      {found && found.end === null && (
        <Box role="status" sx={{ pt: 1, color: 'text.secondary' }}>
          No shorter range closes. Noise and waves with Loop on close the range that is set.
        </Box>
      )}
      {found && found.end !== null && (
        <Box role="status" sx={{ pt: 1, display: 'flex', alignItems: 'center', gap: 1 }}>
          {found.end === last
            ? 'The present range is the shortest that closes.'
            : `Frames ${first} to ${found.end} close.`}
          {found.end !== last && (
            <Button
              variant="contained"
              onClick={() =>
                edit('Set the range to the loop', (draft) => void (draft.range = [first, found.end ?? last]))
              }
            >
              Use them
            </Button>
          )}
        </Box>
      )}
    </>
  );
}
