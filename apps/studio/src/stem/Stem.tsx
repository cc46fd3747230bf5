'use client';

import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import { useMemo } from 'react';
import type { Growth, Notice, NumberParam } from '@uvrex/core';
import { changeGrowth, moveStep, titleOf, usersOf } from '@/state/actions';
import { endEdit, useDocument } from '@/state/document';
import { useResults } from '@/state/results';
import { select, setView } from '@/state/view';
import { NumberField } from '@/ui/NumberField';
import { INK } from '@/ui/theme';
import { PlaceRow } from './PlaceRow';
import { SortableRows } from './SortableRows';
import { StepRow } from './StepRow';

const SEED: NumberParam = {
  type: 'number',
  unit: 'count',
  label: 'Seed',
  help: 'Everything random in this growth hangs on it.',
  default: 0,
  min: 0,
  max: 4294967295,
  slider: [0, 9999],
  whole: true,
};
const LATE: NumberParam = {
  type: 'number',
  unit: 'count',
  label: 'Starts late by',
  help: 'Frames by which the whole growth runs later; keys keep their places on its own clock.',
  default: 0,
  min: -100000,
  max: 100000,
  slider: [-96, 96],
  whole: true,
};

/** What steps without notices are given: always the same, so that their rows need not be drawn again. */
const NONE: Notice[] = [];

/** The steps of a growth from first to last, along a drawn line. */
export function Stem({ growth }: { growth: Growth }) {
  // As text, which is the same from frame to frame unless something else is told.
  const told = useResults((state) =>
    JSON.stringify(state.record?.growths.find(({ id }) => id === growth.id)?.notices ?? NONE),
  );
  const lost = useResults((state) => state.lost);
  const { notices, ofSteps } = useMemo(() => {
    const notices = [...(JSON.parse(told) as Notice[]), ...(lost?.place.growth === growth.id ? [lost] : [])];
    const ofSteps = new Map<string, Notice[]>();
    for (const notice of notices)
      if (notice.place.step) ofSteps.set(notice.place.step, [...(ofSteps.get(notice.place.step) ?? []), notice]);
    return { notices, ofSteps };
  }, [told, lost, growth.id]);
  const set = (part: 'seed' | 'shift', label: string) => (value: number, live: boolean) => {
    changeGrowth(growth.id, label, { [part]: value }, `${part}:${growth.id}`);
    if (!live) endEdit();
  };

  return (
    <Box
      component="section"
      aria-label={`${growth.name}, step by step`}
      sx={{ flex: 1, minHeight: 0, overflowY: 'auto', pb: 3 }}
    >
      <Box sx={{ px: 1.75, pt: 1.25, pb: 0.5, fontSize: 12, color: 'text.secondary' }}>{growth.name}, step by step</Box>
      <UsedBy growth={growth} />
      {growth.locked && <Locked growth={growth} />}
      {notices
        .filter(({ place }) => !place.step)
        .map((notice) => (
          <Box key={notice.what} role="alert" sx={{ mx: 1.75, my: 0.5, color: 'error.main', fontSize: 12.5 }}>
            {notice.what} {notice.advice}
          </Box>
        ))}
      {/* What is locked can be read and not changed. */}
      <div inert={growth.locked} style={growth.locked ? { opacity: 0.6 } : undefined}>
        <Box
          sx={{
            position: 'relative',
            '&:before': {
              content: '""',
              position: 'absolute',
              left: 25,
              top: 18,
              bottom: 20,
              width: 2,
              bgcolor: growth.hue,
              opacity: 0.45,
            },
          }}
        >
          <SortableRows
            rows={growth.steps.map((step) => ({ id: step.id, name: titleOf(step) }))}
            onMove={(from, to) => moveStep(growth.id, from, to)}
          >
            {growth.steps.map((step) => (
              <StepRow
                key={step.id}
                growth={growth.id}
                hue={growth.hue}
                step={step}
                notices={ofSteps.get(step.id) ?? NONE}
              />
            ))}
          </SortableRows>
          <Box sx={{ pl: '46px', pr: 1.75, pt: 0.5 }}>
            <Button
              color="inherit"
              sx={{ color: growth.hue, border: `1px dashed ${INK.line}`, width: '100%' }}
              onClick={() => setView({ palette: 'steps' })}
            >
              Add a step
            </Button>
          </Box>
        </Box>
        <PlaceRow growth={growth} />
        <Box sx={{ px: 1.75, pt: 2 }}>
          <NumberField spec={SEED} value={growth.seed} accent={growth.hue} onChange={set('seed', 'Change the seed')} />
          <NumberField spec={LATE} value={growth.shift} accent={growth.hue} onChange={set('shift', 'Shift in time')} />
        </Box>
      </div>
    </Box>
  );
}

/** Says that a growth is locked, and unlocks it. */
function Locked({ growth }: { growth: Growth }) {
  return (
    <Box sx={{ mx: 1.75, my: 0.5, display: 'flex', alignItems: 'center', gap: 1, fontSize: 12.5 }}>
      <Box sx={{ flex: 1 }}>Locked, so that nothing of it is changed by mistake.</Box>
      <Button
        variant="outlined"
        color="inherit"
        onClick={() => changeGrowth(growth.id, 'Unlock growth', { locked: false })}
      >
        Unlock
      </Button>
    </Box>
  );
}

/** Who copies a growth or takes something of it over; a click goes there. */
function UsedBy({ growth }: { growth: Growth }) {
  const told = useDocument(({ scene }) =>
    JSON.stringify(usersOf(scene, growth.id).map(({ id, name }): [string, string] => [id, name])),
  );
  const users = JSON.parse(told) as [id: string, name: string][];
  if (users.length === 0) return null;
  return (
    <Box sx={{ px: 1.75, pb: 0.5, fontSize: 12, color: 'text.secondary' }}>
      Used by{' '}
      {users.map(([id, name], i) => (
        <Box component="span" key={id}>
          {i > 0 && ', '}
          <ButtonBase
            onClick={() => select(id)}
            sx={{ font: 'inherit', color: 'primary.main', borderRadius: 0.5, verticalAlign: 'baseline' }}
          >
            {name}
          </ButtonBase>
        </Box>
      ))}
    </Box>
  );
}
