'use client';

import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import dynamic from 'next/dynamic';
import { useEffect, useMemo, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useShallow } from 'zustand/react/shallow';
import { checkScene, newId, Problem, type Scene } from '@uvrex/core';
import { endWatching } from '@/state/storage/watched';
import { claimScene, setKeeper, startAutosave, useSaving } from '@/state/storage/autosave';
import { startClipboard } from '@/state/actions/lazyClips';
import { useKeepAsked } from '@/state/actions/cuttingRequest';
import { COMMANDS, runCommand } from '@/state/actions/commands';
import { db, type StoredScene } from '@/store/db';
import { edit, growthIn, openScene, useDocument } from '@/state/document/document';
import { keysOf, useKeys } from '@/state/storage/shortcuts';
import { forgetLastWords, readLastWords } from '@/state/storage/unloadBackup';
import { startPlaying } from '@/state/audio/play';
import { startDirector } from '@/state/director/results';
import { startSound } from '@/state/audio/sound';
import { storeProblem } from '@/state/storage/storeProblem';
import { hearTabs, holdScene } from '@/state/storage/sceneLocks';
import { stopPainting } from '@/state/actions/painting';
import { chosenIn, chosenQuality, firstView, greeting, SCENE_ENTRY, setView, useView } from '@/state/document/view';
import { GrowthList } from '@/stem/GrowthList';
import { Stem } from '@/stem/Stem';
import { Timeline } from '@/timeline/Timeline';
import { useFirstPicture } from '@/state/director/firstPicture';
import { Viewport } from '@/viewport/Viewport';
import { firstSize, useSizes, within } from '@/state/storage/panelSizes';
import { Divider } from '../ui/Divider';
import { Guarded } from '../ui/Guarded';
import { Header } from './Header';
import { Missing } from '../ui/Missing';
import { useSmallScreen } from '../ui/smallScreen';
import { isSliderKey, isTextField } from '../ui/textField';
import { INK, ONE_CELL } from '../ui/theme';
import { sayProblem } from '@/state/toasts';
import { Waiting } from '../ui/Waiting';

const SmallRoom = dynamic(() => import('./SmallRoom').then((module) => module.SmallRoom), { ssr: false });
const Rescue = dynamic(() => import('./Rescue').then((module) => module.Rescue), { ssr: false });
const ScenePanel = dynamic(() => import('@/stem/ScenePanel').then((module) => module.ScenePanel), { ssr: false });
const Several = dynamic(() => import('@/stem/Several').then((module) => module.Several), { ssr: false });
const Shortcuts = dynamic(() => import('../ui/Shortcuts').then((module) => module.Shortcuts), { ssr: false });
const Palette = dynamic(() => import('../ui/Palette').then((module) => module.Palette), { ssr: false });
const KeepCutting = dynamic(() => import('@/stem/KeepCutting').then((module) => module.KeepCutting), { ssr: false });
const Versions = dynamic(() => import('@/versions/Versions').then((module) => module.Versions), { ssr: false });
const ExportSheet = dynamic(() => import('@/export/ExportSheet').then((module) => module.ExportSheet), { ssr: false });

/** This tab, among those that may write a scene. */
const TAB = newId();

/** The lesson that greets who is here for the first time. */
const FIRST = 'first-growth';

type Loading =
  | { as: 'loading' | 'open' | 'missing' | 'elsewhere' }
  | { as: 'damaged'; stored: StoredScene; problem: Problem }
  | { as: 'failed'; problem: Problem };

/** The studio: one scene from this device, opened where it was left, in one tab at a time. */
export function Studio({ id }: { id: string }) {
  const [loading, setLoading] = useState<Loading>({ as: 'loading' });
  /** Counts up to take the scene over from another tab. */
  const [taking, setTaking] = useState(0);
  const small = useSmallScreen();

  useEffect(() => {
    let gone = false;
    let close: Closing = () => Promise.resolve();
    const leave = (kept: boolean): Promise<void> => {
      const closing = close(kept);
      close = () => Promise.resolve();
      if (!gone) setLoading({ as: 'elsewhere' });
      return closing;
    };
    void (async () => {
      const hold = await holdScene(id, { onAsked: () => leave(true), onStolen: () => void leave(false) }, taking > 0);
      if (gone || !hold) {
        hold?.release();
        if (!gone) setLoading({ as: 'elsewhere' });
        return;
      }
      close = () => Promise.resolve(hold.release());
      const opened = await open(id);
      if (gone) {
        hold.release();
        return;
      }
      if (opened.as === 'open') {
        const stop = start(id, opened.claimed ?? true);
        close = async (kept) => {
          await stop(kept);
          hold.release();
        };
      }
      setLoading(opened);
    })().catch((error: unknown) => {
      if (!gone) setLoading({ as: 'failed', problem: storeProblem(error) });
    });
    return () => {
      gone = true;
      void close(true);
    };
  }, [id, taking]);

  switch (loading.as) {
    case 'loading':
      return <Waiting />;
    case 'open':
      return small ? <SmallRoom /> : <Room />;
    case 'missing':
      return <Missing what="This scene is not on this device." />;
    case 'elsewhere':
      return (
        <Missing
          what="This scene is open in another tab."
          advice="Edit it there, or here: the other tab keeps what it has and lets go."
        >
          <Button
            variant="contained"
            onClick={() => {
              setLoading({ as: 'loading' });
              setTaking((times) => times + 1);
            }}
          >
            Edit it here
          </Button>
        </Missing>
      );
    case 'damaged':
      return <Rescue stored={loading.stored} problem={loading.problem} />;
    case 'failed':
      return <Missing what={loading.problem.message} advice={loading.problem.advice} />;
  }
}

