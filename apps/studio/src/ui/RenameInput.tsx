'use client';

import InputBase from '@mui/material/InputBase';
import { useState } from 'react';
import { focusFirstIn } from './focusRow';
import { INK } from './theme';

/** A name being changed in place: Enter or leaving takes it, Escape drops it. */
export function RenameInput({
  value,
  label,
  done,
}: {
  value: string;
  label: string;
  done: (name: string | null) => void;
}) {
  const [text, setText] = useState(value);
  return (
    <InputBase
      autoFocus
      value={text}
      onChange={(event) => setText(event.target.value)}
      onFocus={(event) => event.target.select()}
      onBlur={() => done(text.trim() && text !== value ? text.trim() : null)}
      onKeyDown={(event) => {
        event.stopPropagation();
        const here = event.currentTarget.closest('.MuiInputBase-root')?.parentElement ?? null;
        if (event.key === 'Enter') (event.target as HTMLElement).blur();
        else if (event.key === 'Escape') done(null);
        else return;
        // What the name belongs to stands here again.
        focusFirstIn(here);
      }}
      inputProps={{ 'aria-label': label, maxLength: 120 }}
      sx={{ flex: 1, fontSize: 13.5, bgcolor: INK.raised, borderRadius: 1, px: 0.75, height: 24 }}
    />
  );
}
