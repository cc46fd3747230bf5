'use client';

import Box from '@mui/material/Box';
import dynamic from 'next/dynamic';
import { type Growth, type Resolved, type Step, type StepDeclaration, stepOf } from '@uvrex/core';
import { growthIn, useDocument } from '@/state/document/document';
import { useResults } from '@/state/director/results';
import { chosenIn, SCENE_ENTRY, useView } from '@/state/document/view';
import { Chips } from './Chips';
import { Surface } from './Surface';

// What is seldom there is loaded when it is first asked for.
const LostNotice = dynamic(() => import('./LostNotice').then((module) => module.LostNotice), { ssr: false });
const Chosen = dynamic(() => import('./Chosen').then((module) => module.Chosen), { ssr: false });
const Pins = dynamic(() => import('./Pins').then((module) => module.Pins), { ssr: false });
const Empty = dynamic(() => import('./Empty').then((module) => module.Empty), { ssr: false });
const TrailLine = dynamic(() => import('./TrailLine').then((module) => module.TrailLine), { ssr: false });
const DrawLayer = dynamic(() => import('./DrawLayer').then((module) => module.DrawLayer), { ssr: false });
const PickLayer = dynamic(() => import('./PickLayer').then((module) => module.PickLayer), { ssr: false });
const PlaceLayer = dynamic(() => import('./PlaceLayer').then((module) => module.PlaceLayer), { ssr: false });
const PaintLayer = dynamic(() => import('./PaintLayer').then((module) => module.PaintLayer), { ssr: false });
const Legend = dynamic(() => import('./Legend').then((module) => module.Legend), { ssr: false });
const AttributeTable = dynamic(() => import('@/table/AttributeTable').then((module) => module.AttributeTable), {
  ssr: false,
});
const AnchorHandles = dynamic(() => import('./AnchorHandles').then((module) => module.AnchorHandles), { ssr: false });
const GuideHandles = dynamic(() => import('./GuideHandles').then((module) => module.GuideHandles), { ssr: false });
const FalloffHandles = dynamic(() => import('./FalloffHandles').then((module) => module.FalloffHandles), {
  ssr: false,
});
const StartHandles = dynamic(() => import('./StartHandles').then((module) => module.StartHandles), { ssr: false });
const AlongHandles = dynamic(() => import('./AlongHandles').then((module) => module.AlongHandles), { ssr: false });
const PlaceHandles = dynamic(() => import('./PlaceHandles').then((module) => module.PlaceHandles), { ssr: false });
const MeasureLayer = dynamic(() => import('./MeasureLayer').then((module) => module.MeasureLayer), { ssr: false });
const GridNames = dynamic(() => import('./GridNames').then((module) => module.GridNames), { ssr: false });
const NodeHandles = dynamic(() => import('./NodeHandles').then((module) => module.NodeHandles), { ssr: false });
const WebHandles = dynamic(() => import('./WebHandles').then((module) => module.WebHandles), { ssr: false });
const LessonPanel = dynamic(() => import('@/lessons/LessonPanel').then((module) => module.LessonPanel), { ssr: false });
const ChecksPanel = dynamic(() => import('@/checks/ChecksPanel').then((module) => module.ChecksPanel), { ssr: false });

/** The growth that can be handled in the view: the chosen one, unless it is locked or one of several. */
function useHeld(): Growth | undefined {
  const id = useView((view) => (chosenIn(view).length === 1 ? view.growth : null));
  return useDocument(({ scene }) => {
    const growth = growthIn(scene, id);
    return growth?.locked ? undefined : growth;
  });
}

/** The open step that has such handles, unless something else is being done there. */
function useHandled(wanted: NonNullable<StepDeclaration['handles']>): { growth: Growth; step: Step } | null {
  const growth = useHeld();
  const openSteps = useView((state) => state.openSteps);
  const busy = useView((state) => state.tool === 'draw' || state.playing);
  const step = growth?.steps.find(
    ({ id, kind, on }) => stepOf(kind)?.handles === wanted && on && openSteps.includes(id),
  );
  return growth && step && !busy ? { growth, step } : null;
}

/** The open start of the chosen growth, where it is not handled in a way of its own. */
function useStart(): { growth: Growth; step: Step } | null {
  const growth = useHeld();
  const openSteps = useView((state) => state.openSteps);
  const busy = useView((state) => state.tool !== 'look' || state.playing);
  const step = growth?.steps.find(({ id, kind, on }) => on && openSteps.includes(id) && stepOf(kind)?.held);
  return growth && step && !busy ? { growth, step } : null;
}

/** The growth whose place stands open. */
function useMoved(): Growth | null {
  const growth = useHeld();
  const open = useView((state) => state.openSteps.includes(`place of ${growth?.id}`));
  const busy = useView((state) => state.tool !== 'look' || state.playing);
  return growth && open && !busy ? growth : null;
}

