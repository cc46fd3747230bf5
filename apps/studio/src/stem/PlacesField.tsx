'use client';

import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { Anchor } from '@uvrex/core';
import { setView, useView } from '@/state/document/view';

interface Props {
  growth: string;
  step: string;
  name: string;
  places: readonly Anchor[];
  onChange: (places: Anchor[]) => void;
}

/** Places on a form, to be clicked in the view. */
export function PlacesField({ growth, step, name, places, onChange }: Props) {
  const placing = useView(({ placing: now }) => now?.step === step && now.param === name);
  const button = { flexShrink: 0, py: 0.1 };
  return (
    <>
      <Box sx={{ fontSize: 12, color: 'text.secondary', pt: 0.5 }}>
        {places.length === 0
          ? 'No place yet: press Place, then click on the form.'
          : `${places.length} ${places.length === 1 ? 'place' : 'places'}: drag them in the view, Delete takes one away.`}
      </Box>
      <Box sx={{ display: 'flex', gap: 0.75, py: 0.5 }}>
        <Button
          variant={placing ? 'contained' : 'outlined'}
          color={placing ? 'primary' : 'inherit'}
          aria-pressed={placing}
          sx={button}
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
        <Button
          variant="outlined"
          color="inherit"
          sx={button}
          disabled={places.length === 0}
          onClick={() => onChange([])}
        >
          Clear
        </Button>
      </Box>
    </>
  );
}
