'use client';

import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { useEffect, useState } from 'react';
import { type StoredScene } from '@/state/db';
import { MoreMenu } from '@/ui/MoreMenu';
import { RenameInput } from '@/ui/RenameInput';
import { INK } from '@/ui/theme';
import { say, sayProblem } from '@/ui/Toasts';
import { deleteScene, duplicateScene, renameScene } from './scenes';

const WHEN = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });

/** A scene of one's own: picture, name, when it was changed, and what can be done with it. */
export function SceneCard({ stored, open }: { stored: StoredScene; open: () => void }) {
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
        borderRadius: 4,
        overflow: 'hidden',
        border: `1px solid ${INK.line}`,
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
          <Box sx={{ color: 'text.secondary', fontSize: 12.5 }}>{changed}</Box>
        </Box>
        <MoreMenu
          of={name}
          items={[
            { label: 'Rename', run: () => setNaming(true) },
            { label: 'Duplicate', run: () => void duplicateScene(stored).catch(sayProblem) },
            { label: 'Delete', run: () => void remove().catch(sayProblem) },
          ]}
        />
      </Box>
    </Box>
  );
}

/** An address for a stored picture, for as long as it is shown. */
function usePicture(picture: Blob | null): string | null {
  const [url, setUrl] = useState<string | null>(null);
  useEffect(() => {
    if (!picture) return;
    const made = URL.createObjectURL(picture);
    setUrl(made);
    return () => URL.revokeObjectURL(made);
  }, [picture]);
  return url;
}
