'use client';

import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import Checkbox from '@mui/material/Checkbox';
import { useState } from 'react';
import { type StoredScene } from '@/state/db';
import { MoreMenu } from '@/ui/MoreMenu';
import { RenameInput } from '@/ui/RenameInput';
import { INK } from '@/ui/theme';
import { say, sayProblem } from '@/ui/Toasts';
import { usePicture } from './picture';
import { deleteScene, duplicateScene, renameScene } from './scenes';

const WHEN = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });

interface Props {
  stored: StoredScene;
  open: () => void;
  /** Whether it is one of several that are taken together. */
  chosen: boolean;
  choose: () => void;
  /** Asks for a folder to put it into. */
  move: () => void;
}

/** A scene of one's own: picture, name, when it was changed, and what can be done with it. */
export function SceneCard({ stored, open, chosen, choose, move }: Props) {
  const [naming, setNaming] = useState(false);
  // Damaged scenes are shown too: what they are called and when may be missing.
  const name = typeof stored.name === 'string' && stored.name !== '' ? stored.name : 'Without a name';
  const changed = Number.isFinite(stored.changed) ? WHEN.format(stored.changed) : '';
  const picture = usePicture(stored.picture);
  const remove = async (): Promise<void> => {
    const bringBack = await deleteScene(stored);
    say({
      tone: 'info',
      text: `“${name}” is deleted.`,
      action: { label: 'Bring it back', run: () => void bringBack().catch(sayProblem) },
    });
  };
  return (
    <Box
      role="group"
      aria-label={name}
      sx={{
        position: 'relative',
        borderRadius: 4,
        overflow: 'hidden',
        border: `1px solid ${chosen ? INK.sprout : INK.line}`,
        '&:hover .choose, &:focus-within .choose': { opacity: 1 },
        bgcolor: 'background.paper',
        '&:hover': { borderColor: INK.sprout },
      }}
    >
      <ButtonBase
        onClick={open}
        aria-label={`Open ${name}`}
        sx={{ display: 'block', width: '100%', aspectRatio: '16 / 10', bgcolor: INK.deep }}
      >
        {picture && (
          <Box
            component="img"
            src={picture}
            alt=""
            sx={{ display: 'block', width: '100%', height: '100%', objectFit: 'cover' }}
          />
        )}
      </ButtonBase>
      <Checkbox
        className="choose"
        size="small"
        checked={chosen}
        onChange={choose}
        slotProps={{ input: { 'aria-label': `Choose ${name}` } }}
        sx={{ position: 'absolute', top: 6, left: 6, p: 0.5, bgcolor: '#0b1316c8', opacity: chosen ? 1 : 0 }}
      />
      <Box sx={{ display: 'flex', alignItems: 'center', p: 1.25, pl: 1.5 }}>
        <Box sx={{ flex: 1, minWidth: 0 }}>
          {naming ? (
            <RenameInput
              value={name}
              label="Name of the scene"
              done={(name) => {
                setNaming(false);
                if (name) void renameScene(stored, name).catch(sayProblem);
              }}
            />
          ) : (
            <Box
              sx={{ fontWeight: 650, fontSize: 15, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}
            >
              {name}
            </Box>
          )}
          <Box sx={{ color: 'text.secondary', fontSize: 12.5 }}>
            {changed}
            {stored.folder !== undefined && `, in ${stored.folder}`}
          </Box>
        </Box>
        <MoreMenu
          of={name}
          items={[
            { label: 'Rename', run: () => setNaming(true) },
            { label: 'Duplicate', run: () => void duplicateScene(stored).catch(sayProblem) },
            { label: chosen ? 'Leave out of the chosen' : 'Choose', run: choose },
            { label: 'Put into a folder', run: move },
            { label: 'Delete', run: () => void remove().catch(sayProblem) },
          ]}
        />
      </Box>
    </Box>
  );
}
