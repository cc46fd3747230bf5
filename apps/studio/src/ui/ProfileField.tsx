'use client';

import Box from '@mui/material/Box';
import { type KeyboardEvent, type MouseEvent, useRef, useState } from 'react';
import { profileCurve, type ProfileParam, type ProfilePoint } from '@uvrex/core';
import { Row } from './fields';
import { INK } from './theme';

/** Pixels; the stem's column is of fixed width. */
const [WIDTH, HEIGHT] = [149, 62];

interface Props {
  spec: ProfileParam;
  value: readonly ProfilePoint[];
  onChange: (value: ProfilePoint[], live: boolean) => void;
  accent: string;
}

/** A value drawn along something: drag points, double-click to add one, Delete to remove the focused one. */
export function ProfileField({ spec, value, onChange, accent }: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const dragged = useRef<number | null>(null);
  const [focused, setFocused] = useState<number | null>(null);
  const { min, max } = spec;
  const x = (at: number): number => at * WIDTH;
  const y = (v: number): number => HEIGHT - ((v - min) / (max - min)) * HEIGHT;
  const pointOf = (event: { clientX: number; clientY: number }): ProfilePoint => {
    const box = svg.current!.getBoundingClientRect();
    const share = (v: number): number => Math.min(1, Math.max(0, v));
    return {
      at: Math.round(1000 * share((event.clientX - box.left) / box.width)) / 1000,
      value: Math.round(1000 * (min + (max - min) * (1 - share((event.clientY - box.top) / box.height)))) / 1000,
    };
  };
  const change = (i: number, point: ProfilePoint, live: boolean): void =>
    onChange(
      value.map((old, k) => (k === i ? point : { ...old })),
      live,
    );

  const onKey = (event: KeyboardEvent, i: number): void => {
    const by = { ArrowLeft: [-0.01, 0], ArrowRight: [0.01, 0], ArrowUp: [0, 0.01], ArrowDown: [0, -0.01] }[event.key];
    if (by) {
      const { at, value: v } = value[i];
      change(
        i,
        { at: Math.min(1, Math.max(0, at + by[0])), value: Math.min(max, Math.max(min, v + by[1] * (max - min))) },
        false,
      );
    } else if ((event.key === 'Delete' || event.key === 'Backspace') && value.length > 1)
      onChange(
        value.filter((_, k) => k !== i),
        false,
      );
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const add = (event: MouseEvent): void => onChange([...value, pointOf(event)], false);

  const curve = profileCurve(value);
  const steps = Array.from({ length: 81 }, (_, i) => `${x(i / 80)},${y(curve(i / 80)).toFixed(2)}`);
  return (
    <Row label={spec.label} help={`${spec.help} Drag points; double-click adds one, Delete removes it.`}>
      <Box sx={{ pr: 3.5, py: 0.75 }}>
        <Box
          component="svg"
          ref={svg}
          width={WIDTH}
          height={HEIGHT}
          role="group"
          aria-label={`${spec.label} profile`}
          onDoubleClick={add}
          sx={{
            display: 'block',
            bgcolor: INK.raised,
            borderRadius: '7px',
            overflow: 'visible',
            touchAction: 'none',
            cursor: 'copy',
          }}
        >
          <line x1={0} x2={WIDTH} y1={y(1)} y2={y(1)} stroke={INK.line} strokeDasharray="2 3" />
          <polygon points={`0,${HEIGHT} ${steps.join(' ')} ${WIDTH},${HEIGHT}`} fill={accent} opacity={0.18} />
          <polyline points={steps.join(' ')} fill="none" stroke={accent} strokeWidth={1.6} />
          {value.map((point, i) => (
            <circle
              key={i}
              cx={x(point.at)}
              cy={y(point.value)}
              r={focused === i ? 5.5 : 4.5}
              fill={focused === i ? INK.front : INK.text}
              stroke={INK.deep}
              tabIndex={0}
              role="button"
              aria-label={`${spec.label}, point ${i + 1} of ${value.length}: ${Math.round(100 * point.value)} % at ${Math.round(100 * point.at)} %`}
              cursor="grab"
              onFocus={() => setFocused(i)}
              onBlur={() => setFocused(null)}
              onKeyDown={(event) => onKey(event, i)}
              onDoubleClick={(event) => event.stopPropagation()}
              onPointerDown={(event) => {
                event.currentTarget.setPointerCapture(event.pointerId);
                dragged.current = i;
              }}
              onPointerMove={(event) => dragged.current === i && change(i, pointOf(event), true)}
              onPointerUp={() => {
                dragged.current = null;
                onChange([...value], false);
              }}
            />
          ))}
        </Box>
      </Box>
    </Row>
  );
}
