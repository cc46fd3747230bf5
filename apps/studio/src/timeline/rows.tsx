'use client';

import { type KeyboardEvent, memo } from 'react';
import { type Cycle, type Growth, isTrack, stepOf, type Track, valueAt } from '@uvrex/core';
import { setParam } from '@/state/actions/valueActions';
import { holderIn, useDocument } from '@/state/document/document';
import { useResults } from '@/state/director/results';
import { type KeyAddress, select, setView } from '@/state/document/view';
import { useDrag } from '@/ui/drag';
import { keyStep } from '@/ui/pressed';
import { INK } from '@/ui/theme';
import { addressOf, type TrackRow, tracksOf } from '../state/document/trackRows';
import { marksOf } from './marks';
import { PodShape } from './PodShape';
import { exactFrame, type Scale, xOf } from '../state/document/timeScale';
import { KeyMark } from './KeyMark';

export const POD = 32;
export const VALUE = 34;
/** Ribs of a stagger that are shown; the rest follows at the same distance. */
const RIBS = 12;

interface RowProps {
  scale: Scale;
  openEasing: (anchor: Element) => void;
}

/** Goes from row to row with the arrow keys. */
export function onRowKey(event: KeyboardEvent<SVGElement>, act: () => void): void {
  const way = { ArrowUp: -1, ArrowDown: 1 }[event.key];
  if (way) {
    const rows = [...(event.currentTarget.ownerSVGElement?.querySelectorAll<SVGElement>('[data-row]') ?? [])];
    rows[rows.indexOf(event.currentTarget) + way]?.focus();
  } else if (event.key === 'Enter' || event.key === ' ') act();
  else return;
  event.preventDefault();
  event.stopPropagation();
}

/** A growth's band: how much of it has grown at each frame, with its keys while it is selected. */
export const Pod = memo(function Pod({
  growth,
  scale,
  selected,
  inGroup,
  openEasing,
}: RowProps & { growth: Growth; selected: boolean; inGroup: boolean }) {
  const shares = useResults((state) => state.shares.get(growth.id));
  const failed = useResults((state) => state.record?.growths.some(({ id, failed: bad }) => id === growth.id && bad));
  // Only the one whose keys are shown hangs on the whole scene: its guides have keys too.
  const scene = useDocument((state) => (selected ? state.scene : null));
  const rows = scene ? tracksOf(holderIn(scene, growth.id) ?? growth) : [];
  const at = new Map<number, KeyAddress[]>();
  for (const row of rows)
    for (const { frame } of row.track.keys) {
      const keys = at.get(frame) ?? [];
      keys.push(addressOf(row, frame));
      at.set(frame, keys);
    }
  const frames = [...at.keys()].sort((a, b) => a - b);
  const marks = marksOf(
    frames.map((frame) => frame + growth.shift),
    scale,
  );
  const [from, to] = [xOf(scale, scale.range[0]), xOf(scale, scale.range[1])];
  const choose = (): void => select(growth.id);
  return (
    <g>
      <text
        x={inGroup ? 26 : 14}
        y={POD / 2 + 4}
        fontSize={12.5}
        fontWeight={selected ? 650 : 450}
        fill={failed ? INK.fault : growth.visible ? (selected ? INK.text : '#c6d2cf') : INK.mute}
        cursor="pointer"
        role="button"
        tabIndex={0}
        data-row
        aria-label={`Row of ${growth.name}`}
        aria-pressed={selected}
        onKeyDown={(event) => onRowKey(event, choose)}
        onPointerDown={(event) => {
          event.stopPropagation();
          choose();
        }}
      >
        {clipToRange(growth.name, inGroup ? 18 : 20)}
      </text>
      <g clipPath="url(#shown-frames)">
        {shares && growth.visible && !failed && (
          <g transform={`translate(${from} 3)`}>
            <PodShape
              shares={shares}
              width={to - from}
              height={POD - 6}
              hue={growth.hue}
              opacity={selected ? 0.95 : 0.55}
              testId={`pod-${growth.name}`}
            />
          </g>
        )}
        {failed && (
          <text x={from + 8} y={POD / 2 + 4} fontSize={12} fill={INK.fault}>
            has a problem
          </text>
        )}
        {selected && <Ribs growth={growth} scale={scale} />}
      </g>
      {selected &&
        marks.map(({ x, from, to }) => (
          <KeyMark
            key={from}
            keys={frames.slice(from, to).flatMap((frame) => at.get(frame)!)}
            x={x}
            y={POD / 2}
            label={`Keys of ${growth.name} at ${framesSaid(frames[from] + growth.shift, frames[to - 1] + growth.shift)}`}
            shape="long"
            scale={scale}
            openEasing={openEasing}
          />
        ))}
    </g>
  );
});

