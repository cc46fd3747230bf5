'use client';

import Button from '@mui/material/Button';
import type { Notice } from '@uvrex/core';
import { edit, stepIn } from '@/state/document/document';

interface Props {
  growth: string;
  step: string;
  fix: NonNullable<Notice['fix']>;
}

/** Sets the numbers that mend what a notice tells of, their keys and formulas replaced; one entry of undo. */
export function FixButton({ growth, step, fix }: Props) {
  return (
    <Button
      sx={{ fontSize: 12, py: 0, ml: 0.5 }}
      onClick={() => edit(fix.label, (draft) => void Object.assign(stepIn(draft, growth, step)?.params ?? {}, fix.set))}
    >
      {fix.label}
    </Button>
  );
}
