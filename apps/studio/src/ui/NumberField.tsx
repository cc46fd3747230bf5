'use client';

import Box from '@mui/material/Box';
import InputBase from '@mui/material/InputBase';
import Slider from '@mui/material/Slider';
import { type ReactNode, useId, useRef, useState } from 'react';
import { type NumberParam, paramFault } from '@uvrex/core';
import { HelpTooltip } from './HelpTooltip';
import { useLabelDrag } from './labelDrag';
import { useWheelSteps } from './wheelSteps';
import { draggedValue, shownFigure, typedValue, unitOf } from './units';
import { INK, MONO } from './theme';

interface Props {
  spec: NumberParam;
  value: number;
  /** `live` while a drag is under way; the last change of a drag comes with false. */
  onChange: (value: number, live: boolean) => void;
  /** What stands behind the value: the leaf. */
  end?: ReactNode;
  /** In front of the label, for screen readers: the field's group. */
  context?: string;
  accent?: string;
  /** What is shown over the label, the declaration's help where nothing is said. */
  help?: ReactNode;
  /** Behind the label: what makes it differ from path to path. */
  vary?: ReactNode;
  /** The formula that gives the value, where there is one. */
  formula?: string | null;
  /** Takes what was typed behind `=`, null to take a formula off; gives why it is refused, or null. */
  onFormula?: (formula: string | null) => string | null;
  /** Why the value cannot be worked out now. */
  trouble?: string | null;
}

/** A number with its unit: drag the label, use the slider, or type. A value that is refused is explained beside it. */
export function NumberField({
  spec,
  value,
  onChange,
  end,
  context,
  accent = INK.sprout,
  help = spec.help,
  vary,
  formula = null,
  onFormula,
  trouble = null,
}: Props) {
  const id = useId();
  const [text, setText] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const dropped = useRef(false);
  const { sign } = unitOf(spec.unit);
  const [low, high] = spec.slider ?? [spec.min, spec.max];
  const name = context ? `${context} ${spec.label}` : spec.label;

  const within = (raw: number): number => draggedValue(spec, raw);
  const step = (way: number, fine: boolean, live: boolean): void => {
    if (formula !== null) return;
    const by = spec.whole ? 1 : (high - low) / (fine ? 1000 : 100);
    setText(null);
    setFault(null);
    onChange(within(value + way * by), live);
  };
  const input = useWheelSteps(step, () => onChange(value, false));
  const commit = (): void => {
    if (text === null) return;
    if (onFormula && text.trim().startsWith('=')) {
      const wanted = text.trim().slice(1).trim();
      const refused = wanted === formula ? null : onFormula(wanted);
      setFault(refused && `is not linked: ${refused}`);
      if (!refused) setText(null);
      return;
    }
    const typed = typedValue(text, spec.unit);
    const reason = paramFault(spec, typed);
    setFault(reason);
    if (reason) return;
    setText(null);
    if (formula !== null || typed !== value) onChange(typed, false);
  };
  const { label, taken, held } = useLabelDrag(formula === null ? { spec, value, onChange } : null, () => {
    setText(null);
    setFault(null);
  });

  return (
    <Box sx={{ py: '1px' }}>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: '88px 1fr 86px 20px',
          columnGap: 1,
          alignItems: 'center',
          minHeight: 27,
        }}
      >
        <Box sx={{ display: 'flex', alignItems: 'center', minWidth: 0 }}>
          <HelpTooltip help={help} hidden={held}>
            <Box
              component="label"
              htmlFor={id}
              {...label}
              sx={{
                color: taken ? accent : 'text.secondary',
                cursor: 'ew-resize',
                touchAction: 'none',
                userSelect: 'none',
                overflow: 'hidden',
                lineHeight: 1.15,
                fontSize: 13,
              }}
            >
              {spec.label}
            </Box>
          </HelpTooltip>
          {vary && <Box sx={{ ml: 'auto' }}>{vary}</Box>}
        </Box>
        {formula === null && (
          <Slider
            aria-label={`${name}, slider`}
            min={low}
            max={high}
            step={spec.whole ? 1 : (high - low) / 1000}
            value={Math.min(high, Math.max(low, value))}
            onChange={(_, next) => {
              setText(null);
              setFault(null);
              onChange(within(next as number), true);
            }}
            onChangeCommitted={(_, next) => onChange(within(next as number), false)}
            sx={{
              color: accent,
              py: 0.5,
              height: 3,
              '& .MuiSlider-thumb': {
                width: 11,
                height: 11,
                bgcolor: INK.text,
                boxShadow: 'none',
                // No wider than the gap beside it: at the least value it would lie over the button there.
                '&::after': { width: 14, height: 24 },
              },
              '& .MuiSlider-rail': { bgcolor: INK.line, opacity: 1 },
              '& .MuiSlider-track': { border: 0 },
            }}
          />
        )}
        <InputBase
          id={id}
          inputRef={input}
          value={text ?? (formula === null ? shownFigure(value, spec.unit) : `= ${formula}`)}
          onFocus={(event) => event.target.select()}
          onChange={(event) => {
            setText(event.target.value);
            setFault(null);
          }}
          onBlur={() => {
            if (!dropped.current) commit();
            dropped.current = false;
          }}
          onKeyDown={(event) => {
            if (event.key === 'Enter') commit();
            if (event.key === 'Escape') {
              // Leaving the field would else take what was typed after all.
              dropped.current = true;
              setText(null);
              setFault(null);
              (event.target as HTMLElement).blur();
            }
            if (formula === null && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
              event.preventDefault();
              step(event.key === 'ArrowUp' ? 1 : -1, event.shiftKey, false);
            }
          }}
          error={fault !== null}
          endAdornment={
            sign &&
            formula === null && (
              <Box
                component="span"
                sx={{ color: INK.mute, pl: 0.5, fontSize: 11, fontFamily: MONO, whiteSpace: 'nowrap' }}
              >
                {sign}
              </Box>
            )
          }
          inputProps={{
            'aria-label': context ? name : undefined,
            'aria-invalid': fault !== null,
            'aria-describedby': fault ? `${id}-fault` : undefined,
            inputMode: onFormula ? 'text' : 'decimal',
          }}
          sx={{
            gridColumn: formula === null ? undefined : 'span 2',
            bgcolor: INK.raised,
            borderRadius: '7px',
            px: 0.9,
            height: 24,
            fontFamily: MONO,
            fontSize: 12,
            border: `1px solid ${fault ? INK.fault : 'transparent'}`,
            '&.Mui-focused': { borderColor: fault ? INK.fault : accent },
            '& input': {
              p: 0,
              textAlign: formula === null ? 'right' : 'left',
              color: formula === null ? undefined : INK.sprout,
            },
          }}
        />
        {end ?? <span />}
      </Box>
      {formula !== null && !fault && !trouble && (
        <Box sx={{ color: 'text.secondary', fontSize: 11.5, fontFamily: MONO, textAlign: 'right', pr: 3.5 }}>
          is now {shownFigure(value, spec.unit)} {sign}
        </Box>
      )}
      {(fault ?? trouble) && (
        <Box
          id={`${id}-fault`}
          role="alert"
          sx={{ color: 'error.main', fontSize: 12, textAlign: 'right', pr: 3.5, pb: 0.5 }}
        >
          {fault ? `${spec.label} ${fault}.` : trouble}
        </Box>
      )}
    </Box>
  );
}
