'use client';

import Box from '@mui/material/Box';
import dynamic from 'next/dynamic';
import { type RefObject, useEffect, useMemo, useRef, useState } from 'react';
import { withoutGroups } from '@uvrex/core';
import { holderIn, useDocument } from '@/state/document/document';
import { rowsOf } from '@/state/actions/rows';
import { useResults } from '@/state/director/results';
import { type KeyAddress, SCENE_ENTRY, setView, useView } from '@/state/document/view';
import { type Hold, type Spot, useDrag } from '@/ui/drag';
import { INK, MONO } from '@/ui/theme';
import { sameKey, tracksOf } from '../state/document/trackRows';
import { Pod, POD, VALUE, ValueRow } from './rows';
import { exactFrame, frameAt, panScale, type Scale, scaleOf, ticks, xOf, zoomScale } from '../state/document/timeScale';
import { SpanBar } from './SpanBar';
import { Transport } from './Transport';

const GroupPod = dynamic(() => import('./GroupPod').then((module) => module.GroupPod), { ssr: false });
const Markers = dynamic(() => import('./Markers').then((module) => module.Markers), { ssr: false });
const SelectionBar = dynamic(() => import('./SelectionBar').then((module) => module.SelectionBar), { ssr: false });
const EasingMenu = dynamic(() => import('./EasingMenu').then((module) => module.EasingMenu), { ssr: false });

const RULER = 24;

/** Time: transport, ruler, a pod for each growth, and the animated values of the selected one. */
export function Timeline() {
  const scene = useDocument((state) => state.scene);
  const selected = useView((state) => state.growth);
  const span = useView((state) => state.span);
  const folded = useView((state) => state.folded);
  const several = useView((state) => state.keys.length > 1);
  const body = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(900);
  const [easing, setEasing] = useState<Element | null>(null);
  const scale = useMemo(() => scaleOf(scene.range, width, span), [scene.range, width, span]);

  useEffect(() => {
    const observer = new ResizeObserver(([entry]) => setWidth(entry.contentRect.width));
    observer.observe(body.current!);
    return () => observer.disconnect();
  }, []);
  // A range that no longer holds what is shown shows all of itself.
  useEffect(() => {
    const { span: shown } = useView.getState();
    if (shown && (shown[0] < scene.range[0] || shown[1] > scene.range[1])) setView({ span: null });
  }, [scene.range]);
  useWheel(body, scale);

  const scrub = ({ at }: Hold): void => setView({ frame: frameAt(scale, at.x), playing: false });
  const scrubbing = useDrag<void, number>({
    take(_, hold) {
      const { frame } = useView.getState();
      scrub(hold);
      return frame;
    },
    move: (_, hold) => scrub(hold),
    end: (_, frame, ending) => ending === 'taken back' && setView({ frame }),
  });

  const holder = holderIn(scene, selected);
  const values = holder ? tracksOf(holder) : [];
  // The scene's own values stand above all growths while it is selected.
  const ofScene = selected === SCENE_ENTRY ? values : [];
  let y = ofScene.length * VALUE;
  const rows = rowsOf({ growths: withoutGroups(scene).growths, groups: scene.groups }, folded).map((row) => {
    const top = y;
    y += POD + (row.id === selected ? values.length * VALUE : 0);
    return { row, top };
  });
  const height = Math.max(y + 6, 60);
  const net = useNet(scrub);

  return (
    <Box
      component="section"
      aria-label="Timeline"
      sx={{
        display: 'flex',
        flexDirection: 'column',
        minHeight: 0,
        borderTop: `1px solid ${INK.line}`,
        bgcolor: 'background.paper',
      }}
    >
      <Transport openEasing={setEasing} />
      <Box
        ref={body}
        role="group"
        aria-label="Tracks"
        tabIndex={0}
        sx={{ flex: 1, minHeight: 0, overflowY: 'auto', overflowX: 'hidden', userSelect: 'none' }}
      >
        <Box
          component="svg"
          width={width}
          height={RULER}
          data-testid="ruler"
          {...scrubbing()}
          sx={{
            display: 'block',
            position: 'sticky',
            top: 0,
            zIndex: 1,
            bgcolor: 'background.paper',
            cursor: 'pointer',
            touchAction: 'none',
          }}
        >
          {ticks(scale).map((frame) => (
            <text
              key={frame}
              x={xOf(scale, frame)}
              y={12}
              fill={INK.mute}
              fontSize={10}
              fontFamily={MONO}
              textAnchor="middle"
            >
              {frame}
            </text>
          ))}
          <ReadyBar scale={scale} />
          {scene.markers.length > 0 && <Markers scale={scale} />}
          {several && <SelectionBar scale={scale} y={15} />}
          <Playhead scale={scale} height={RULER} head />
        </Box>
        <Box
          component="svg"
          width={width}
          height={height}
          data-testid="rows"
          {...net.drag()}
          sx={{ display: 'block', touchAction: 'none' }}
        >
          <defs>
            <clipPath id="shown-frames">
              <rect x={scale.left - 6} y={-10} width={scale.right - scale.left + 12} height={height + 20} />
            </clipPath>
          </defs>
          {ticks(scale).map((frame) => (
            <line key={frame} x1={xOf(scale, frame)} x2={xOf(scale, frame)} y1={0} y2={height} stroke="#22323a" />
          ))}
          {ofScene.map((row, i) => (
            <ValueRow key={`${row.step}.${row.param}`} row={row} top={i * VALUE} scale={scale} openEasing={setEasing} />
          ))}
          {rows.map(({ row, top }) => (
            <g key={row.id} transform={`translate(0 ${top})`}>
              {'group' in row ? (
                <GroupPod group={row.group} members={row.members} scale={scale} />
              ) : (
                <Pod
                  growth={row.growth}
                  inGroup={row.within !== null}
                  scale={scale}
                  selected={row.id === selected}
                  openEasing={setEasing}
                />
              )}
              {row.id === selected &&
                values.map((row, i) => (
                  <ValueRow
                    key={`${row.step}.${row.param}`}
                    row={row}
                    top={POD + i * VALUE}
                    scale={scale}
                    openEasing={setEasing}
                  />
                ))}
            </g>
          ))}
          <Playhead scale={scale} height={height} />
          {net.box && (
            <rect {...net.box} fill={`${INK.front}22`} stroke={INK.front} strokeDasharray="4 3" pointerEvents="none" />
          )}
        </Box>
      </Box>
      <SpanBar range={scene.range} />
      {easing && <EasingMenu anchor={easing} close={() => setEasing(null)} />}
    </Box>
  );
}

