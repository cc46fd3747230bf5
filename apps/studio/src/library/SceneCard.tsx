'use client';

import Checkbox from '@mui/material/Checkbox';
import type { StoredScene } from '@/store/db';
import { PictureCard } from '@/ui/PictureCard';
import { announceDeleted } from '@/ui/deleted';
import { sayProblem } from '@/state/toasts';
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
  // Damaged scenes are shown too: what they are called and when may be missing.
  const name = typeof stored.name === 'string' && stored.name !== '' ? stored.name : 'Without a name';
  const changed = Number.isFinite(stored.changed) ? WHEN.format(stored.changed) : '';
  return (
    <PictureCard
      name={name}
      about={stored.folder === undefined ? changed : `${changed}, in ${stored.folder}`}
      picture={stored.picture}
      open={{ label: `Open ${name}`, run: open }}
      rename={{ label: 'Name of the scene', to: (next) => renameScene(stored, next) }}
      chosen={chosen}
      over={
        <Checkbox
          className="choose"
          size="small"
          checked={chosen}
          onChange={choose}
          slotProps={{ input: { 'aria-label': `Choose ${name}` } }}
          sx={{ position: 'absolute', top: 6, left: 6, p: 0.5, bgcolor: '#0b1316c8', opacity: chosen ? 1 : 0 }}
        />
      }
      items={[
        { label: 'Duplicate', run: () => void duplicateScene(stored).catch(sayProblem) },
        { label: chosen ? 'Leave out of the chosen' : 'Choose', run: choose },
        { label: 'Put into a folder', run: move },
        { label: 'Delete', run: () => void announceDeleted(name, deleteScene(stored)) },
      ]}
    />
  );
}
