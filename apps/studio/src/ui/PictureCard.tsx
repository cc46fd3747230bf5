'use client';

import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { type ReactNode, useState } from 'react';
import { MoreMenu } from './MoreMenu';
import { usePicture } from './picture';
import { RenameInput } from './RenameInput';
import { INK } from './theme';
import { sayProblem } from '@/state/toasts';

interface Props {
  name: string;
  about: string;
  picture: Blob | null;
  /** What a click on the picture does, and how that is called. */
  open?: { label: string; run: () => void };
  /** How a new name is given. */
  rename: { label: string; to: (name: string) => Promise<unknown> };
  /** What can be done with it besides. */
  items: { label: string; run: () => void }[];
  /** Whether it is among those that are chosen. */
  chosen?: boolean;
  /** What lies over the picture. */
  over?: ReactNode;
  /** What stands below the name. */
  children?: ReactNode;
}

/** Something of one's own that is kept: its picture, its name, what is to be known of it, and what can be done with it. */
export function PictureCard({ name, about, picture, open, rename, items, chosen = false, over, children }: Props) {
  const [naming, setNaming] = useState(false);
  const src = usePicture(picture);
  const image = src ? (
    <Box
      component="img"
      src={src}
      alt=""
      sx={{ display: 'block', width: '100%', height: '100%', objectFit: 'cover' }}
    />
  ) : (
    <Box sx={{ height: '100%', display: 'grid', placeItems: 'center', color: 'text.secondary', fontSize: 12.5 }}>
      {picture === null && 'No picture yet'}
    </Box>
  );
  const frame = { display: 'block', width: '100%', aspectRatio: '16 / 10', bgcolor: INK.deep };
  return (
    <Box
      role="group"
      aria-label={name}
      sx={{
        position: 'relative',
        borderRadius: 4,
        overflow: 'hidden',
        border: `1px solid ${chosen ? INK.sprout : INK.line}`,
        bgcolor: 'background.paper',
        '&:hover .choose, &:focus-within .choose': { opacity: 1 },
        ...(open && { '&:hover': { borderColor: INK.sprout } }),
      }}
    >
      {open ? (
        <ButtonBase onClick={open.run} aria-label={open.label} sx={frame}>
          {image}
        </ButtonBase>
      ) : (
        <Box sx={frame}>{image}</Box>
      )}
      {over}
      <Box sx={{ p: 1.25, pl: 1.5 }}>
        <Box sx={{ display: 'flex', alignItems: 'center' }}>
          <Box sx={{ flex: 1, minWidth: 0 }}>
            {naming ? (
              <RenameInput
                value={name}
                label={rename.label}
                done={(next) => {
                  setNaming(false);
                  if (next) void rename.to(next).catch(sayProblem);
                }}
              />
            ) : (
              <Box
                sx={{
                  fontWeight: 650,
                  fontSize: 15,
                  overflow: 'hidden',
                  textOverflow: 'ellipsis',
                  whiteSpace: 'nowrap',
                }}
              >
                {name}
              </Box>
            )}
            <Box sx={{ color: 'text.secondary', fontSize: 12.5 }}>{about}</Box>
          </Box>
          <MoreMenu of={name} items={[{ label: 'Rename', run: () => setNaming(true) }, ...items]} />
        </Box>
        {children}
      </Box>
    </Box>
  );
}
