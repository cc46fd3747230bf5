'use client';

import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect } from 'react';
import type { Brush, NumberParam, Stroke } from '@uvrex/core';
import { maskedAs } from '@uvrex/core/page';
import { stepIn, useDocument } from '@/state/document/document';
import { startPainting, stopPainting } from '@/state/actions/painting';
import { setView, useView } from '@/state/document/view';
import { ChoiceField } from '@/ui/fields';
import { NumberField } from '@/ui/NumberField';

interface Props {
  growth: string;
  step: string;
  name: string;
  strokes: readonly Stroke[];
  onChange: (strokes: Stroke[]) => void;
}

const DOES = [
  { value: 'paint', label: 'Paint' },
  { value: 'erase', label: 'Erase' },
  { value: 'soften', label: 'Soften' },
];

const BRUSH: Record<'radius' | 'strength' | 'soft', NumberParam> = {
  radius: {
    type: 'number',
    unit: 'm',
    label: 'Radius',
    help: 'How far the brush reaches. Shift and a drag in the view size it too.',
    default: 0.15,
    min: 0.0001,
    max: 1000,
    slider: [0.01, 1],
  },
  strength: {
    type: 'number',
    unit: 'share',
    label: 'Strength',
    help: 'How far one stroke goes; the pressure of a pen takes from it.',
    default: 1,
    min: 0,
    max: 1,
  },
  soft: {
    type: 'number',
    unit: 'share',
    label: 'Softness',
    help: 'Share of the radius over which the brush fades.',
    default: 0.5,
    min: 0,
    max: 1,
  },
};

/** A mask: the brush, and what is done to the whole. */
export function StrokesField({ growth, step, name, strokes, onChange }: Props) {
  const painting = useView(({ tool, placing }) => tool === 'paint' && placing?.step === step);
  const brush = useView((state) => state.brush);
  const called = useDocument(({ scene }) => String(stepIn(scene, growth, step)?.params.name ?? ''));
  const mask = maskedAs({ name: called });
  // A field that is closed is painted no more.
  useEffect(
    () => () => {
      if (useView.getState().placing?.step === step) stopPainting();
    },
    [step],
  );
  const button = { flexShrink: 0, py: 0.1 };
  return (
    <>
      <Box sx={{ fontSize: 12, color: 'text.secondary', pt: 0.5 }}>
        {strokes.length === 0
          ? 'Nothing is painted yet: press Paint on the form, then drag over it.'
          : `${strokes.length} ${strokes.length === 1 ? 'stroke' : 'strokes'}.`}
      </Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75, py: 0.5 }}>
        <Button
          variant={painting ? 'contained' : 'outlined'}
          color={painting ? 'primary' : 'inherit'}
          aria-pressed={painting}
          sx={button}
          onClick={() => (painting ? stopPainting() : startPainting(growth, step, name, mask))}
        >
          {painting ? 'Done' : 'Paint on the form'}
        </Button>
        <Button variant="outlined" color="inherit" sx={button} onClick={() => onChange([{ does: 'fill' }])}>
          Fill
        </Button>
        <Button
          variant="outlined"
          color="inherit"
          sx={button}
          onClick={() => onChange([...strokes, { does: 'invert' }])}
        >
          Invert
        </Button>
        <Button
          variant="outlined"
          color="inherit"
          sx={button}
          disabled={strokes.length === 0}
          onClick={() => onChange([])}
        >
          Clear
        </Button>
      </Box>
      {painting && (
        <>
          <ChoiceField
            label="Brush"
            help="Paint brings the mask up, erase takes it away, soften evens it out. Alt erases while it is held."
            options={DOES}
            value={brush.does}
            onChange={(does) => setView({ brush: { ...brush, does: does as Brush } })}
          />
          {(['radius', 'strength', 'soft'] as const).map((one) => (
            <NumberField
              key={one}
              spec={BRUSH[one]}
              value={brush[one]}
              onChange={(value) => setView(({ brush: now }) => ({ brush: { ...now, [one]: value } }))}
            />
          ))}
        </>
      )}
    </>
  );
}
