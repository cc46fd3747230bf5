'use client';

import Lock from '@mui/icons-material/Lock';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import IconButton from '@mui/material/IconButton';
import dynamic from 'next/dynamic';
import { memo, type MouseEvent, useState } from 'react';
import { useShallow } from 'zustand/react/shallow';
import type { Growth } from '@uvrex/core';
import { changeGrowth, deleteGrowth, duplicateGrowth } from '@/state/actions/growthActions';
import { withClips } from '@/state/actions/lazyClips';
import { growthIn, useDocument } from '@/state/document/document';
import { groupGrowths, takeOutOfGroup } from '@/state/actions/groups';
import { askToKeep } from '@/state/actions/cuttingRequest';
import { useResults } from '@/state/director/results';
import { chosenIn, useView } from '@/state/document/view';
import { PodShape } from '@/timeline/PodShape';
import { focusRow, rowBeside } from '@/ui/focusRow';
import { MoreMenu } from '@/ui/MoreMenu';
import { RenameInput } from '@/ui/RenameInput';
import { CUT, Dot, Eye, rowStyle } from './listStyle';
import { useRowDrag } from './SortableRows';

// Loaded with the menu that it stands in.
const HueItems = dynamic(() => import('./HueItems').then((module) => module.HueItems), { ssr: false });

/** Measured frame by frame; the row around it need not be drawn anew each time. */
function SmallPod({ growth, hue, visible }: { growth: string; hue: string; visible: boolean }) {
  const shares = useResults((state) => state.shares.get(growth));
  return (
    shares && (
      <svg width="84" height="18" aria-hidden>
        <PodShape shares={shares} width={84} height={18} hue={hue} opacity={visible ? 0.85 : 0.3} />
      </svg>
    )
  );
}

interface Props {
  /** Which growth, not the growth itself, which is another after each change of a step of it. */
  growth: string;
  /** It is in a group. */
  inGroup: boolean;
  /** Neither it nor its group is hidden. */
  shown: boolean;
  choose: (growth: string, event: MouseEvent) => void;
}

const growthNow = (id: string): Growth => growthIn(useDocument.getState().scene, id)!;

/** What the row shows of a growth. */
const headOf = ({ name, hue, visible, locked }: Growth) => ({ name, hue, visible, locked });

/** A growth in the list: a click selects it, with Ctrl or Shift several. */
export const GrowthRow = memo(function GrowthRow({ growth: id, inGroup, shown, choose }: Props) {
  const head = useDocument(
    useShallow(({ scene }) => {
      const growth = growthIn(scene, id);
      return growth ? headOf(growth) : null;
    }),
  );
  const [naming, setNaming] = useState(false);
  const drag = useRowDrag(id);
  const selected = useView((view) => chosenIn(view).includes(id));
  const failed = useResults((state) => state.record?.growths.some((one) => one.id === id && one.failed));
  if (!head) return null;
  const { name, hue, visible, locked } = head;
  return (
    <Box ref={drag.ref} sx={{ ...rowStyle(hue, selected), ...(inGroup && { pl: 3.75 }) }} style={drag.style}>
      <Dot hue={hue} hollow={!shown} />
      {naming ? (
        <RenameInput
          value={name}
          label="Name of the growth"
          done={(given) => {
            setNaming(false);
            if (given) changeGrowth(id, 'Rename growth', { name: given });
          }}
        />
      ) : (
        <ButtonBase
          {...drag.handle}
          data-row={id}
          aria-pressed={selected}
          onClick={(event) => choose(id, event)}
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
            {name}
          </Box>
          <SmallPod growth={id} hue={hue} visible={visible} />
        </ButtonBase>
      )}
      {locked && (
        <IconButton
          aria-label={`Unlock ${name}`}
          onClick={() => changeGrowth(id, 'Unlock growth', { locked: false })}
          sx={{ p: 0.25, color: 'text.secondary' }}
        >
          <Lock sx={{ fontSize: 15 }} />
        </IconButton>
      )}
      <Eye
        name={name}
        visible={visible}
        toggle={() => changeGrowth(id, visible ? 'Hide growth' : 'Show growth', { visible: !visible })}
      />
      <MoreMenu
        of={name}
        items={[
          { label: 'Rename', run: () => setNaming(true) },
          { label: 'Duplicate', run: () => duplicateGrowth(id) },
          { label: 'Copy', run: () => withClips(({ copyGrowth }) => copyGrowth(growthNow(id))) },
          { label: 'Keep as a cutting', run: () => askToKeep({ growths: [id] }) },
          { label: 'Copy tracks', run: () => withClips(({ copyTracks }) => copyTracks(growthNow(id))) },
          inGroup
            ? { label: 'Remove from the group', run: () => takeOutOfGroup(id) }
            : { label: 'Put into a new group', run: () => groupGrowths([id]) },
          locked
            ? { label: 'Unlock', run: () => changeGrowth(id, 'Unlock growth', { locked: false }) }
            : { label: 'Lock', run: () => changeGrowth(id, 'Lock growth', { locked: true }) },
          {
            label: 'Delete',
            run: () => {
              const next = rowBeside(useDocument.getState().scene.growths, id);
              deleteGrowth(id);
              focusRow(next);
            },
          },
        ]}
      >
        {(close) => (
          <HueItems
            value={hue}
            pick={(next) => {
              changeGrowth(id, 'Change hue', { hue: next });
              close();
            }}
          />
        )}
      </MoreMenu>
    </Box>
  );
});
