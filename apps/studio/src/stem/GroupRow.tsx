'use client';

import ExpandMore from '@mui/icons-material/ExpandMore';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import IconButton from '@mui/material/IconButton';
import dynamic from 'next/dynamic';
import { memo, useState } from 'react';
import { changeGroup, foldGroup, ungroup } from '@/state/actions/groups';
import { useDocument } from '@/state/document/document';
import { chosenIn, setView, useView } from '@/state/document/view';
import { MoreMenu } from '@/ui/MoreMenu';
import { RenameInput } from '@/ui/RenameInput';
import { CUT, Eye, rowStyle } from './listStyle';
import { useRowDrag } from './SortableRows';

// Loaded with the menu that it stands in.
const HueItems = dynamic(() => import('./HueItems').then((module) => module.HueItems), { ssr: false });

interface Props {
  group: string;
  /** The growths that are in it. */
  members: readonly string[];
}

/** A group in the list: its name chooses all that is in it, its arrow folds them away. */
export const GroupRow = memo(function GroupRow({ group: id, members }: Props) {
  const group = useDocument(({ scene }) => scene.groups.find((one) => one.id === id));
  const [naming, setNaming] = useState(false);
  const drag = useRowDrag(id);
  const folded = useView((view) => view.folded.includes(id));
  const whole = useView((view) => {
    const chosen = chosenIn(view);
    return chosen.length === members.length && members.every((member) => chosen.includes(member));
  });
  if (!group) return null;
  return (
    <Box ref={drag.ref} sx={{ ...rowStyle(group.hue, whole), gap: 0.5, pl: 1 }} style={drag.style}>
      <IconButton
        aria-label={folded ? `Show what is in ${group.name}` : `Fold ${group.name}`}
        aria-expanded={!folded}
        onClick={() => foldGroup(id)}
        sx={{ p: 0.25, color: group.hue }}
      >
        <ExpandMore sx={{ fontSize: 18, transform: folded ? 'rotate(-90deg)' : 'none' }} />
      </IconButton>
      {naming ? (
        <RenameInput
          value={group.name}
          label="Name of the group"
          done={(name) => {
            setNaming(false);
            if (name) changeGroup(id, 'Rename group', { name });
          }}
        />
      ) : (
        <ButtonBase
          {...drag.handle}
          data-row={id}
          aria-pressed={whole}
          onClick={() => setView({ growth: members[0], chosen: [...members], keys: [] })}
          onDoubleClick={() => setNaming(true)}
          sx={{
            flex: 1,
            minWidth: 0,
            minHeight: 28,
            justifyContent: 'space-between',
            font: 'inherit',
            color: group.visible ? 'inherit' : 'text.secondary',
          }}
        >
          <Box component="span" sx={CUT}>
            {group.name}
          </Box>
          <Box component="span" sx={{ fontSize: 12, color: 'text.secondary', pl: 1, flexShrink: 0 }}>
            {members.length} {members.length === 1 ? 'growth' : 'growths'}
          </Box>
        </ButtonBase>
      )}
      <Eye
        name={group.name}
        visible={group.visible}
        toggle={() => changeGroup(id, group.visible ? 'Hide group' : 'Show group', { visible: !group.visible })}
      />
      <MoreMenu
        of={group.name}
        items={[
          { label: 'Rename', run: () => setNaming(true) },
          {
            label: 'Duplicate',
            run: () =>
              void import('@/state/actions/selectionActions').then(({ duplicateGrowths }) => duplicateGrowths(members)),
          },
          { label: 'Ungroup', run: () => ungroup(id) },
          {
            label: 'Delete with its growths',
            run: () =>
              void import('@/state/actions/selectionActions').then(({ deleteGrowths }) => deleteGrowths(members)),
          },
        ]}
      >
        {(close) => (
          <HueItems
            value={group.hue}
            pick={(hue) => {
              changeGroup(id, 'Change hue', { hue });
              close();
            }}
          />
        )}
      </MoreMenu>
    </Box>
  );
});
