'use client';

import Box from '@mui/material/Box';
import { type KeyboardEvent, type MouseEvent, useRef, useState } from 'react';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { PROFILE_SHAPES, profileCurve, type ProfileParam, type ProfilePoint, type ProfileShape } from '@uvrex/core';
import { Row } from './fields';
import { handShare, usePointDrag } from './pointDrag';
import { PROFILE_PRESETS } from './presetLists';
import { Presets } from './Presets';
import { INK } from './theme';

const SHAPE_WORDS: Record<ProfileShape, string> = { smooth: 'Smooth', straight: 'Straight', step: 'Step' };

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
  const [chosen, setChosen] = useState(0);
  const current = Math.min(chosen, value.length - 1);
  const { min, max } = spec;
  const x = (at: number): number => at * WIDTH;
  const y = (v: number): number => HEIGHT - ((v - min) / (max - min)) * HEIGHT;
  /** The value at a share of the height, to a thousandth. */
  const valueAt = (share: number): number =>
    Math.round(1000 * (min + (max - min) * Math.min(1, Math.max(0, share)))) / 1000;
  const pointOf = (event: { clientX: number; clientY: number }): ProfilePoint => {
    const box = svg.current!.getBoundingClientRect();
    return {
      at: handShare((event.clientX - box.left) / box.width),
      value: valueAt(1 - (event.clientY - box.top) / box.height),
    };
  };
  const change = (i: number, point: ProfilePoint, live: boolean): void =>
    onChange(
      value.map((old, k) => (k === i ? { ...old, ...point } : { ...old })),
      live,
    );
  const drag = usePointDrag(
    value,
    (i, event) => change(i, pointOf(event), true),
    (next) => onChange(next, false),
  );

  const onKey = (event: KeyboardEvent, i: number): void => {
    const by = { ArrowLeft: [-0.01, 0], ArrowRight: [0.01, 0], ArrowUp: [0, 0.01], ArrowDown: [0, -0.01] }[event.key];
    if (by) {
      const { at, value: v } = value[i];
      change(i, { at: handShare(at + by[0]), value: valueAt((v - min) / (max - min) + by[1]) }, false);
    } else if ((event.key === 'Delete' || event.key === 'Backspace') && value.length > 1)
      onChange(
        value.filter((_, k) => k !== i),
        false,
      );
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const add = (event: MouseEvent): void => {
    onChange([...value, pointOf(event)], false);
    setChosen(value.length);
  };

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
              r={current === i ? 5.5 : 4.5}
              fill={current === i ? INK.front : INK.text}
              stroke={INK.deep}
              tabIndex={0}
              role="button"
              aria-label={`${spec.label}, point ${i + 1} of ${value.length}: ${Math.round(100 * point.value)} % at ${Math.round(100 * point.at)} %`}
              cursor="grab"
              onFocus={() => setChosen(i)}
              onKeyDown={(event) => onKey(event, i)}
              onDoubleClick={(event) => event.stopPropagation()}
              {...drag(i)}
            />
          ))}
        </Box>
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 0.75, pt: 0.5, fontSize: 12, color: 'text.secondary' }}>
          <Select
            variant="standard"
            disableUnderline
            value={value[current].shape ?? 'smooth'}
            onChange={(event) =>
              change(current, { ...value[current], shape: event.target.value as ProfileShape }, false)
            }
            inputProps={{ 'aria-label': `${spec.label}, shape after point ${current + 1}` }}
            sx={{ fontSize: 12, bgcolor: INK.raised, borderRadius: '7px', px: 0.75, height: 22 }}
          >
            {PROFILE_SHAPES.map((shape) => (
              <MenuItem key={shape} value={shape} sx={{ fontSize: 12.5 }}>
                {SHAPE_WORDS[shape]}
              </MenuItem>
            ))}
          </Select>
          <Presets
            of={spec.label}
            presets={PROFILE_PRESETS.map(({ name, points }) => {
              const fitted = points.map((point) => ({ ...point, value: Math.min(max, Math.max(min, point.value)) }));
              return {
                name,
                look: <Spark points={fitted} top={Math.max(1, max)} accent={accent} />,
                take: () => onChange(fitted, false),
              };
            })}
            more={[
              {
                name: 'Turn round',
                take: () =>
                  onChange(
                    value
                      .map((point) => ({ at: Math.round(1000 * (1 - point.at)) / 1000, value: point.value }))
                      .reverse(),
                    false,
                  ),
              },
            ]}
          />
        </Box>
      </Box>
    </Row>
  );
}

/** A preset's course, small. */
function Spark({ points, top, accent }: { points: readonly ProfilePoint[]; top: number; accent: string }) {
  const curve = profileCurve(points);
  const course = Array.from(
    { length: 41 },
    (_, i) => `${(i / 40) * 64},${(20 - (curve(i / 40) / top) * 18).toFixed(1)}`,
  );
  return (
    <svg width="64" height="20" aria-hidden>
      <polyline points={course.join(' ')} fill="none" stroke={accent} strokeWidth="1.5" />
    </svg>
  );
}
