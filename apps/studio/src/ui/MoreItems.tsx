'use client';

import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { useRef } from 'react';
import type { MoreProps } from './MoreMenu';

/** What can be done with a thing, under the dots behind it. */
export function MoreItems({
  items,
  children,
  anchor,
  close,
}: Omit<MoreProps, 'of'> & { anchor: HTMLElement | null; close: () => void }) {
  const chosen = useRef<(() => void) | null>(null);
  return (
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
  );
}
