'use client';

import MoreHoriz from '@mui/icons-material/MoreHoriz';
import IconButton from '@mui/material/IconButton';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { type ReactNode, useRef, useState } from 'react';

interface Props {
  /** What it is the menu of. */
  of: string;
  items: readonly { label: string; run: () => void }[];
  /** More below the items; called with how to close the menu. */
  children?: (close: () => void) => ReactNode;
}

/** The three dots behind a thing, and what can be done with it. */
export function MoreMenu({ of, items, children }: Props) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const chosen = useRef<(() => void) | null>(null);
  const close = (): void => setAnchor(null);
  return (
    <>
      <IconButton
        aria-label={`More for ${of}`}
        onClick={(event) => setAnchor(event.currentTarget)}
        sx={{ p: 0.25, color: 'text.secondary' }}
      >
        <MoreHoriz fontSize="small" />
      </IconButton>
      <Menu
        open={anchor !== null}
        anchorEl={anchor}
        onClose={close}
        slotProps={{
          transition: {
            // Only now has the menu given the focus back: a name field opened earlier would lose it again.
            onExited: () => {
              chosen.current?.();
              chosen.current = null;
            },
          },
        }}
      >
        {items.map(({ label, run }) => (
          <MenuItem
            key={label}
            onClick={() => {
              chosen.current = run;
              close();
            }}
          >
            {label}
          </MenuItem>
        ))}
        {children?.(close)}
      </Menu>
    </>
  );
}
