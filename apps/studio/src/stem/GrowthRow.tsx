'use client';

import Lock from '@mui/icons-material/Lock';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import IconButton from '@mui/material/IconButton';
import { memo, type MouseEvent, useState } from 'react';
import type { Growth } from '@uvrex/core';
import { changeGrowth, deleteGrowth, duplicateGrowth } from '@/state/actions';
import { withClips } from '@/state/clipsLater';
import { useDocument } from '@/state/document';
import { groupGrowths, takeOutOfGroup } from '@/state/groups';
import { askToKeep } from '@/state/keepAsked';
import { useResults } from '@/state/results';
import { chosenIn, useView } from '@/state/view';
import { PodShape } from '@/timeline/PodShape';
import { focusRow, rowBeside } from '@/ui/focusRow';
import { MoreMenu } from '@/ui/MoreMenu';
import { RenameInput } from '@/ui/RenameInput';
import { HueRow } from './HueRow';
import { CUT, Dot, Eye, rowStyle } from './listStyle';
import { useRowDrag } from './SortableRows';

/** Measured frame by frame; the row around it need not be drawn anew each time. */
function SmallPod({ growth }: { growth: Growth }) {
  const shares = useResults((state) => state.shares.get(growth.id));
  return (
    shares && (
      <svg width="84" height="18" aria-hidden>
        <PodShape shares={shares} width={84} height={18} hue={growth.hue} opacity={growth.visible ? 0.85 : 0.3} />
      </svg>
    )
  );
}

interface Props {
  growth: Growth;
  /** It is in a group. */
  inGroup: boolean;
  /** Neither it nor its group is hidden. */
  shown: boolean;
  choose: (growth: string, event: MouseEvent) => void;
}

/** A growth in the list: a click selects it, with Ctrl or Shift several. */
export const GrowthRow = memo(function GrowthRow({ growth, inGroup, shown, choose }: Props) {
  const [naming, setNaming] = useState(false);
  const drag = useRowDrag(growth.id);
  const selected = useView((view) => chosenIn(view).includes(growth.id));
  const failed = useResults((state) => state.record?.growths.some(({ id, failed: bad }) => id === growth.id && bad));
  return (
    <Box ref={drag.ref} sx={{ ...rowStyle(growth.hue, selected), ...(inGroup && { pl: 3.75 }) }} style={drag.style}>
      <Dot hue={growth.hue} hollow={!shown} />
      {naming ? (
        <RenameInput
          value={growth.name}
          label="Name of the growth"
          done={(name) => {
            setNaming(false);
            if (name) changeGrowth(growth.id, 'Rename growth', { name });
          }}
        />
      ) : (
        <ButtonBase
          {...drag.handle}
          data-row={growth.id}
          aria-pressed={selected}
          onClick={(event) => choose(growth.id, event)}
          onDoubleClick={() => setNaming(true)}
          sx={{
            flex: 1,
            minWidth: 0,
            minHeight: 28,
            justifyContent: 'space-between',
            gap: 1,
            font: 'inherit',
            color: failed ? 'error.main' : shown ? 'inherit' : 'text.secondary',
          }}
        >
          <Box component="span" sx={CUT}>
            {growth.name}
          </Box>
          <SmallPod growth={growth} />
        </ButtonBase>
      )}
      {growth.locked && (
        <IconButton
          aria-label={`Unlock ${growth.name}`}
          onClick={() => changeGrowth(growth.id, 'Unlock growth', { locked: false })}
          sx={{ p: 0.25, color: 'text.secondary' }}
        >
          <Lock sx={{ fontSize: 15 }} />
        </IconButton>
      )}
      <Eye
        name={growth.name}
        visible={growth.visible}
        toggle={() =>
          changeGrowth(growth.id, growth.visible ? 'Hide growth' : 'Show growth', { visible: !growth.visible })
        }
      />
      <MoreMenu
        of={growth.name}
        items={[
          { label: 'Rename', run: () => setNaming(true) },
          { label: 'Duplicate', run: () => duplicateGrowth(growth.id) },
          { label: 'Copy', run: () => withClips(({ copyGrowth }) => copyGrowth(growth)) },
          { label: 'Keep as a cutting', run: () => askToKeep({ growths: [growth.id] }) },
          { label: 'Copy tracks', run: () => withClips(({ copyTracks }) => copyTracks(growth)) },
          inGroup
            ? { label: 'Take out of the group', run: () => takeOutOfGroup(growth.id) }
            : { label: 'Put into a new group', run: () => groupGrowths([growth.id]) },
          growth.locked
            ? { label: 'Unlock', run: () => changeGrowth(growth.id, 'Unlock growth', { locked: false }) }
            : { label: 'Lock', run: () => changeGrowth(growth.id, 'Lock growth', { locked: true }) },
          {
            label: 'Delete',
            run: () => {
              const next = rowBeside(useDocument.getState().scene.growths, growth.id);
              deleteGrowth(growth.id);
              focusRow(next);
            },
          },
        ]}
      >
        {(close) => (
          <HueRow
            value={growth.hue}
            pick={(hue) => {
              changeGrowth(growth.id, 'Change hue', { hue });
              close();
            }}
          />
        )}
      </MoreMenu>
    </Box>
  );
});
