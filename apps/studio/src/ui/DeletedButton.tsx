'use client';

import Button from '@mui/material/Button';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { useState } from 'react';
import { restoreDeleted, useDeleted } from './deleted';
import { sayProblem } from '@/state/toasts';

/** What was deleted since the page was loaded, each with its own way back; nothing is shown where nothing was. */
export function DeletedButton() {
  const list = useDeleted((state) => state.list);
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  if (list.length === 0) return null;
  return (
    <>
      <Button
        variant="outlined"
        color="inherit"
        aria-haspopup="menu"
        onClick={(event) => setAnchor(event.currentTarget)}
      >
        Deleted ({list.length})
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        {list.map((entry) => (
          <MenuItem
            key={entry.key}
            onClick={() => {
              if (list.length === 1) setAnchor(null);
              void restoreDeleted(entry).catch(sayProblem);
            }}
          >
            Bring back “{entry.name}”
          </MenuItem>
        ))}
      </Menu>
    </>
  );
}