/** Where each path of a staggered growth begins: drag one, and all keep their distance. */
function Ribs({ growth, scale }: { growth: Growth; scale: Scale }) {
  const step = growth.steps.find(({ kind, on }) => on && stepOf(kind)?.staggered);
  const { staggered = '', paced = '' } = stepOf(step?.kind ?? '') ?? {};
  const stagger = step?.params[staggered];
  const to = step?.params[paced];
  if (!step || typeof stagger !== 'number' || !(stagger > 0) || !isTrack(to)) return null;
  return (
    <RibHandles
      of={growth.name}
      stagger={stagger}
      begins={to.keys[0].frame + growth.shift}
      set={(next) => setParam(growth.id, step.id, staggered, Math.max(0.1, Math.round(next * 10) / 10), 'rib')}
      scale={scale}
    />
  );
}

interface RibProps {
  of: string;
  /** Frames from one path to the next. */
  stagger: number;
  /** The frame at which the first begins. */
  begins: number;
  set: (stagger: number) => void;
  scale: Scale;
}

function RibHandles({ of, stagger, begins, set, scale }: RibProps) {
  const drag = useDrag<number>({ move: (path, { at }) => set((exactFrame(scale, at.x) - begins) / path) });
  const onKey = (event: KeyboardEvent): void => {
    const by = keyStep(event, { ArrowLeft: -0.5, ArrowRight: 0.5 });
    if (by) set(stagger + by);
  };
  return (
    <g data-testid="ribs">
      {Array.from({ length: RIBS }, (_, i) => {
        const x = xOf(scale, begins + (i + 1) * stagger);
        return (
          <g key={i}>
            <path
              d={`M${x} 4q3 ${POD / 2 - 4} 0 ${POD - 8}`}
              fill="none"
              stroke={INK.deep}
              strokeWidth={2}
              opacity={0.75}
            />
            <rect
              x={x - 4}
              y={2}
              width={9}
              height={POD - 4}
              fill="transparent"
              cursor="ew-resize"
              role="slider"
              tabIndex={i === 0 ? 0 : -1}
              aria-label={`Stagger of ${of}, path ${i + 2}`}
              aria-valuenow={stagger}
              onKeyDown={onKey}
              {...drag(i + 1)}
            />
          </g>
        );
      })}
    </g>
  );
}

const CYCLE_SIGNS: Record<Cycle, string> = {
  hold: 'holds',
  repeat: 'repeats',
  'ping-pong': 'there and back',
  'repeat-offset': 'repeats onwards',
};

interface ValueRowProps extends RowProps {
  row: TrackRow;
  top: number;
}