/** Closes the open scene; `kept` says whether what is not kept yet is kept now, or is another tab's already. */
type Closing = (kept: boolean) => Promise<void>;

/** Puts a stored scene on the table. */
async function open(id: string): Promise<Loading & { claimed?: boolean }> {
  const { claimed, stored } = await claimScene(id, TAB);
  const view = await db.views.get(id);
  if (!stored) return { as: 'missing' };
  let scene: Scene;
  let unkept = false;
  try {
    const words = readLastWords(id, stored.changed);
    unkept = words !== null;
    scene = checkScene(words ?? stored.scene);
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    return { as: 'damaged', stored, problem: error };
  }
  openScene(id, scene);
  // What was not saved is not in the picture.
  useFirstPicture.setState({ picture: unkept ? null : stored.picture });
  useDocument.setState({ readOnly: !claimed });
  if (unkept && claimed && (await flushed(id, scene))) forgetLastWords(id);
  else if (!unkept) forgetLastWords(id);
  const { id: sceneId, ...kept } = view ?? { id, quality: chosenQuality(), frame: scene.range[0] };
  const seen = { ...firstView, ...kept };
  const known = seen.growth === SCENE_ENTRY || growthIn(scene, seen.growth) !== undefined;
  const lesson = seen.lesson ?? (scene.growths.length === 0 && greeting() ? { id: FIRST, done: [] } : null);
  setView({
    ...seen,
    lesson,
    growth: known ? seen.growth : (scene.growths[0]?.id ?? SCENE_ENTRY),
    chosen: [],
    alone: false,
    playing: false,
    tool: 'look',
    placing: null,
    span: null,
    trail: null,
    pins: [],
    ghosts: 0,
    redraw: null,
    keys: [],
    palette: null,
    sheet: null,
  });
  return { as: 'open', claimed };
}

/** Writes what the page before could not; false where there is no room. */
const flushed = (id: string, scene: Scene): Promise<boolean> =>
  db.scenes.update(id, { scene, name: scene.name, changed: Date.now() }).then(
    () => true,
    () => false,
  );

/** Starts all that works on the open scene; returns how to end it. */
function start(id: string, claimed: boolean): Closing {
  const autosave = startAutosave(id, TAB, claimed);
  const stops = [
    startDirector(),
    startPlaying(),
    startClipboard(),
    startSound(),
    () => endWatching(),
    hearTabs((news) => {
      if (news.news === 'renamed' && news.id === id) edit('Rename scene', (draft) => void (draft.name = news.name));
      if (news.news === 'deleted' && news.id === id)
        useSaving.setState({ state: 'gone', advice: 'It was deleted from this device.' });
    }),
    setKeeper(autosave.keep),
  ];
  return async (kept) => {
    for (const stop of stops.reverse()) stop();
    const { scene } = useDocument.getState();
    const unsaved = useSaving.getState().state !== 'saved';
    autosave.stop(true);
    if (kept) await autosave.flush().catch(() => undefined);
    // Taken without asking, or asked too late: what this tab had not saved is kept beside.
    if (unsaved && (!kept || useSaving.getState().state === 'taken'))
      await import('@/library/scenes').then(({ keepBeside }) => keepBeside(scene)).catch(sayProblem);
  };
}

/** Which command each keys call, of those that do so in the midst of a field too, or of the others. */
const callsOf = (own: Parameters<typeof keysOf>[1], inFields: boolean): ReadonlyMap<string, string> =>
  new Map(
    COMMANDS.filter(({ everywhere = false }) => everywhere === inFields).flatMap((command) =>
      keysOf(command, own)
        .split(', ')
        .filter(Boolean)
        .map((one) => [one, command.id] as const),
    ),
  );