/** The open step that has places on its form, with the parameter that holds them. */
function usePlaced(): { growth: Growth; step: Step; param: string } | null {
  const growth = useHeld();
  const openSteps = useView((state) => state.openSteps);
  const busy = useView((state) => state.tool === 'draw' || state.playing);
  if (!growth || busy) return null;
  for (const step of growth.steps) {
    if (!step.on || !openSteps.includes(step.id)) continue;
    for (const [param, spec] of Object.entries(stepOf(step.kind)?.params ?? {}))
      if (spec.type === 'anchors' && spec.onSkin && (spec.shown?.(step.params as Resolved) ?? true))
        return { growth, step, param };
  }
  return null;
}

/** What is taken hold of in the picture; hangs on every change of the chosen growth. */
function Handles() {
  const painting = useView((state) => state.tool === 'paint');
  const shaping = useHandled('falloff');
  const drawn = useHandled('anchors');
  const weaving = useHandled('web');
  const noded = useHandled('nodes');
  const laid = useHandled('copies');
  const moved = useMoved();
  const placed = usePlaced();
  const started = useStart();
  // Guides are handled while the scene itself is selected.
  const guiding = useView((state) => state.growth === SCENE_ENTRY && !state.playing && state.tool === 'look');
  return (
    <>
      {drawn && <AnchorHandles growth={drawn.growth} step={drawn.step} />}
      {started && <StartHandles growth={started.growth} step={started.step} />}
      {laid && <AlongHandles growth={laid.growth} step={laid.step} />}
      {moved && <PlaceHandles growth={moved} />}
      {weaving && <WebHandles growth={weaving.growth} step={weaving.step} />}
      {noded && <NodeHandles growth={noded.growth} step={noded.step} />}
      {placed && <PlaceLayer growth={placed.growth} step={placed.step} param={placed.param} />}
      {painting && <PaintLayer />}
      {guiding && <GuideHandles />}
      {shaping && <FalloffHandles growth={shaping.growth} step={shaping.step} />}
    </>
  );
}

/** The picture and what lies over it. */
export function Viewport() {
  const drawing = useView((state) => state.tool === 'draw');
  const picking = useView((state) => state.tool === 'pick');
  const measuring = useView((state) => state.tool === 'measure');
  const teaching = useView((state) => state.lesson !== null);
  const grid = useView((state) => state.grid);
  const checks = useView((state) => state.checks);
  const seen = useResults((state) => state.record !== null);
  const pinned = useView((state) => state.pins.length > 0);
  const trailing = useView((state) => state.trail !== null);
  const empty = useDocument((state) => state.scene.growths.length === 0);
  const table = useView((state) => state.table);
  const shaded = useView((state) => state.shade !== null);
  const lost = useResults((state) => state.lost !== null);
  const resting = useView((state) => !state.playing && state.tool === 'look');
  return (
    <Box
      component="section"
      aria-label="Viewport"
      sx={{
        display: 'grid',
        gridTemplateRows: table ? 'minmax(0, 11fr) minmax(0, 9fr)' : 'minmax(0, 1fr)',
        minHeight: 0,
        minWidth: 0,
        overflow: 'hidden',
        bgcolor: '#0a1215',
        touchAction: 'none',
      }}
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault();
        const { files, items } = event.dataTransfer;
        // To be asked for before the event is over.
        const handles = [...items].map(handleOf);
        const dropped = [...files].map((file, i) => ({ file, handle: handles[i] }));
        void import('@/state/actions/dropFiles').then(({ takeDropped }) => takeDropped(dropped));
      }}
    >
      <Box sx={{ position: 'relative', minWidth: 0, minHeight: 0, overflow: 'hidden' }}>
        <Surface />
        {grid && <GridNames />}
        <Handles />
        {resting && seen && <Chosen />}
        {pinned && <Pins />}
        {trailing && <TrailLine />}
        {drawing && <DrawLayer />}
        {picking && <PickLayer />}
        {measuring && <MeasureLayer />}
        {empty && <Empty />}
        {shaded && <Legend />}
        <Chips />
        {lost && <LostNotice />}
        {checks && <ChecksPanel />}
        {/* While one draws the whole view is to draw in. */}
        {teaching && !drawing && <LessonPanel />}
      </Box>
      {table && <AttributeTable />}
    </Box>
  );
}

/** What a dropped file can be watched by; null where the browser gives nothing of the kind. */
async function handleOf(item: DataTransferItem): Promise<FileSystemFileHandle | null> {
  const ask = (item as { getAsFileSystemHandle?: () => Promise<FileSystemHandle | null> }).getAsFileSystemHandle;
  const handle = await ask?.call(item).catch(() => null);
  return handle?.kind === 'file' ? (handle as FileSystemFileHandle) : null;
}
