'use client';

import Add from '@mui/icons-material/Add';
import FileOpen from '@mui/icons-material/FileOpen';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useLiveQuery } from 'dexie-react-hooks';
import { useRouter } from 'next/navigation';
import { type DragEvent, type ReactNode, useEffect, useRef, useState } from 'react';
import { STARTERS } from '@uvrex/examples';
import { INK, wordmark } from '@/ui/theme';
import { sayProblem } from '@/ui/Toasts';
import { SceneCard } from './SceneCard';
import { StarterCard } from './StarterCard';
import { dropUnusedFiles } from '@/state/files';
import { storeProblem } from '@/state/storeProblem';
import { createScene, importFile, storedScenes } from './scenes';

/** The library: one's own scenes, and starters to begin from. */
export function Library() {
  const router = useRouter();
  const stored = useLiveQuery(() =>
    storedScenes().then(
      (scenes) => ({ scenes, trouble: null }),
      (error: unknown) => ({ scenes: [], trouble: storeProblem(error) }),
    ),
  );
  const scenes = stored?.scenes;
  useEffect(() => {
    // Files that nothing uses any more are cleared away when one comes by.
    dropUnusedFiles().catch(() => undefined);
  }, []);
  const input = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);

  const open = (making: Promise<string>): void => {
    making.then((id) => router.push(`/studio/${id}`)).catch(sayProblem);
  };
  const take = (files: FileList | null): void => {
    if (files?.[0]) open(importFile(files[0]));
  };
  const drop = (event: DragEvent): void => {
    event.preventDefault();
    setOver(false);
    take(event.dataTransfer.files);
  };

  return (
    <Box
      component="main"
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={(event) => event.currentTarget === event.target && setOver(false)}
      onDrop={drop}
      sx={{
        minHeight: '100vh',
        px: { xs: 3, md: 6 },
        pb: 8,
        outline: over ? `2px dashed ${INK.sprout}` : 'none',
        outlineOffset: -12,
        background: `radial-gradient(90% 60% at 70% 0%, #1b3b44 0, #122026 46%, ${INK.ground} 100%)`,
      }}
    >
      <Box component="header" sx={{ display: 'flex', alignItems: 'center', gap: 1.5, py: 2.5 }}>
        <Box sx={{ ...wordmark, fontSize: 24 }}>uvrex</Box>
        <Box sx={{ ml: 'auto', display: 'flex', gap: 1 }}>
          <Button
            variant="outlined"
            color="inherit"
            startIcon={<FileOpen />}
            onClick={() => input.current?.click()}
            sx={{ borderColor: INK.line }}
          >
            Import a scene file
          </Button>
          <Button variant="contained" startIcon={<Add />} onClick={() => open(createScene())}>
            New scene
          </Button>
        </Box>
        <input
          ref={input}
          type="file"
          accept=".json,.zip,application/json,application/zip"
          hidden
          data-testid="import"
          onChange={(event) => {
            take(event.target.files);
            event.target.value = '';
          }}
        />
      </Box>
      <Typography variant="h1" sx={{ pt: 2 }}>
        Make it grow.
      </Typography>
      <Typography color="text.secondary" sx={{ maxWidth: 520, pt: 1, pb: 3, fontSize: 15 }}>
        Open a starter and change anything in it, or begin with an empty scene and draw. Everything stays on this
        device.
      </Typography>
      <Shelf title="Starters">
        {STARTERS.map((starter) => (
          <StarterCard key={starter.id} starter={starter} open={open} />
        ))}
      </Shelf>
      <Shelf title="Your scenes">
        {scenes?.map((stored) => (
          <SceneCard key={stored.id} stored={stored} open={() => router.push(`/studio/${stored.id}`)} />
        ))}
        {stored?.trouble && (
          <Box role="alert" sx={{ gridColumn: '1 / -1', color: 'error.main' }}>
            {stored.trouble.message} {stored.trouble.advice}
          </Box>
        )}
        {scenes?.length === 0 && !stored?.trouble && (
          <Box
            sx={{
              gridColumn: '1 / -1',
              color: 'text.secondary',
              border: `1px dashed ${INK.line}`,
              borderRadius: 4,
              p: 3,
            }}
          >
            None yet. Open a starter, make a new scene, or drop a scene file anywhere on this page.
          </Box>
        )}
      </Shelf>
    </Box>
  );
}

function Shelf({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box component="section" aria-label={title} sx={{ pt: 2 }}>
      <Typography variant="h2" sx={{ pb: 1.5 }}>
        {title}
      </Typography>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(272px, 1fr))', gap: 2.5 }}>
        {children}
      </Box>
    </Box>
  );
}
