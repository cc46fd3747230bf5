'use client';

import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { useEffect, useState } from 'react';
import { figure, type Scene, type Vec3 } from '@uvrex/core';
import { growthIn, useDocument } from '@/state/document/document';
import { setView, useView } from '@/state/document/view';
import { INK, MONO } from '@/ui/theme';
import type { FitReport } from '@/worker/protocol';
import { CheckBar } from './CheckBar';
import { useOwnEngine } from './ownEngine';

/** Rows of a list that are shown. */
const SHOWN = 6;
const millimetres = (metres: number): string => `${figure(1000 * metres, 2)} mm`;

/** How copies go beside each other at the present frame: gaps along paths, and which cut into each other. */
export function FitCheck() {
  const scene = useDocument((state) => state.scene);
  const { busy, share, run, cancel } = useOwnEngine<'fit'>();
  const [found, setFound] = useState<{ of: Scene; frame: number; reports: FitReport[] } | null>(null);
  useEffect(() => () => setView({ pins: [] }), []);
  const measure = (): void => {
    const { frame } = useView.getState();
    void run(
      'fit',
      (engine) => engine.fit(frame),
      (reports) => setFound({ of: scene, frame, reports }),
    );
  };
  const current = found?.of === scene ? found : null;
  return (
    <>
      <h3>Fit and clashes</h3>
      <Box sx={{ color: 'text.secondary', pb: 1 }}>
        The gap between neighbours along each path at this frame, and copies that cut into each other.
      </Box>
      <CheckBar
        actions={[{ label: 'Check the copies', run: measure }]}
        doing={busy && 'Checking the copies'}
        share={share}
        cancel={cancel}
      />
      {current && (
        <Box role="status" data-testid="fit" sx={{ pt: 1 }}>
          {current.reports.length === 0 && 'No growth shows copies at this frame.'}
          {current.reports.map((report) => (
            <Report key={report.growth} report={report} name={growthIn(scene, report.growth)?.name ?? ''} />
          ))}
        </Box>
      )}
    </>
  );
}

function Report({ report: { fit, clashes, complete }, name }: { report: FitReport; name: string }) {
  return (
    <Box sx={{ pb: 1 }}>
      <Box sx={{ fontWeight: 650 }}>{name}</Box>
      {fit.length > 0 && (
        <>
          <Box sx={{ color: 'text.secondary' }}>
            {fit.length} pairs of neighbours, gaps {millimetres(fit[0].gap)} to {millimetres(fit[fit.length - 1].gap)}
          </Box>
          {fit.slice(0, SHOWN).map(({ a, b, gap, place }) => (
            <Found key={a} place={place} label={`${a + 1} and ${b + 1}: ${millimetres(gap)}`} bad={gap < 0} />
          ))}
        </>
      )}
      <Box sx={{ color: 'text.secondary' }}>
        {clashes.length === 0
          ? 'No copies cut into each other.'
          : `${clashes.length}${complete ? '' : ' or more'} pairs cut into each other.`}
      </Box>
      {clashes.slice(0, SHOWN).map(({ a, b, place }) => (
        <Found key={`${a} ${b}`} place={place} label={`${a + 1} cuts ${b + 1}`} bad />
      ))}
    </Box>
  );
}

/** A place that was found: clicked, it is marked in the picture. */
function Found({ place, label, bad }: { place: Vec3; label: string; bad: boolean }) {
  const on = useView((state) => state.pins.some((pin) => pin.place === place));
  return (
    <ButtonBase
      aria-pressed={on}
      onClick={() => setView({ pins: on ? [] : [{ place, label }] })}
      sx={{
        display: 'block',
        width: '100%',
        textAlign: 'left',
        fontFamily: MONO,
        fontSize: 12,
        py: 0.2,
        px: 0.75,
        borderRadius: 1,
        color: bad ? '#f2d06b' : INK.sprout,
        bgcolor: on ? INK.raised : 'transparent',
        '&:hover': { bgcolor: INK.raised },
      }}
    >
      {label}
    </ButtonBase>
  );
}