/** The curve of one animated value with its keys; what its cycles make of it past them is drawn broken. */
export const ValueRow = memo(function ValueRow({ row, top, scale, openEasing }: ValueRowProps) {
  const { track, shift } = row;
  const curve = curveOf(track, shift, scale, top);
  const marks = marksOf(
    track.keys.map(({ frame }) => frame + shift),
    scale,
  );
  const [low, high] = [track.keys[0].frame + shift, track.keys[track.keys.length - 1].frame + shift];
  const choose = (): void =>
    setView({ keys: track.keys.map(({ frame }) => addressOf(row, frame)), growth: row.growth });
  const drawn = (from: number, to: number, past: boolean) =>
    to > from && (
      <polyline
        points={curve.points(from, to)}
        fill="none"
        stroke={INK.front}
        strokeWidth={past ? 1.2 : 1.6}
        strokeDasharray={past ? '2 4' : undefined}
        opacity={past ? 0.75 : 1}
        data-past={past || undefined}
      />
    );
  return (
    <g>
      <text
        x={26}
        y={top + VALUE / 2 + 4}
        fontSize={12}
        fill={INK.mute}
        role="button"
        tabIndex={0}
        data-row
        cursor="pointer"
        aria-label={`Row of ${row.label}`}
        onKeyDown={(event) => onRowKey(event, choose)}
        onPointerDown={(event) => {
          event.stopPropagation();
          choose();
        }}
      >
        {clipToRange(row.label, 19)}
        <title>{`${row.label}: ${CYCLE_SIGNS[track.before]} before its keys, ${CYCLE_SIGNS[track.after]} after`}</title>
      </text>
      <g clipPath="url(#shown-frames)">
        {drawn(scale.first, Math.min(low, scale.last), true)}
        {drawn(Math.max(low, scale.first), Math.min(high, scale.last), false)}
        {drawn(Math.max(high, scale.first), scale.last, true)}
      </g>
      {/* Numbered, not keyed by frame: a key must stay the same element while it is dragged. */}
      {marks.map(({ x, from, to }) => (
        <KeyMark
          key={from}
          keys={track.keys.slice(from, to).map(({ frame }) => addressOf(row, frame))}
          x={x}
          y={curve.yOf(track.keys[from].value)}
          label={`${to - from > 1 ? 'Keys' : 'Key'} of ${row.label} at ${framesSaid(track.keys[from].frame + shift, track.keys[to - 1].frame + shift)}`}
          shape="round"
          scale={scale}
          openEasing={openEasing}
        />
      ))}
    </g>
  );
}, sameValueRow);

/** Rows are listed anew after each change; one is drawn anew where it tells something else. */
function sameValueRow(a: ValueRowProps, b: ValueRowProps): boolean {
  const told = Object.keys(a.row) as (keyof TrackRow)[];
  return (
    a.top === b.top &&
    a.scale === b.scale &&
    a.openEasing === b.openEasing &&
    told.every((key) => a.row[key] === b.row[key])
  );
}

function curveOf(track: Track, shift: number, scale: Scale, top: number) {
  const count = Math.min(600, Math.max(60, Math.round(scale.last - scale.first)));
  const at = (frame: number): number => valueAt(track, frame - shift);
  let [low, high] = [Infinity, -Infinity];
  const take = (value: number): void => {
    low = Math.min(low, value);
    high = Math.max(high, value);
  };
  for (const { value } of track.keys) take(value);
  for (let i = 0; i <= count; i++) take(at(scale.first + (i / count) * (scale.last - scale.first)));
  const yOf = (value: number): number =>
    top + VALUE - 7 - (high > low ? (value - low) / (high - low) : 0.5) * (VALUE - 14);
  const points = (from: number, to: number): string => {
    const n = Math.max(2, Math.ceil((count * (to - from)) / (scale.last - scale.first)));
    return Array.from({ length: n + 1 }, (_, i) => {
      const frame = from + (i / n) * (to - from);
      return `${xOf(scale, frame).toFixed(1)},${yOf(at(frame)).toFixed(1)}`;
    }).join(' ');
  };
  return { yOf, points };
}

const framesSaid = (first: number, last: number): string =>
  first === last ? `frame ${first}` : `frames ${first} to ${last}`;

export const clipToRange = (text: string, most: number): string =>
  text.length > most ? `${text.slice(0, most - 1)}…` : text;