/** Shortcuts pass through everything but fields of text: sliders and check boxes are form fields too. */
const OUTSIDE_TEXT = { enableOnFormTags: true, ignoreEventWhen: (event: KeyboardEvent) => isTextField(event.target) };

const somethingInFront = (): boolean =>
  document.querySelector('[role="dialog"],[role="menu"],.MuiPopover-root') !== null;

/** Runs what a key calls, unless something in front of the studio has the keyboard. */
function call(event: KeyboardEvent, id: string | undefined): void {
  // What the focused part has taken is its own business.
  if (event.defaultPrevented || somethingInFront() || isSliderKey(event)) return;
  // A focused button is pressed by the space bar; that is its own business.
  if (event.code === 'Space' && (event.target as HTMLElement).closest('button,[role="button"],[role="option"]')) return;
  event.preventDefault();
  if (id) runCommand(id);
}

/** The steps of the chosen growth, or what the scene has of its own. */
function Chosen() {
  const selected = useView((state) => state.growth);
  const growth = useDocument((state) => growthIn(state.scene, selected)?.id);
  const several = useView(useShallow((view) => chosenIn(view)));
  if (several.length > 1)
    return (
      <Guarded what="What can be done with several growths">
        <Several ids={several} />
      </Guarded>
    );
  return (
    <Guarded key={growth} what="The steps">
      {growth ? <Stem growth={growth} /> : <ScenePanel />}
    </Guarded>
  );
}

function Room() {
  const name = useDocument((state) => state.scene.name);
  const sheet = useView((state) => state.sheet);
  const asked = useKeepAsked((state) => state.asked);
  const palette = useView((state) => state.palette !== null);
  const panel = useSizes((sizes) => sizes.panel) ?? firstSize('panel');
  const timeline = useSizes((sizes) => sizes.timeline) ?? firstSize('timeline');

  useEffect(() => {
    document.title = `${name} · Uvrex`;
  }, [name]);
  const own = useKeys((state) => state.own);
  const [calls, callsInFields] = useMemo(() => [callsOf(own, false), callsOf(own, true)], [own]);
  useHotkeys([...calls.keys()], (event, { hotkey }) => call(event, calls.get(hotkey)), OUTSIDE_TEXT, [calls]);
  useHotkeys(
    [...callsInFields.keys()],
    (event, { hotkey }) => call(event, callsInFields.get(hotkey)),
    { enableOnFormTags: true },
    [callsInFields],
  );
  useHotkeys('?', (event) => call(event, 'shortcuts'), { ...OUTSIDE_TEXT, useKey: true });
  useHotkeys(
    'escape',
    () => {
      if (somethingInFront()) return;
      stopPainting();
      setView({ tool: 'look', redraw: null, placing: null, keys: [], chosen: [], alone: false });
      setView(({ lesson }) => (lesson?.id === FIRST ? { lesson: null } : {}));
    },
    OUTSIDE_TEXT,
  );

  return (
    <Box
      sx={{
        height: '100vh',
        display: 'grid',
        // Narrower than this it is scrolled to the side: every part can be reached, at any zoom.
        minWidth: 1000,
        gridTemplateRows: '46px minmax(0, 1fr)',
        overflow: 'hidden',
      }}
      // What is dragged goes past the style sheet: a rule for every width would stay.
      style={{ gridTemplateColumns: `${within('panel', panel)} minmax(0, 1fr)` }}
    >
      <Header />
      <Box
        component="aside"
        aria-label="Growths and steps"
        sx={{
          position: 'relative',
          display: 'flex',
          flexDirection: 'column',
          minHeight: 0,
          bgcolor: 'background.paper',
          borderRight: `1px solid ${INK.line}`,
        }}
      >
        <Guarded what="The list of growths">
          <GrowthList />
        </Guarded>
        <Chosen />
        <Divider part="panel" label="Width of the growths and steps" edge="right" />
      </Box>
      <Box
        component="main"
        sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', minWidth: 0, minHeight: 0 }}
        style={{ gridTemplateRows: `minmax(0, 1fr) ${within('timeline', timeline)}` }}
      >
        <Guarded what="The picture">
          <Viewport />
        </Guarded>
        <Box sx={{ ...ONE_CELL, position: 'relative', minWidth: 0, minHeight: 0 }}>
          <Guarded what="The timeline">
            <Timeline />
          </Guarded>
          <Divider part="timeline" label="Height of the timeline" edge="top" />
        </Box>
      </Box>
      {palette && <Palette />}
      {sheet === 'shortcuts' && <Shortcuts />}
      {sheet === 'export' && <ExportSheet />}
      {sheet === 'versions' && <Versions />}
      {asked && <KeepCutting asked={asked} />}
    </Box>
  );
}
