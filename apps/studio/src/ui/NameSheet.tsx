'use client';

import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import { type ReactNode, useId } from 'react';
import { LIMITS } from '@uvrex/core';

interface Props {
  title: string;
  /** What the name is called. */
  label: string;
  name: string;
  onName: (name: string) => void;
  /** What is done with it, as its button says. */
  action: string;
  /** It cannot be done as things are; it cannot be done without a name either. */
  blocked?: boolean;
  /** Other buttons, between leaving and doing. */
  others?: ReactNode;
  children?: ReactNode;
  /** Leaves everything as it is. */
  cancel: () => void;
  /** Does it, with the name trimmed. */
  done: (name: string) => void;
}

/** A sheet that asks for a name, with whatever else belongs to the question below it. */
export function NameSheet({
  title,
  label,
  name,
  onName,
  action,
  blocked = false,
  others,
  children,
  cancel,
  done,
}: Props) {
  const id = useId();
  return (
    <Dialog open onClose={cancel} fullWidth maxWidth="xs" aria-labelledby={id}>
      <Box
        component="form"
        onSubmit={(event) => {
          event.preventDefault();
          done(name.trim());
        }}
      >
        <DialogTitle id={id}>{title}</DialogTitle>
        <DialogContent sx={{ display: 'grid', gap: 1.5 }}>
          <TextField
            autoFocus
            margin="dense"
            size="small"
            label={label}
            value={name}
            onChange={(event) => onName(event.target.value)}
            slotProps={{ htmlInput: { maxLength: LIMITS.name } }}
          />
          {children}
        </DialogContent>
        <DialogActions>
          <Button color="inherit" onClick={cancel}>
            Cancel
          </Button>
          {others}
          <Button type="submit" variant="contained" disabled={blocked || name.trim() === ''}>
            {action}
          </Button>
        </DialogActions>
      </Box>
    </Dialog>
  );
}
