'use client';

import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { type ClipboardEvent, useState } from 'react';
import type { Anchor } from '@uvrex/core';
import { INK, MONO } from '@/ui/theme';
import { anchorOf, anchorsOf, shown } from './anchorRows';

const COLUMNS = ['X', 'Y', 'Z', 'Size', 'Lean'] as const;
const SIGNS = ['m', 'm', 'm', '%', '°'] as const;

interface Props {
  anchors: readonly Anchor[];
  onChange: (anchors: Anchor[]) => void;
}

/** The anchors of a drawn path as numbers: typed, added, removed, copied from and pasted into as a table. */
export function AnchorTable({ anchors, onChange }: Props) {
  const [edited, setEdited] = useState<{ row: number; column: number; text: string } | null>(null);
  const commit = (): void => {
    if (!edited) return;
    const value = Number(edited.text.replace(',', '.'));
    const row = shown(anchors[edited.row]);
    setEdited(null);
    if (!Number.isFinite(value) || value === row[edited.column] || (edited.column === 3 && value < 0)) return;
    row[edited.column] = value;
    onChange(anchors.map((anchor, i) => (i === edited.row ? anchorOf(row) : anchor)));
  };
  const onPaste = (event: ClipboardEvent): void => {
    const pasted = anchorsOf(event.clipboardData.getData('text/plain'));
    // A single number goes into its field, as anywhere.
    if (!pasted || pasted.length < 2) return;
    event.preventDefault();
    event.stopPropagation();
    setEdited(null);
    onChange(pasted);
  };
  const text = (): string => anchors.map((anchor) => shown(anchor).map(plain).join('\t')).join('\n');
  return (
    <Box onPaste={onPaste} sx={{ fontFamily: MONO, fontSize: 11 }}>
      <Box component="table" aria-label="Anchors" sx={{ borderSpacing: '2px', width: '100%', tableLayout: 'fixed' }}>
        <thead>
          <tr>
            {COLUMNS.map((column, c) => (
              <Box component="th" key={column} sx={{ color: 'text.secondary', fontWeight: 400, textAlign: 'right' }}>
                {column} {SIGNS[c]}
              </Box>
            ))}
            <Box component="th" aria-label="Remove" sx={{ width: 18 }} />
          </tr>
        </thead>
        <tbody>
          {anchors.map((anchor, row) => (
            <tr key={row}>
              {shown(anchor).map((value, column) => (
                <td key={column}>
                  <Box
                    component="input"
                    aria-label={`Anchor ${row + 1}, ${COLUMNS[column]}`}
                    value={edited?.row === row && edited.column === column ? edited.text : plain(value)}
                    onFocus={(event: React.FocusEvent<HTMLInputElement>) => event.target.select()}
                    onChange={(event: React.ChangeEvent<HTMLInputElement>) =>
                      setEdited({ row, column, text: event.target.value })
                    }
                    onBlur={commit}
                    onKeyDown={(event: React.KeyboardEvent) => {
                      if (event.key === 'Enter') commit();
                      if (event.key === 'Escape') setEdited(null);
                    }}
                    sx={{
                      width: '100%',
                      boxSizing: 'border-box',
                      textAlign: 'right',
                      font: 'inherit',
                      color: INK.text,
                      bgcolor: INK.raised,
                      border: '1px solid transparent',
                      borderRadius: 1,
                      px: 0.5,
                      py: 0.25,
                      '&:focus': { borderColor: INK.sprout, outline: 'none' },
                    }}
                  />
                </td>
              ))}
              <td>
                <ButtonBase
                  aria-label={`Remove anchor ${row + 1}`}
                  disabled={anchors.length <= 2}
                  onClick={() => onChange(anchors.filter((_, i) => i !== row))}
                  sx={{ width: 18, height: 18, borderRadius: 1, color: 'text.secondary', fontSize: 13 }}
                >
                  ×
                </ButtonBase>
              </td>
            </tr>
          ))}
        </tbody>
      </Box>
      <Box sx={{ display: 'flex', gap: 1.5, fontSize: 12, pt: 0.5 }}>
        <ButtonBase
          onClick={() => onChange([...anchors, next(anchors)])}
          sx={{ color: 'primary.main', fontSize: 12, fontFamily: 'inherit' }}
        >
          Add an anchor
        </ButtonBase>
        <ButtonBase
          onClick={() => void navigator.clipboard.writeText(text())}
          sx={{ color: 'primary.main', fontSize: 12, fontFamily: 'inherit' }}
        >
          Copy table
        </ButtonBase>
        <Box component="span" sx={{ color: 'text.secondary', ml: 'auto' }}>
          paste rows here
        </Box>
      </Box>
    </Box>
  );
}

const plain = (value: number): string => String(Math.round(value * 1e4) / 1e4);

/** One more anchor, as far past the last as that is past the one before. */
function next(anchors: readonly Anchor[]): Anchor {
  const [a, b] = anchors.slice(-2);
  if (!b) return [0, 0, 0];
  return [2 * b[0] - a[0], 2 * b[1] - a[1], 2 * b[2] - a[2]];
}
