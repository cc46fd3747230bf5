'use client';

import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import Image from 'next/image';
import type { Starter } from '@uvrex/examples';
import { INK } from '@/ui/theme';
import { fromStarter } from './scenes';

/** A starter: opening it makes a scene of one's own. */
export function StarterCard({ starter, open }: { starter: Starter; open: (making: Promise<string>) => void }) {
  return (
    <ButtonBase
      onClick={() => open(fromStarter(starter))}
      aria-label={`Open the starter ${starter.name}`}
      sx={{
        display: 'flex',
        flexDirection: 'column',
        alignItems: 'stretch',
        justifyContent: 'flex-start',
        textAlign: 'left',
        borderRadius: 4,
        overflow: 'hidden',
        border: `1px solid ${INK.line}`,
        bgcolor: 'background.paper',
        fontFamily: 'inherit',
        '&:hover': { borderColor: INK.sprout },
      }}
    >
      <Image
        src={starter.picture}
        alt=""
        unoptimized
        style={{ display: 'block', width: '100%', height: 'auto', aspectRatio: '16 / 10', objectFit: 'cover' }}
      />
      <Box sx={{ p: 1.5 }}>
        <Box sx={{ fontWeight: 650, fontSize: 15 }}>{starter.name}</Box>
        <Box sx={{ color: 'text.secondary', fontSize: 13, pt: 0.25 }}>{starter.about}</Box>
      </Box>
    </ButtonBase>
  );
}
