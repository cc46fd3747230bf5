'use client';

import Button from '@mui/material/Button';
import { setView, useView } from '@/state/document/view';

/** Toggles placing points in the view, for a parameter of a step. */
export function PlaceButton({ growth, step, name }: { growth: string; step: string; name: string }) {
  const placing = useView(({ placing: now }) => now?.step === step && now.param === name);
  return (
    <Button
      variant={placing ? 'contained' : 'outlined'}
      color={placing ? 'primary' : 'inherit'}
      aria-pressed={placing}
      sx={{ flexShrink: 0, py: 0.1 }}
      onClick={() =>
        setView(
          placing
            ? { tool: 'look', placing: null }
            : { tool: 'place', placing: { growth, step, param: name }, playing: false },
        )
      }
    >
      {placing ? 'Done' : 'Place'}
    </Button>
  );
}
