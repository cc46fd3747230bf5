'use client';

import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { LIMITS } from '@uvrex/core';

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
    <Dialog open onClose={() => done(null)} fullWidth maxWidth="xs">
      <Box
        component="form"
        onSubmit={(event) => {
          event.preventDefault();
          done(name.trim());
        }}
      >
        <DialogTitle>{count === 1 ? 'Put the scene into a folder' : `Put ${count} scenes into a folder`}</DialogTitle>
        <DialogContent sx={{ display: 'grid', gap: 1.5 }}>
          <TextField
            autoFocus
            margin="dense"
            size="small"
            label="Folder"
            value={name}
            onChange={(event) => setName(event.target.value)}
            slotProps={{ htmlInput: { maxLength: LIMITS.name } }}
          />
          {folders.length > 0 && (
            <Box role="group" aria-label="Folders there are" sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75 }}>
              {folders.map((folder) => (
                <Button key={folder} variant="outlined" color="inherit" onClick={() => done(folder)}>
                  {folder}
                </Button>
              ))}
            </Box>
          )}
        </DialogContent>
        <DialogActions>
          <Button color="inherit" onClick={() => done(null)}>
            Cancel
          </Button>
          {now !== '' && (
            <Button color="inherit" onClick={() => done('')}>
              Take out of “{now}”
            </Button>
          )}
          <Button type="submit" variant="contained" disabled={name.trim() === ''}>
            Put in
          </Button>
        </DialogActions>
      </Box>
    </Dialog>
  );
}
