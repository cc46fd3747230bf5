'use client';

import Pause from '@mui/icons-material/Pause';
import PlayArrow from '@mui/icons-material/PlayArrow';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import Slider from '@mui/material/Slider';
import Link from 'next/link';
import { useEffect } from 'react';
import { runCommand } from '@/state/actions/commands';
import { useDocument } from '@/state/document/document';
import { useResults } from '@/state/director/results';
import { setView, useView } from '@/state/document/view';
import { Surface } from '@/viewport/Surface';
import { Guarded } from '../ui/Guarded';
import { INK, MONO, wordmark } from '../ui/theme';

/** A scene on a phone: looked round and played, not edited. */
export function SmallRoom() {
  const name = useDocument((state) => state.scene.name);
  const [first, last] = useDocument((state) => state.scene.range);
  const frame = useView((state) => state.frame);
  const playing = useView((state) => state.playing);
  const ready = useResults((state) => state.ready.size);
  useEffect(() => {
    document.title = `${name} · Uvrex`;
  }, [name]);
  return (
    <Box sx={{ height: '100dvh', display: 'grid', gridTemplateRows: 'auto minmax(0, 1fr) auto' }}>
      <Box component="header" sx={{ display: 'flex', alignItems: 'center', gap: 1.5, px: 1.75, py: 1, minWidth: 0 }}>
        <Box component={Link} href="/" sx={wordmark} aria-label="To the library">
          uvrex
        </Box>
        <Box
          component="h1"
          sx={{
            m: 0,
            font: 'inherit',
            fontWeight: 650,
            overflow: 'hidden',
            textOverflow: 'ellipsis',
            whiteSpace: 'nowrap',
          }}
        >
          {name}
        </Box>
      </Box>
      <Box component="main" sx={{ position: 'relative', minHeight: 0, overflow: 'hidden', touchAction: 'none' }}>
        <Guarded what="The picture">
          <Surface />
        </Guarded>
      </Box>
      <Box component="footer" sx={{ px: 1.75, py: 1.25, borderTop: `1px solid ${INK.line}` }}>
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 2 }}>
          <IconButton
            aria-label={playing ? 'Stop' : 'Play'}
            onClick={() => runCommand('play')}
            sx={{ bgcolor: INK.front, color: INK.deep, width: 44, height: 44, '&:hover': { bgcolor: INK.front } }}
          >
            {playing ? <Pause /> : <PlayArrow />}
          </IconButton>
          <Slider
            aria-label="Frame"
            min={first}
            max={last}
            value={Math.min(last, Math.max(first, frame))}
            onChange={(_, value) => setView({ frame: value as number, playing: false })}
            sx={{ flex: 1 }}
          />
          <Box sx={{ fontFamily: MONO, minWidth: 40, textAlign: 'right' }}>{Math.round(frame)}</Box>
        </Box>
        <Box sx={{ color: 'text.secondary', fontSize: 12.5, pt: 0.75 }}>
          {ready < last - first + 1 ? `${ready} of ${last - first + 1} frames ready. ` : ''}
          To edit it, open it on a larger screen.
        </Box>
      </Box>
    </Box>
  );
}
