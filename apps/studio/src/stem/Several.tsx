'use client';

import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { Growth, GrowthGroup, NumberParam } from '@uvrex/core';
import { endEdit, useDocument } from '@/state/document/document';
import { askToKeep } from '@/state/actions/cuttingRequest';
import { changeGroup, groupGrowths, ungroup } from '@/state/actions/groups';
import {
  changeGrowths,
  deleteGrowths,
  duplicateGrowths,
  spreadLate,
  stepOfLate,
} from '@/state/actions/selectionActions';
import { NumberField } from '@/ui/NumberField';
import { HueRow } from './HueRow';

const EACH: NumberParam = {
  type: 'number',
  unit: 'frames',
  label: 'Stagger',
  help: 'Frames by which each of them runs later than the one above it in the list; the first stays as it is.',
  default: 0,
  min: -10000,
  max: 10000,
  slider: [-24, 24],
  whole: true,
};
const GROUP_LATE: NumberParam = {
  type: 'number',
  unit: 'frames',
  label: 'Group start delay',
  help: 'Frames by which all of the group runs later, on top of what its growths have of their own.',
  default: 0,
  min: -100000,
  max: 100000,
  slider: [-96, 96],
  whole: true,
};

/** What can be done with several growths at once. */
export function Several({ ids }: { ids: readonly string[] }) {
  const growths = useDocument((state) => state.scene.growths);
  const groups = useDocument((state) => state.scene.groups);
  const chosen = growths.filter(({ id }) => ids.includes(id));
  const group = wholeGroup(chosen, growths, groups);
  const all = (is: (growth: Growth) => boolean): boolean => chosen.every(is);
  const hue = chosen.every((growth) => growth.hue === chosen[0].hue) ? (chosen[0]?.hue ?? null) : null;
  const shown = all(({ visible }) => visible);
  const locked = all((growth) => growth.locked);
  const many = `${chosen.length} growths`;
  return (
    <Box
      component="section"
      aria-label={`${many} chosen`}
      sx={{
        flex: 1,
        minHeight: 0,
        overflowY: 'auto',
        px: 1.75,
        py: 1.25,
        display: 'grid',
        gap: 1,
        alignContent: 'start',
      }}
    >
      <Box sx={{ fontSize: 12, color: 'text.secondary' }}>{group ? `${group.name}: ${many}` : `${many} chosen`}</Box>
      <Box sx={{ fontSize: 13, lineHeight: 1.5 }}>{chosen.map(({ name }) => name).join(', ')}</Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 0.75 }}>
        <Button
          variant="outlined"
          color="inherit"
          onClick={() => changeGrowths(ids, `${shown ? 'Hide' : 'Show'} ${many}`, { visible: !shown })}
        >
          {shown ? 'Hide all' : 'Show all'}
        </Button>
        <Button
          variant="outlined"
          color="inherit"
          onClick={() => changeGrowths(ids, `${locked ? 'Unlock' : 'Lock'} ${many}`, { locked: !locked })}
        >
          {locked ? 'Unlock all' : 'Lock all'}
        </Button>
        <Button variant="outlined" color="inherit" onClick={() => duplicateGrowths(ids)}>
          Duplicate
        </Button>
        <Button variant="outlined" color="inherit" onClick={() => (group ? ungroup(group.id) : groupGrowths(ids))}>
          {group ? 'Ungroup' : 'Group'}
        </Button>
        <Button
          variant="outlined"
          color="inherit"
          onClick={() => askToKeep({ growths: ids })}
          sx={{ gridColumn: '1 / 3' }}
        >
          Keep as a cutting
        </Button>
        <Button variant="outlined" color="error" onClick={() => deleteGrowths(ids)} sx={{ gridColumn: '1 / 3' }}>
          Delete {many}
        </Button>
      </Box>
      {group && (
        <NumberField
          spec={GROUP_LATE}
          value={group.shift}
          accent={group.hue}
          onChange={(shift, live) => {
            changeGroup(group.id, 'Shift the group in time', { shift }, `group late:${group.id}`);
            if (!live) endEdit();
          }}
        />
      )}
      <NumberField
        spec={EACH}
        value={stepOfLate(ids) ?? 0}
        accent={hue ?? undefined}
        onChange={(by, live) => {
          spreadLate(ids, by, 'each later');
          if (!live) endEdit();
        }}
      />
      <Box>
        <Box sx={{ fontSize: 13 }}>Hue of all</Box>
        <Box sx={{ mx: -2 }}>
          <HueRow value={hue} pick={(next) => changeGrowths(ids, 'Change hue', { hue: next })} />
        </Box>
      </Box>
    </Box>
  );
}

/** The group that growths are all of. */
function wholeGroup(
  chosen: readonly Growth[],
  growths: readonly Growth[],
  groups: readonly GrowthGroup[],
): GrowthGroup | undefined {
  const id = chosen[0]?.group ?? null;
  if (id === null || chosen.some(({ group }) => group !== id)) return undefined;
  return growths.filter(({ group }) => group === id).length === chosen.length
    ? groups.find((group) => group.id === id)
    : undefined;
}
