'use client';

import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { Anchor } from '@uvrex/core';
import { PlaceButton } from './PlaceButton';

interface Props {
  growth: string;
  step: string;
  name: string;
  places: readonly Anchor[];
  onChange: (places: Anchor[]) => void;
}

/** Places on a form, to be clicked in the view. */
export function PlacesField({ growth, step, name, places, onChange }: Props) {
  return (
    <>
      <Box sx={{ fontSize: 12, color: 'text.secondary', pt: 0.5 }}>
        {places.length === 0
          ? 'No place yet: press Place, then click on the form.'
          : `${places.length} ${places.length === 1 ? 'place' : 'places'}: drag them in the view, Delete takes one away.`}
      </Box>
      <Box sx={{ display: 'flex', gap: 0.75, py: 0.5 }}>
        <PlaceButton growth={growth} step={step} name={name} />
        <Button
          variant="outlined"
          color="inherit"
          sx={{ flexShrink: 0, py: 0.1 }}
          disabled={places.length === 0}
          onClick={() => onChange([])}
        >
          Clear
        </Button>
      </Box>
    </>
  );
}
