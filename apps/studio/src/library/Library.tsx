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
import { DeletedButton } from '@/ui/DeletedButton';
import { INK, wordmark } from '@/ui/theme';
import { say, sayProblem, withProgress } from '@/state/toasts';
import { News } from './News';
import { OwnScenes } from './OwnScenes';
import { StarterCard } from './StarterCard';
import { dropUnusedFiles } from '@/state/storage/files';
import { storeProblem } from '@/state/storage/storeProblem';
import { OwnCuttings } from './OwnCuttings';
import { createScene, storedScenes, takeIn } from './scenes';

/** The library: one's own scenes, and starters to begin from. */
export function Library() {
  const router = useRouter();
  const stored = useLiveQuery(() =>
    storedScenes().then(
      (scenes) => ({ scenes, trouble: null }),
      (error: unknown) => ({ scenes: [], trouble: storeProblem(error) }),
    ),
  );
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
    if (!files?.[0]) return;
    const [file] = files;
    withProgress(`Reading “${file.name}” …`, (signal) => takeIn(file, signal))
      .then((ids) => {
        if (ids === null) return;
        if (ids.length === 1) router.push(`/studio/${ids[0]}`);
        else say({ tone: 'success', text: `${ids.length} scenes are among yours now.` });
      })
      .catch(sayProblem);
  };
  const drop = (event: DragEvent): void => {
    event.preventDefault();
    setOver(false);
    take(event.dataTransfer.files);
  };

  // Who has scenes comes back to them; who has none begins with a starter.
  const begun = stored !== undefined && stored.scenes.length > 0;
  // Until it is known what stands here a click would be lost, or what is clicked would move away under it.
  const ready = stored !== undefined;
  const own = (
    <Shelf title="Your scenes" plain>
      {stored && (
        <OwnScenes scenes={stored.scenes} trouble={stored.trouble} open={(id) => router.push(`/studio/${id}`)} />
      )}
    </Shelf>
  );
  return (
    <Box
      component="main"
      inert={!ready}
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
          <DeletedButton />
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
      <News begun={stored && begun} />
      {begun && own}
      <OwnCuttings wrap={(cards) => <Shelf title="Your cuttings">{cards}</Shelf>} />
      <Shelf title="Starters" shown={ready}>
        {STARTERS.map((starter) => (
          <StarterCard key={starter.id} starter={starter} open={open} />
        ))}
      </Shelf>
      {!begun && own}
    </Box>
  );
}

interface ShelfProps {
  title: string;
  plain?: boolean;
  shown?: boolean;
  children: ReactNode;
}

function Shelf({ title, plain = false, shown = true, children }: ShelfProps) {
  return (
    <Box
      component="section"
      aria-label={title}
      sx={{
        pt: 2,
        opacity: shown ? 1 : 0,
        transition: 'opacity 160ms',
        '@media (prefers-reduced-motion)': { transition: 'none' },
      }}
    >
      <Typography variant="h2" sx={{ pb: 1.5 }}>
        {title}
      </Typography>
      {plain ? (
        children
      ) : (
        <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(272px, 1fr))', gap: 2.5 }}>
          {children}
        </Box>
      )}
    </Box>
  );
}
