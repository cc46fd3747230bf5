'use client';

import Box from '@mui/material/Box';
import { type PointerEvent, useEffect, useRef, useState } from 'react';
import { type Growth, valueAt } from '@uvrex/core';
import { growthIn, useDocument } from '@/state/document';
import { useResults } from '@/state/results';
import { setView, useView } from '@/state/view';
import { INK, MONO } from '@/ui/theme';
import { EasingMenu } from './EasingMenu';
import { addressOf, type TrackRow, tracksOf } from './keys';
import { podPath } from './pod';
import { frameAt, type Scale, scaleOf, ticks, xOf } from './scale';
import { Seed } from './Seed';
import { Transport } from './Transport';

const RULER = 24;
const POD = 32;
const VALUE = 34;

/** Time: transport, ruler, a pod for each growth, and the animated values of the selected one. */
export function Timeline() {
  const scene = useDocument((state) => state.scene);
  const selected = useView((state) => state.growth);
  const body = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(900);
  const [easing, setEasing] = useState<Element | null>(null);

  useEffect(() => {
    const observer = new ResizeObserver(([entry]) => setWidth(entry.contentRect.width));
    observer.observe(body.current!);
    return () => observer.disconnect();
  }, []);

  const scale = scaleOf(scene.range, width);
  const scrubbing = useRef(false);
  const scrub = (event: PointerEvent): void => {
    const x = event.clientX - event.currentTarget.getBoundingClientRect().left;
    setView({ frame: frameAt(scale, x), playing: false });
  };
  const scrubHandlers = {
    onPointerDown: (event: PointerEvent) => {
      if (event.button !== 0) return;
      event.currentTarget.setPointerCapture(event.pointerId);
      scrubbing.current = true;
      scrub(event);
    },
    onPointerMove: (event: PointerEvent) => scrubbing.current && scrub(event),
    onPointerUp: () => (scrubbing.current = false),
  };

  const growth = growthIn(scene, selected);
  const values = growth ? tracksOf(growth) : [];
  let y = 0;
  const rows = scene.growths.map((entry) => {
    const top = y;
    y += POD + (entry === growth ? values.length * VALUE : 0);
    return { entry, top };
  });
  const height = Math.max(y + 6, 60);

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
          {...scrubHandlers}
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
          <Playhead scale={scale} height={RULER} head />
        </Box>
        <Box
          component="svg"
          width={width}
          height={height}
          {...scrubHandlers}
          sx={{ display: 'block', touchAction: 'none' }}
        >
          {ticks(scale).map((frame) => (
            <line key={frame} x1={xOf(scale, frame)} x2={xOf(scale, frame)} y1={0} y2={height} stroke="#22323a" />
          ))}
          {rows.map(({ entry, top }) => (
            <g key={entry.id} transform={`translate(0 ${top})`}>
              <Pod growth={entry} scale={scale} selected={entry === growth} openEasing={setEasing} />
              {entry === growth &&
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
        </Box>
      </Box>
      <EasingMenu anchor={easing} close={() => setEasing(null)} />
    </Box>
  );
}

/** Which frames can be shown at once. */
function ReadyBar({ scale }: { scale: Scale }) {
  const ready = useResults((state) => state.ready);
  const { first, last } = scale;
  const cell = (scale.right - scale.left) / (last - first);
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
  return (
    <g pointerEvents="none">
      <line x1={x} x2={x} y1={head ? 6 : 0} y2={height} stroke={INK.front} strokeWidth={1.6} />
      {head && <path d={`M${x - 6} 1h12v8l-6 6-6-6z`} fill={INK.front} />}
    </g>
  );
}

interface RowProps {
  scale: Scale;
  openEasing: (anchor: Element) => void;
}

function Pod({ growth, scale, selected, openEasing }: RowProps & { growth: Growth; selected: boolean }) {
  const shares = useResults((state) => state.shares.get(growth.id));
  const rows = tracksOf(growth);
  const frames = [...new Set(rows.flatMap(({ track }) => track.keys.map(({ frame }) => frame)))].sort((a, b) => a - b);
  return (
    <g>
      <text
        x={14}
        y={POD / 2 + 4}
        fontSize={12.5}
        fontWeight={selected ? 650 : 450}
        fill={growth.visible ? (selected ? INK.text : '#c6d2cf') : INK.mute}
        cursor="pointer"
        onPointerDown={(event) => {
          event.stopPropagation();
          setView({ growth: growth.id, keys: [] });
        }}
      >
        {clipped(growth.name, 20)}
      </text>
      {shares && growth.visible && (
        <path
          d={podPath(shares, scale.right - scale.left, POD - 6)}
          transform={`translate(${scale.left} 3)`}
          fill={growth.hue}
          opacity={selected ? 0.95 : 0.55}
          data-testid={`pod-${growth.name}`}
        />
      )}
      {selected &&
        frames.map((frame, i) => (
          <Seed
            key={i}
            keys={rows
              .filter(({ track }) => track.keys.some((key) => key.frame === frame))
              .map((row) => addressOf(row, frame))}
            x={xOf(scale, frame + growth.shift)}
            y={POD / 2}
            label={`Keys of ${growth.name} at frame ${frame + growth.shift}`}
            shape="seed"
            scale={scale}
            openEasing={openEasing}
          />
        ))}
    </g>
  );
}

/** The curve of one animated value with its keys. */
function ValueRow({ row, top, scale, openEasing }: RowProps & { row: TrackRow; top: number }) {
  const { track, shift } = row;
  const count = Math.min(600, Math.max(60, scale.last - scale.first));
  const samples = Array.from({ length: count + 1 }, (_, i) => {
    const frame = scale.first + (i / count) * (scale.last - scale.first);
    return [frame, valueAt(track, frame - shift)] as const;
  });
  const all = [...samples.map(([, value]) => value), ...track.keys.map(({ value }) => value)];
  const [low, high] = [Math.min(...all), Math.max(...all)];
  const yOf = (value: number): number =>
    top + VALUE - 7 - (high > low ? (value - low) / (high - low) : 0.5) * (VALUE - 14);
  return (
    <g>
      <text x={26} y={top + VALUE / 2 + 4} fontSize={12} fill={INK.mute}>
        {clipped(row.label, 19)}
        <title>{row.label}</title>
      </text>
      <polyline
        points={samples.map(([frame, value]) => `${xOf(scale, frame).toFixed(1)},${yOf(value).toFixed(1)}`).join(' ')}
        fill="none"
        stroke={INK.front}
        strokeWidth={1.6}
      />
      {/* Numbered, not keyed by frame: a key must stay the same element while it is dragged. */}
      {track.keys.map(({ frame, value }, i) => (
        <Seed
          key={i}
          keys={[addressOf(row, frame)]}
          x={xOf(scale, frame + shift)}
          y={yOf(value)}
          label={`Key of ${row.label} at frame ${frame + shift}`}
          shape="dot"
          scale={scale}
          openEasing={openEasing}
        />
      ))}
    </g>
  );
}

const clipped = (text: string, most: number): string => (text.length > most ? `${text.slice(0, most - 1)}…` : text);
