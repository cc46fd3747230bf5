'use client';

import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import InputBase from '@mui/material/InputBase';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { type ReactNode, useState } from 'react';
import type { Problem } from '@uvrex/core';
import { save } from '@/state/storage/saveToDisk';
import type { StoredScene } from '@/store/db';
import { INK } from '@/ui/theme';
import { announceDeleted } from '@/ui/deleted';
import { say, sayProblem, withProgress } from '@/state/toasts';
import { FolderDialog } from './FolderDialog';
import { SceneCard } from './SceneCard';
import { deleteScenes, moveToFolder, zipOf } from './scenes';
import { foldersOf, arrangeShelf, type Sort, SORTS } from './shelf';
import { Storage } from './Storage';

interface Props {
  scenes: readonly StoredScene[];
  trouble: Problem | null;
  open: (id: string) => void;
}

/** One's own scenes: found, sorted, in folders; several taken together. */
export function OwnScenes({ scenes, trouble, open }: Props) {
  const [find, setFind] = useState('');
  const [sort, setSort] = useState<Sort>('changed');
  const [folder, setFolder] = useState<string | null>(null);
  const [chosen, setChosen] = useState<readonly string[]>([]);
  /** The scenes that are being put into a folder. */
  const [moving, setMoving] = useState<readonly string[] | null>(null);
  const folders = foldersOf(scenes);
  const shown = arrangeShelf(scenes, {
    find,
    sort,
    folder: folder !== null && folders.includes(folder) ? folder : null,
  });
  const taken = scenes.filter(({ id }) => chosen.includes(id));
  const choose = (id: string): void =>
    setChosen((before) => (before.includes(id) ? before.filter((other) => other !== id) : [...before, id]));
  const many = taken.length === 1 ? '1 scene' : `${taken.length} scenes`;

  const exportThem = async (): Promise<void> => {
    const bytes = await withProgress(`Packing ${many} …`, (signal) => zipOf(taken, signal));
    if (!bytes) return;
    save({ name: 'Uvrex scenes.zip', blob: new Blob([bytes as Uint8Array<ArrayBuffer>], { type: 'application/zip' }) });
    say({
      tone: 'success',
      text: `${many} are in “Uvrex scenes.zip”. Import it here or elsewhere to have them again.`,
    });
    setChosen([]);
  };
  const remove = async (): Promise<void> => {
    await announceDeleted(many, deleteScenes(taken));
    setChosen([]);
  };
  return (
    <>
      {scenes.length > 0 && (
        <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, alignItems: 'center', pb: 2 }}>
          <InputBase
            value={find}
            onChange={(event) => setFind(event.target.value)}
            placeholder="Find by name or growth"
            inputProps={{ 'aria-label': 'Find scenes' }}
            sx={{ width: 230, height: 34, px: 1.5, fontSize: 13.5, borderRadius: 4, border: `1px solid ${INK.line}` }}
          />
          <Select
            size="small"
            value={sort}
            onChange={(event) => setSort(event.target.value)}
            inputProps={{ 'aria-label': 'Order of the scenes' }}
            sx={{ height: 34, fontSize: 13.5, borderRadius: 4 }}
          >
            {Object.entries(SORTS).map(([id, label]) => (
              <MenuItem key={id} value={id}>
                {label}
              </MenuItem>
            ))}
          </Select>
          {folders.length > 0 && (
            <Box role="group" aria-label="Folders" sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75 }}>
              <Chip on={folder === null} pick={() => setFolder(null)}>
                All scenes
              </Chip>
              {folders.map((name) => (
                <Chip key={name} on={folder === name} pick={() => setFolder(name)}>
                  {name}
                </Chip>
              ))}
            </Box>
          )}
          {taken.length > 0 && (
            <Box
              role="group"
              aria-label={`${many} chosen`}
              sx={{ ml: 'auto', display: 'flex', gap: 0.75, alignItems: 'center' }}
            >
              <Box sx={{ color: 'text.secondary', fontSize: 13 }}>{many} chosen</Box>
              <Button variant="outlined" color="inherit" onClick={() => void exportThem().catch(sayProblem)}>
                Export as a zip
              </Button>
              <Button variant="outlined" color="inherit" onClick={() => setMoving(chosen)}>
                Into a folder
              </Button>
              <Button variant="outlined" color="error" onClick={() => void remove().catch(sayProblem)}>
                Delete
              </Button>
              <Button color="inherit" onClick={() => setChosen([])}>
                Choose none
              </Button>
            </Box>
          )}
        </Box>
      )}
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(272px, 1fr))', gap: 2.5 }}>
        {shown.map((stored) => (
          <SceneCard
            key={stored.id}
            stored={stored}
            open={() => open(stored.id)}
            chosen={chosen.includes(stored.id)}
            choose={() => choose(stored.id)}
            move={() => setMoving([stored.id])}
          />
        ))}
        {trouble && (
          <Box role="alert" sx={{ gridColumn: '1 / -1', color: 'error.main' }}>
            {trouble.message} {trouble.advice}
          </Box>
        )}
        {scenes.length > 0 && shown.length === 0 && (
          <Box sx={{ gridColumn: '1 / -1', color: 'text.secondary' }}>No scene here is called so.</Box>
        )}
        {scenes.length === 0 && !trouble && (
          <Box
            sx={{
              gridColumn: '1 / -1',
              color: 'text.secondary',
              border: `1px dashed ${INK.line}`,
              borderRadius: 4,
              p: 3,
            }}
          >
            None yet. Open a starter, make a new scene, or drop a scene file anywhere on this page.
          </Box>
        )}
      </Box>
      {scenes.length > 0 && <Storage />}
      {moving && (
        <FolderDialog
          count={moving.length}
          folders={folders}
          now={moving.length === 1 ? (scenes.find(({ id }) => id === moving[0])?.folder ?? '') : ''}
          done={(name) => {
            setMoving(null);
            if (name !== null) void moveToFolder(moving, name).then(() => setChosen([]), sayProblem);
          }}
        />
      )}
    </>
  );
}

function Chip({ on, pick, children }: { on: boolean; pick: () => void; children: ReactNode }) {
  return (
    <ButtonBase
      aria-pressed={on}
      onClick={pick}
      sx={{
        px: 1.25,
        height: 30,
        borderRadius: 4,
        fontSize: 13,
        fontFamily: 'inherit',
        color: on ? INK.sprout : 'text.secondary',
        border: `1px solid ${on ? INK.sprout : INK.line}`,
      }}
    >
      {children}
    </ButtonBase>
  );
}
