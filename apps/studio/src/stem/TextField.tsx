'use client';

import InputBase from '@mui/material/InputBase';
import type { TextParam } from '@uvrex/core';
import { Row } from '@/ui/fields';
import { INK } from '@/ui/theme';

interface Props {
  spec: TextParam;
  value: string;
  onChange: (value: string, live: boolean) => void;
}

/** A text; long ones may have several lines. */
export function TextField({ spec, value, onChange }: Props) {
  return (
    <Row label={spec.label} help={spec.help}>
      <InputBase
        value={value}
        multiline={spec.most > 200}
        onChange={(event) => onChange(event.target.value.slice(0, spec.most), true)}
        onBlur={() => onChange(value, false)}
        inputProps={{ 'aria-label': spec.label }}
        sx={{ bgcolor: INK.raised, borderRadius: '7px', px: 1, py: 0.25, fontSize: 13, mr: 3.5, minHeight: 25 }}
      />
    </Row>
  );
}
