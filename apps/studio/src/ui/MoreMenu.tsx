'use client';

import MoreHoriz from '@mui/icons-material/MoreHoriz';
import IconButton from '@mui/material/IconButton';
import dynamic from 'next/dynamic';
import { type ReactNode, useState } from 'react';

// Menus are loaded when the first is opened.
const MoreItems = dynamic(() => import('./MoreItems').then((module) => module.MoreItems), { ssr: false });

export interface MoreProps {
  /** What it is the menu of. */
  of: string;
  items: readonly { label: string; run: () => void }[];
  /** More below the items; called with how to close the menu. */
  children?: (close: () => void) => ReactNode;
}

/** The three dots behind a thing, and what can be done with it. */
export function MoreMenu({ of, ...rest }: MoreProps) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [opened, setOpened] = useState(false);
  return (
    <>
      <IconButton
        aria-label={`More for ${of}`}
        // Said before its items are there: until they are loaded nothing else tells that it is open.
        data-opened={anchor !== null || undefined}
        onClick={(event) => {
          setOpened(true);
          setAnchor(event.currentTarget);
        }}
        sx={{ p: 0.25, color: 'text.secondary' }}
      >
        <MoreHoriz fontSize="small" />
      </IconButton>
      {opened && <MoreItems {...rest} anchor={anchor} close={() => setAnchor(null)} />}
    </>
  );
}