/** The wheel comes nearer with Ctrl held, and goes along with Shift or sideways. */
function useWheel(body: RefObject<HTMLDivElement | null>, scale: Scale): void {
  const now = useRef(scale);
  useEffect(() => void (now.current = scale));
  useEffect(() => {
    const element = body.current!;
    const onWheel = (event: WheelEvent): void => {
      const shown = now.current;
      const x = event.clientX - element.getBoundingClientRect().left;
      const along = event.shiftKey ? event.deltaY : event.deltaX;
      if (event.ctrlKey || event.metaKey)
        setView(({ span }) => ({
          span: zoomScale(shown.range, span, exactFrame(shown, x), Math.exp(event.deltaY * 0.002)),
        }));
      else if (along !== 0) {
        const frames = (along / (shown.right - shown.left)) * (shown.last - shown.first);
        setView(({ span }) => ({ span: panScale(shown.range, span, frames) }));
      } else return;
      event.preventDefault();
    };
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => element.removeEventListener('wheel', onWheel);
  }, [body]);
}

interface Net extends Spot {
  width: number;
  height: number;
}

/** Dragging over the rows chooses the keys within; a click without dragging goes to that frame. */
function useNet(click: (hold: Hold) => void) {
  const [box, setBox] = useState<Net | null>(null);
  const drag = useDrag<void, { from: Spot; keys: KeyAddress[]; rows: SVGSVGElement; box: Net | null }>({
    take: (_, { at, event, element }) => ({
      from: at,
      keys: event.shiftKey ? useView.getState().keys : [],
      rows: element as SVGSVGElement,
      box: null,
    }),
    move(_, { at }, kept) {
      const { from } = kept;
      kept.box = {
        x: Math.min(from.x, at.x),
        y: Math.min(from.y, at.y),
        width: Math.abs(at.x - from.x),
        height: Math.abs(at.y - from.y),
      };
      setBox(kept.box);
    },
    click(_, hold) {
      click(hold);
      setView({ keys: [] });
    },
    end(_, { keys, rows, box: net }, ending) {
      setBox(null);
      if (!net || ending !== 'let go') return;
      const fresh = keysWithin(rows, net).filter((key) => !keys.some((other) => sameKey(key, other)));
      setView({ keys: [...keys, ...fresh] });
    },
  });
  return { box, drag };
}

/** The keys whose marks lie in a box: of values, or where those are not shown of growths. */
function keysWithin(rows: SVGSVGElement, box: Net): KeyAddress[] {
  const area = rows.getBoundingClientRect();
  const keys: KeyAddress[] = [];
  for (const mark of rows.querySelectorAll<SVGElement>('[data-keys]')) {
    const at = mark.getBoundingClientRect();
    const [x, y] = [at.x + at.width / 2 - area.x, at.y + at.height / 2 - area.y];
    if (x < box.x || x > box.x + box.width || y < box.y || y > box.y + box.height) continue;
    for (const key of JSON.parse(mark.dataset.keys!) as KeyAddress[])
      if (!keys.some((other) => sameKey(key, other))) keys.push(key);
  }
  return keys;
}

/** Which frames can be shown at once. */
function ReadyBar({ scale }: { scale: Scale }) {
  const ready = useResults((state) => state.ready);
  const [first, last] = [Math.ceil(scale.first), Math.floor(scale.last)];
  const cell = (scale.right - scale.left) / (scale.last - scale.first);
  const runs: [number, number][] = [];
  for (let frame = first; frame <= last; frame++) {
    if (!ready.has(frame)) continue;
    const run = runs.at(-1);
    if (run && run[1] === frame - 1) run[1] = frame;
    else runs.push([frame, frame]);
  }
  return (
    <g data-testid="ready" data-count={ready.size}>
      {runs.map(([from, to]) => (
        <rect
          key={from}
          x={xOf(scale, from) - cell / 2}
          y={18}
          width={(to - from + 1) * cell}
          height={3}
          fill="#66d3c8"
          opacity={0.75}
        />
      ))}
    </g>
  );
}

function Playhead({ scale, height, head = false }: { scale: Scale; height: number; head?: boolean }) {
  const frame = useView((state) => state.frame);
  const x = xOf(scale, frame);
  if (frame < scale.first || frame > scale.last) return null;
  return (
    <g pointerEvents="none">
      <line x1={x} x2={x} y1={head ? 6 : 0} y2={height} stroke={INK.front} strokeWidth={1.6} />
      {head && <path d={`M${x - 6} 1h12v8l-6 6-6-6z`} fill={INK.front} />}
    </g>
  );
}
