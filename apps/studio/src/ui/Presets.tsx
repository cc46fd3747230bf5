'use client';

import ButtonBase from '@mui/material/ButtonBase';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { type ReactNode, useState } from 'react';
import { INK } from './theme';

interface Props {
  of: string;
  presets: readonly { name: string; look: ReactNode; take: () => void }[];
  /** What can be done to the value at hand. */
  more: readonly { name: string; take: () => void }[];
}

/** Ready values to begin from, each with its look. */
export function Presets({ of, presets, more }: Props) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const pick = (take: () => void) => () => {
    setAnchor(null);
    take();
  };
  return (
    <>
      <ButtonBase
        aria-label={`${of} presets`}
        aria-haspopup="menu"
        onClick={(event) => setAnchor(event.currentTarget)}
        sx={{ px: 0.9, height: 22, borderRadius: '7px', bgcolor: INK.raised, fontSize: 12, color: 'text.secondary' }}
      >
        Presets
      </ButtonBase>
      <Menu open={anchor !== null} anchorEl={anchor} onClose={() => setAnchor(null)}>
        {presets.map(({ name, look, take }) => (
          <MenuItem key={name} onClick={pick(take)} sx={{ fontSize: 13, gap: 1.5 }}>
            {look}
            {name}
          </MenuItem>
        ))}
        {more.map(({ name, take }) => (
          <MenuItem key={name} onClick={pick(take)} sx={{ fontSize: 13, borderTop: `1px solid ${INK.line}` }}>
            {name}
          </MenuItem>
        ))}
      </Menu>
    </>
  );
}
