'use client';

import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import { memo, useMemo } from 'react';
import { useShallow } from 'zustand/react/shallow';
import type { Growth, Notice, NumberParam } from '@uvrex/core';
import { changeGrowth } from '@/state/actions/growthActions';
import { usersOf } from '@/state/actions/items';
import { moveStep, titleOf } from '@/state/actions/stepActions';
import { endEdit, growthIn, useDocument } from '@/state/document/document';
import { useResults } from '@/state/director/results';
import { select, setView } from '@/state/document/view';
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
  unit: 'frames',
  label: 'Start delay',
  help: 'Frames by which the whole growth runs later; keys keep their places on its own clock.',
  default: 0,
  min: -100000,
  max: 100000,
  slider: [-96, 96],
  whole: true,
};

/** What steps without notices are given: always the same, so that their rows need not be drawn again. */
const NONE: Notice[] = [];

const nameOfStep = (growth: Growth, id: string): string => {
  const step = growth.steps.find((one) => one.id === id);
  return step ? titleOf(step) : '';
};

/** What is shown of a growth besides its steps: alone, since it is the same while a number of a step is dragged. */
const headOf = ({ name, hue, locked }: Growth) => ({ name, hue, locked });

/** The steps of a growth from first to last, along a drawn line. */
export const Stem = memo(function Stem({ growth: id }: { growth: string }) {
  const head = useDocument(
    useShallow(({ scene }) => {
      const growth = growthIn(scene, id);
      return growth ? headOf(growth) : null;
    }),
  );
  // As text, which is the same from frame to frame unless something else is told.
  const told = useResults((state) =>
    JSON.stringify(state.record?.growths.find((one) => one.id === id)?.notices ?? NONE),
  );
  const lost = useResults((state) => state.lost);
  const { notices, ofSteps } = useMemo(() => {
    const notices = [...(JSON.parse(told) as Notice[]), ...(lost?.place.growth === id ? [lost] : [])];
    const ofSteps = new Map<string, Notice[]>();
    for (const notice of notices)
      if (notice.place.step) ofSteps.set(notice.place.step, [...(ofSteps.get(notice.place.step) ?? []), notice]);
    return { notices, ofSteps };
  }, [told, lost, id]);
  if (!head) return null;
  const { name, hue, locked } = head;

  return (
    <Box
      component="section"
      aria-label={`${name}, step by step`}
      sx={{ flex: 1, minHeight: 0, overflowY: 'auto', pb: 3 }}
    >
      <Box sx={{ px: 1.75, pt: 1.25, pb: 0.5, fontSize: 12, color: 'text.secondary' }}>{name}, step by step</Box>
      <UsedBy growth={id} />
      {locked && <Locked growth={id} />}
      {notices
        .filter(({ place }) => !place.step)
        .map((notice) => (
          <Box key={notice.what} role="alert" sx={{ mx: 1.75, my: 0.5, color: 'error.main', fontSize: 12.5 }}>
            {notice.what} {notice.advice}
          </Box>
        ))}
      {/* What is locked can be read and not changed. */}
      <div inert={locked} style={locked ? { opacity: 0.6 } : undefined}>
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
              bgcolor: hue,
              opacity: 0.45,
            },
          }}
        >
          <StepRows growth={id} hue={hue} ofSteps={ofSteps} />
          <Box sx={{ pl: '46px', pr: 1.75, pt: 0.5 }}>
            <Button
              color="inherit"
              sx={{ color: hue, border: `1px dashed ${INK.line}`, width: '100%' }}
              onClick={() => setView({ palette: 'steps' })}
            >
              Add a step
            </Button>
          </Box>
        </Box>
        <PlaceRow growth={id} />
        <Box sx={{ px: 1.75, pt: 2 }}>
          <OwnNumber growth={id} hue={hue} part="seed" spec={SEED} label="Change the seed" />
          <OwnNumber growth={id} hue={hue} part="shift" spec={LATE} label="Shift in time" />
        </Box>
      </div>
    </Box>
  );
});

/** The rows of a growth's steps, made anew where their order, or what is wrong with one, is another. */
const StepRows = memo(function StepRows({
  growth,
  hue,
  ofSteps,
}: {
  growth: string;
  hue: string;
  ofSteps: ReadonlyMap<string, Notice[]>;
}) {
  const ids = useDocument(useShallow(({ scene }) => growthIn(scene, growth)?.steps.map(({ id }) => id) ?? []));
  return (
    <SortableRows
      ids={ids}
      nameOf={(id) => {
        const whole = growthIn(useDocument.getState().scene, growth);
        return whole ? nameOfStep(whole, id) : '';
      }}
      onMove={(from, to) => moveStep(growth, from, to)}
    >
      {ids.map((id) => (
        <StepRow key={id} growth={growth} hue={hue} step={id} notices={ofSteps.get(id) ?? NONE} />
      ))}
    </SortableRows>
  );
});

/** A number of the growth itself. */
function OwnNumber({
  growth,
  hue,
  part,
  spec,
  label,
}: {
  growth: string;
  hue: string;
  part: 'seed' | 'shift';
  spec: NumberParam;
  label: string;
}) {
  const value = useDocument(({ scene }) => growthIn(scene, growth)?.[part] ?? 0);
  return (
    <NumberField
      spec={spec}
      value={value}
      accent={hue}
      onChange={(next, live) => {
        changeGrowth(growth, label, { [part]: next }, `${part}:${growth}`);
        if (!live) endEdit();
      }}
    />
  );
}

/** Says that a growth is locked, and unlocks it. */
function Locked({ growth }: { growth: string }) {
  return (
    <Box sx={{ mx: 1.75, my: 0.5, display: 'flex', alignItems: 'center', gap: 1, fontSize: 12.5 }}>
      <Box sx={{ flex: 1 }}>Locked, so that nothing of it is changed by mistake.</Box>
      <Button
        variant="outlined"
        color="inherit"
        onClick={() => changeGrowth(growth, 'Unlock growth', { locked: false })}
      >
        Unlock
      </Button>
    </Box>
  );
}

/** Who copies a growth or takes something of it over; a click goes there. */
function UsedBy({ growth }: { growth: string }) {
  const told = useDocument(({ scene }) => {
    // Or copies the group that it is in, as a whole.
    const group = growthIn(scene, growth)?.group;
    const both = [...usersOf(scene, growth), ...(group ? usersOf(scene, group) : [])];
    return JSON.stringify([...new Set(both)].map(({ id, name }): [string, string] => [id, name]));
  });
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
