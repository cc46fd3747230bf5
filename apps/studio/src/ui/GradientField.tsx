'use client';

import Box from '@mui/material/Box';
import { type KeyboardEvent, useRef, useState } from 'react';
import { gradientTable, srgbOf, type Stop } from '@uvrex/core';
import { Row, Swatch } from './fields';
import { handShare, usePointDrag } from './pointDrag';
import { evenly, GRADIENT_PRESETS } from './presetLists';
import { Presets } from './Presets';
import { INK } from './theme';

const SAMPLES = 24;

/** CSS of a gradient as the core mixes it. */
export function gradientCss(stops: readonly Stop[]): string {
  const table = gradientTable(stops, SAMPLES);
  const colors = Array.from(
    { length: SAMPLES },
    (_, i) => `rgb(${[0, 1, 2].map((c) => Math.round(255 * srgbOf(table[3 * i + c]))).join()})`,
  );
  return `linear-gradient(90deg, ${colors.join(', ')})`;
}

interface Props {
  label: string;
  help: string;
  value: readonly Stop[];
  onChange: (value: Stop[], live: boolean) => void;
}

/** Colours along something: click the bar to add one, drag to move, Delete to remove; the swatch colours the chosen one. */
export function GradientField({ label, help, value, onChange }: Props) {
  const bar = useRef<HTMLDivElement>(null);
  const [chosen, setChosen] = useState(0);
  const current = value[Math.min(chosen, value.length - 1)];

  const positionOf = (event: { clientX: number }): number => {
    const box = bar.current!.getBoundingClientRect();
    return handShare((event.clientX - box.left) / box.width);
  };
  const change = (i: number, part: Partial<Stop>, live: boolean): void =>
    onChange(
      value.map((stop, k) => (k === i ? { ...stop, ...part } : { ...stop })),
      live,
    );
  const remove = (i: number): void => {
    if (value.length < 2) return;
    onChange(
      value.filter((_, k) => k !== i),
      false,
    );
    setChosen(0);
  };
  const onKey = (event: KeyboardEvent, i: number): void => {
    const by = { ArrowLeft: -0.01, ArrowRight: 0.01 }[event.key];
    if (by) change(i, { at: handShare(value[i].at + by) }, false);
    else if (event.key === 'Delete' || event.key === 'Backspace') remove(i);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const drag = usePointDrag(
    value,
    (i, event) => change(i, { at: positionOf(event) }, true),
    (next) => onChange(next, false),
  );

  return (
    <>
      <Row label={label} help={`${help} Double-click the bar to add a colour, Delete removes the chosen one.`}>
        <Box sx={{ pr: 3.5, py: 0.75 }}>
          <Box
            ref={bar}
            role="group"
            aria-label={`${label} stops`}
            onDoubleClick={(event) => {
              const at = positionOf(event);
              onChange([...value, { at, color: nearest(value, at) }], false);
              setChosen(value.length);
            }}
            sx={{
              position: 'relative',
              height: 16,
              borderRadius: '7px',
              background: gradientCss(value),
              border: `1px solid ${INK.line}`,
              touchAction: 'none',
            }}
          >
            {value.map((stop, i) => (
              <Box
                key={i}
                role="slider"
                tabIndex={0}
                aria-label={`${label}, stop ${i + 1} of ${value.length}`}
                aria-valuemin={0}
                aria-valuemax={100}
                aria-valuenow={Math.round(100 * stop.at)}
                onKeyDown={(event) => onKey(event, i)}
                onFocus={() => setChosen(i)}
                onDoubleClick={(event) => event.stopPropagation()}
                {...drag(i)}
                sx={{
                  position: 'absolute',
                  top: -3,
                  left: `calc(${100 * stop.at}% - 6px)`,
                  width: 12,
                  height: 20,
                  borderRadius: 3,
                  bgcolor: stop.color,
                  border: `2px solid ${i === chosen ? INK.text : INK.deep}`,
                  cursor: 'grab',
                  // Others that stand close do not hide it.
                  zIndex: i === chosen ? 1 : undefined,
                }}
              />
            ))}
          </Box>
        </Box>
      </Row>
      <Row label="" help="">
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, fontSize: 12, color: 'text.secondary' }}>
          <Swatch
            label={`${label}, chosen stop`}
            value={current.color}
            onChange={(color, live) => change(Math.min(chosen, value.length - 1), { color }, live)}
          />
          <Presets
            of={label}
            presets={GRADIENT_PRESETS.map(({ name, colors }) => ({
              name,
              look: <Box sx={{ width: 64, height: 12, borderRadius: 1, background: gradientCss(evenly(colors)) }} />,
              take: () => onChange(evenly(colors), false),
            }))}
            more={[
              {
                name: 'Turn round',
                take: () => onChange(value.map(({ at, color }) => ({ at: 1 - at, color })).reverse(), false),
              },
            ]}
          />
        </Box>
      </Row>
    </>
  );
}

const nearest = (stops: readonly Stop[], at: number): string =>
  [...stops].sort((a, b) => Math.abs(a.at - at) - Math.abs(b.at - at))[0].color;
