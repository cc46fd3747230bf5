'use client';

import Add from '@mui/icons-material/Add';
import Close from '@mui/icons-material/Close';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import InputBase from '@mui/material/InputBase';
import Tooltip from '@mui/material/Tooltip';
import { type KeyboardEvent, useRef } from 'react';
import type { Notice, TextParam } from '@uvrex/core';
import { useResults } from '@/state/director/results';
import { INK, MONO } from '@/ui/theme';
import { PlaceButton } from './PlaceButton';

interface Props {
  growth: string;
  step: string;
  name: string;
  spec: TextParam;
  value: string;
  onChange: (value: string, live: boolean) => void;
}

/** What is wrong in a text of a step, where it was evaluated last. */
function useFault(growth: string, step: string, name: string): Notice | null {
  const told = useResults(({ record }) => {
    const notices = record?.growths.find(({ id }) => id === growth)?.notices ?? [];
    const found = notices.find(({ place }) => place.step === step && place.text?.field === name);
    return found ? JSON.stringify(found) : null;
  });
  return told === null ? null : (JSON.parse(told) as Notice);
}

/** Code, a row a line: what is wrong in one is marked there, at its column. */
export function RowsField({ growth, step, name, spec, value, onChange }: Props) {
  const fault = useFault(growth, step, name)?.place.text;
  const box = useRef<HTMLDivElement>(null);
  const rows = value.split('\n');
  const many = spec.rows !== spec.label;
  const fits = (text: string): boolean => text.length <= spec.most;

  const focus = (row: number, column: number): void => {
    // Once the rows have been drawn anew.
    requestAnimationFrame(() => {
      const field = box.current?.querySelectorAll('input')[row];
      field?.focus();
      field?.setSelectionRange(column, column);
    });
  };
  const set = (next: readonly string[], live: boolean): void => {
    const text = next.join('\n');
    if (fits(text)) onChange(text, live);
  };
  const without = (row: number): string[] => rows.filter((_, k) => k !== row);

  /** Enter breaks a row, Backspace at its beginning joins it to the one before, arrows go from row to row; with Alt they take it along. */
  const pressed = (event: KeyboardEvent<HTMLInputElement | HTMLTextAreaElement>, row: number): void => {
    const { selectionStart, selectionEnd } = event.currentTarget;
    const [from, to] = [selectionStart ?? 0, selectionEnd ?? 0];
    const done = (next: readonly string[], focused: number, column: number): void => {
      event.preventDefault();
      if (next !== rows) set(next, false);
      focus(focused, column);
    };
    if (event.nativeEvent.isComposing) return;
    if (event.key === 'Enter' && many) {
      done([...rows.slice(0, row), rows[row].slice(0, from), rows[row].slice(to), ...rows.slice(row + 1)], row + 1, 0);
    } else if (event.key === 'Backspace' && from === 0 && to === 0 && row > 0) {
      const joined = rows[row - 1] + rows[row];
      done([...rows.slice(0, row - 1), joined, ...rows.slice(row + 1)], row - 1, rows[row - 1].length);
    } else if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
      const next = row + (event.key === 'ArrowUp' ? -1 : 1);
      if (next < 0 || next >= rows.length) return;
      const swapped = [...rows];
      [swapped[row], swapped[next]] = [rows[next], rows[row]];
      done(event.altKey ? swapped : rows, next, from);
    }
  };

  return (
    <Box ref={box} role="group" aria-label={spec.label} sx={{ py: 0.5 }}>
      <Tooltip title={spec.help} placement="left">
        <Box component="span" sx={{ color: 'text.secondary', fontSize: 13 }}>
          {spec.label}
        </Box>
      </Tooltip>
      {rows.map((row, k) => {
        const wrong = fault?.line === k + 1 ? fault.column : null;
        return (
          <Box key={k} sx={{ mt: 0.4 }}>
            <Box
              sx={{
                display: 'flex',
                alignItems: 'center',
                bgcolor: INK.raised,
                borderRadius: '7px',
                border: '1px solid',
                borderColor: wrong === null ? 'transparent' : 'error.main',
                pl: 1,
              }}
            >
              <InputBase
                value={row}
                fullWidth
                spellCheck={false}
                error={wrong !== null}
                onChange={(event) => set([...rows.slice(0, k), event.target.value, ...rows.slice(k + 1)], true)}
                onBlur={() => onChange(value, false)}
                onKeyDown={(event) => pressed(event, k)}
                onPaste={(event) => {
                  const text = event.clipboardData.getData('text');
                  const field = event.target;
                  if (!many || !text.includes('\n') || !(field instanceof HTMLInputElement)) return;
                  event.preventDefault();
                  const [from, to] = [field.selectionStart ?? 0, field.selectionEnd ?? 0];
                  const pasted = (row.slice(0, from) + text.replaceAll('\r', '') + row.slice(to)).split('\n');
                  set([...rows.slice(0, k), ...pasted, ...rows.slice(k + 1)], false);
                }}
                inputProps={{ 'aria-label': many ? `${spec.rows} ${k + 1}` : spec.label, autoCapitalize: 'off' }}
                sx={{ fontFamily: MONO, fontSize: 12, '& input': { py: 0.35 } }}
              />
              {many && rows.length > 1 && (
                <IconButton
                  size="small"
                  aria-label={`Delete ${spec.rows?.toLowerCase()} ${k + 1}`}
                  onClick={() => {
                    set(without(k), false);
                    focus(Math.max(0, k - 1), 0);
                  }}
                  sx={{ p: 0.25, mr: 0.25, color: 'text.secondary' }}
                >
                  <Close sx={{ fontSize: 14 }} />
                </IconButton>
              )}
            </Box>
            {wrong !== null && (
              <Box
                aria-hidden
                sx={{
                  fontFamily: MONO,
                  fontSize: 12,
                  lineHeight: 0.9,
                  color: 'error.main',
                  pl: '9px',
                  whiteSpace: 'pre',
                  overflow: 'hidden',
                }}
              >
                {' '.repeat(wrong - 1)}▲
              </Box>
            )}
          </Box>
        );
      })}
      {spec.placed && <PlaceButton growth={growth} step={step} name={name} />}
      {many && (
        <Button
          size="small"
          color="inherit"
          startIcon={<Add />}
          onClick={() => {
            set([...rows, ''], false);
            focus(rows.length, 0);
          }}
          sx={{ mt: 0.25, py: 0, color: 'text.secondary', fontSize: 12 }}
        >
          {spec.rows}
        </Button>
      )}
    </Box>
  );
}
