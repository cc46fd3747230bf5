'use client';

import Box from '@mui/material/Box';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import Typography from '@mui/material/Typography';
import { useRef } from 'react';
import type { FileParam } from '@uvrex/core';
import { FILE_KINDS, takeFile } from '@/state/storage/files';
import { useWatched } from '@/state/storage/watched';
import { useDocument } from '@/state/document/document';
import { Row } from '@/ui/fields';
import { INK } from '@/ui/theme';
import { sayProblem } from '@/state/toasts';

const LOAD = 'load';

/** One of the files that come with Uvrex, one that the scene keeps, or another one from the machine. */
export function FileField({
  spec,
  value,
  onChange,
}: {
  spec: FileParam;
  value: string | null;
  onChange: (value: string | null) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  const files = useDocument((state) => state.scene.files);
  const own = files.filter(({ kind }) => kind === spec.kind);
  const { accept, word } = FILE_KINDS[spec.kind];
  const watched = useWatched(({ ids }) => value !== null && ids.has(value));
  const load = async (): Promise<void> => {
    // A file chosen by the browser's own picker can be watched.
    const { filePicker, pickFile } = await import('@/state/storage/watchFiles');
    const pick = filePicker();
    if (!pick) return input.current?.click();
    try {
      const id = await pickFile(spec.kind, pick);
      if (id !== null) onChange(id);
    } catch (error) {
      sayProblem(error);
    }
  };
  const take = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    try {
      onChange(await takeFile(spec.kind, file));
    } catch (error) {
      sayProblem(error);
    }
  };
  return (
    <Row label={spec.label} help={spec.help}>
      <Box sx={{ mr: 3.5 }}>
        <Select
          variant="standard"
          disableUnderline
          displayEmpty
          fullWidth
          value={value ?? ''}
          onChange={(event) => (event.target.value === LOAD ? void load() : onChange(event.target.value || null))}
          inputProps={{ 'aria-label': spec.label }}
          sx={{ bgcolor: INK.raised, borderRadius: '7px', px: 1, fontSize: 13, height: 25 }}
        >
          {value === null && (
            <MenuItem value="" sx={{ fontSize: 13 }}>
              None yet
            </MenuItem>
          )}
          {spec.shipped.map((entry) => (
            <MenuItem key={entry.value} value={entry.value} sx={{ fontSize: 13 }}>
              {entry.label}
            </MenuItem>
          ))}
          {own.map(({ id, name }) => (
            <MenuItem key={id} value={id} sx={{ fontSize: 13 }}>
              {name}
            </MenuItem>
          ))}
          <MenuItem value={LOAD} sx={{ fontSize: 13, color: 'primary.main' }}>
            Load {word} file…
          </MenuItem>
        </Select>
        {watched && (
          <Typography sx={{ fontSize: 11.5, color: 'text.secondary', mt: 0.25 }}>Reloads when it changes</Typography>
        )}
        <input
          ref={input}
          type="file"
          hidden
          accept={accept}
          aria-label={`${spec.label} from this machine`}
          onChange={(event) => {
            void take(event.target.files?.[0]);
            event.target.value = '';
          }}
        />
      </Box>
    </Row>
  );
}
