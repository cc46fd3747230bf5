'use client';

import Box from '@mui/material/Box';
import dynamic from 'next/dynamic';
import { useEffect, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { checkScene } from '@uvrex/core';
import { startAutosave } from '@/state/autosave';
import { startClipboard } from '@/state/clips';
import { COMMANDS, runCommand } from '@/state/commands';
import { db } from '@/state/db';
import { growthIn, openScene, useDocument } from '@/state/document';
import { startPlaying } from '@/state/play';
import { startDirector } from '@/state/results';
import { startSound } from '@/state/sound';
import { firstView, SCENE_ENTRY, setView, useView } from '@/state/view';
import { GrowthList } from '@/stem/GrowthList';
import { ScenePanel } from '@/stem/ScenePanel';
import { Stem } from '@/stem/Stem';
import { Timeline } from '@/timeline/Timeline';
import { Viewport } from '@/viewport/Viewport';
import { Header } from './Header';
import { Missing } from './Missing';
import { Palette } from './Palette';
import { INK } from './theme';
import { sayProblem } from './Toasts';
import { Waiting } from './Waiting';

const Shortcuts = dynamic(() => import('./Shortcuts').then((module) => module.Shortcuts), { ssr: false });
const ExportSheet = dynamic(() => import('@/export/ExportSheet').then((module) => module.ExportSheet), { ssr: false });

type Loading = 'loading' | 'open' | 'missing';

/** The studio: one scene from this device, opened where it was left. */
export function Studio({ id }: { id: string }) {
  const [loading, setLoading] = useState<Loading>('loading');

  useEffect(() => {
    let gone = false;
    let stops: (() => void)[] = [];
    void (async () => {
      const [stored, view] = await Promise.all([db.scenes.get(id), db.views.get(id)]);
      if (gone) return;
      if (!stored) {
        setLoading('missing');
        return;
      }
      const scene = checkScene(stored.scene);
      openScene(id, scene);
      const { id: sceneId, ...seen } = view ?? { id, ...firstView, frame: scene.range[0] };
      const known = seen.growth === SCENE_ENTRY || growthIn(scene, seen.growth) !== undefined;
      setView({
        ...seen,
        growth: known ? seen.growth : (scene.growths[0]?.id ?? SCENE_ENTRY),
        playing: false,
        tool: 'look',
        span: null,
        trail: null,
        pins: [],
        ghosts: 0,
        redraw: null,
        keys: [],
        palette: null,
        sheet: null,
      });
      stops = [startDirector(), startPlaying(), startAutosave(id), startClipboard(), startSound()];
      setLoading('open');
    })().catch((error) => {
      sayProblem(error);
      setLoading('missing');
    });
    return () => {
      gone = true;
      for (const stop of stops.reverse()) stop();
    };
  }, [id]);

  if (loading === 'missing') return <Missing what="This scene is not on this device." />;
  return loading === 'open' ? <Room /> : <Waiting />;
}

const ALL_KEYS = COMMANDS.flatMap(({ keys }) => keys?.split(', ') ?? []);
const byKeys = new Map(COMMANDS.flatMap(({ id, keys }) => (keys?.split(', ') ?? []).map((one) => [one, id] as const)));

const somethingInFront = (): boolean =>
  document.querySelector('[role="dialog"],[role="menu"],.MuiPopover-root') !== null;

/** Runs what a key calls, unless something in front of the studio has the keyboard. */
function call(event: KeyboardEvent, id: string | undefined): void {
  if (somethingInFront()) return;
  // A focused button is pressed by the space bar; that is its own business.
  if (event.code === 'Space' && (event.target as HTMLElement).closest('button,[role="button"],[role="option"]')) return;
  event.preventDefault();
  if (id) runCommand(id);
}

function Room() {
  const name = useDocument((state) => state.scene.name);
  const growth = useDocument((state) => state.scene.growths);
  const selected = useView((state) => state.growth);
  const sheet = useView((state) => state.sheet);
  const chosen = growth.find(({ id }) => id === selected);

  useEffect(() => {
    document.title = `${name} · Uvrex`;
  }, [name]);
  useHotkeys(ALL_KEYS, (event, { hotkey }) => call(event, byKeys.get(hotkey)));
  useHotkeys('?', (event) => call(event, 'shortcuts'), { useKey: true });
  useHotkeys('escape', () => {
    if (!somethingInFront()) setView({ tool: 'look', redraw: null, keys: [] });
  });

  return (
    <Box
      sx={{
        height: '100vh',
        display: 'grid',
        gridTemplate: '46px minmax(0, 1fr) / 356px minmax(0, 1fr)',
        overflow: 'hidden',
      }}
    >
      <Header />
      <Box
        component="aside"
        aria-label="Growths and steps"
        sx={{
          display: 'flex',
          flexDirection: 'column',
          minHeight: 0,
          bgcolor: 'background.paper',
          borderRight: `1px solid ${INK.line}`,
        }}
      >
        <GrowthList />
        {chosen ? <Stem key={chosen.id} growth={chosen} /> : <ScenePanel />}
      </Box>
      <Box
        component="main"
        sx={{ display: 'grid', gridTemplateRows: 'minmax(0, 1fr) 236px', minWidth: 0, minHeight: 0 }}
      >
        <Viewport />
        <Timeline />
      </Box>
      <Palette />
      {sheet === 'shortcuts' && <Shortcuts />}
      {sheet === 'export' && <ExportSheet />}
    </Box>
  );
}
