'use client';

import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { NameSheet } from '@/ui/NameSheet';

interface Props {
  count: number;
  folders: readonly string[];
  /** The folder that they are in. */
  now: string;
  /** The folder's name, empty for none; null where it is left as it is. */
  done: (name: string | null) => void;
}

/** Asks which folder scenes go into: one that there is, or a new one. */
export function FolderDialog({ count, folders, now, done }: Props) {
  const [name, setName] = useState(now);
  return (
    <NameSheet
      title={count === 1 ? 'Put the scene into a folder' : `Put ${count} scenes into a folder`}
      label="Folder"
      name={name}
      onName={setName}
      action="Put in"
      cancel={() => done(null)}
      done={done}
      others={
        now !== '' && (
          <Button color="inherit" onClick={() => done('')}>
            Remove from “{now}”
          </Button>
        )
      }
    >
      {folders.length > 0 && (
        <Box role="group" aria-label="Folders there are" sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75 }}>
          {folders.map((folder) => (
            <Button key={folder} variant="outlined" color="inherit" onClick={() => done(folder)}>
              {folder}
            </Button>
          ))}
        </Box>
      )}
    </NameSheet>
  );
}
