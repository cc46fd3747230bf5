'use client';

import Box from '@mui/material/Box';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { useState } from 'react';
import { stepOf } from '@uvrex/core';
import { titleOf } from '@/state/actions/stepActions';
import { keepCutting, nameOfKept } from '@/state/actions/cuttings';
import { useDocument } from '@/state/document/document';
import { type Asked, useKeepAsked } from '@/state/actions/cuttingRequest';
import { NameSheet } from '@/ui/NameSheet';
import { sayProblem } from '@/state/toasts';

const close = (): void => useKeepAsked.setState({ asked: null });

/** Asks what of growths is kept as a cutting: whole growths, or some steps of one; and under which name. */
export function KeepCutting({ asked }: { asked: Asked }) {
  const all = useDocument((state) => state.scene.growths);
  const growths = all.filter(({ id }) => asked.growths.includes(id));
  const one = growths.length === 1 ? growths[0] : null;
  const [steps, setSteps] = useState<readonly string[]>(() => asked.steps ?? one?.steps.map(({ id }) => id) ?? []);
  const part = one !== null && steps.length < one.steps.length;
  const kept: Asked = part ? { growths: asked.growths, steps } : { growths: asked.growths };
  const [typed, setTyped] = useState<string | null>(null);
  const name = typed ?? nameOfKept(kept);
  const toggle = (id: string): void =>
    setSteps((before) => (before.includes(id) ? before.filter((other) => other !== id) : [...before, id]));
  const nothing = part && steps.length === 0;
  return (
    <NameSheet
      title="Keep as a cutting"
      label="Name of the cutting"
      name={name}
      onName={setTyped}
      action="Keep"
      blocked={nothing}
      cancel={close}
      done={(chosen) => {
        close();
        keepCutting({ ...kept, name: chosen }).catch(sayProblem);
      }}
    >
      {one ? (
        <Box role="group" aria-label="Steps to keep" sx={{ display: 'grid' }}>
          {one.steps.map((step) => (
            <FormControlLabel
              key={step.id}
              control={<Checkbox size="small" checked={steps.includes(step.id)} onChange={() => toggle(step.id)} />}
              label={titleOf(step)}
            />
          ))}
        </Box>
      ) : (
        <Box sx={{ fontSize: 14 }}>{growths.map((growth) => growth.name).join(', ')}</Box>
      )}
      <Box aria-live="polite" sx={{ color: 'text.secondary', fontSize: 13, lineHeight: 1.5 }}>
        {nothing
          ? 'Choose at least one step.'
          : part
            ? partSays(one.steps.filter(({ id }) => steps.includes(id)))
            : WHOLE}
      </Box>
    </NameSheet>
  );
}

const WHOLE = 'It is planted whole, as growths of its own, with everything that they copy.';

const partSays = (steps: readonly { kind: string }[]): string =>
  steps.some(({ kind }) => stepOf(kind)?.family === 'start')
    ? 'These steps are planted on another growth; a start among them adds paths of its own.'
    : 'These steps are planted on another growth, with everything that they copy.';
