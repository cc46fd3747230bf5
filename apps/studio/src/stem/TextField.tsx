'use client';

import Box from '@mui/material/Box';
import InputBase from '@mui/material/InputBase';
import Tooltip from '@mui/material/Tooltip';
import { type TextParam } from '@uvrex/core';
import { Row } from '@/ui/fields';
import { INK, MONO } from '@/ui/theme';

interface Props {
  spec: TextParam;
  value: string;
  onChange: (value: string, live: boolean) => void;
}

/** Code, over the whole width, in lines that scroll sideways: places in it are told by line and column. */
function LinesField({ spec, value, onChange }: Props) {
  return (
    <Box sx={{ py: 0.5 }}>
      <Tooltip title={spec.help} placement="left">
        <Box component="span" sx={{ color: 'text.secondary', fontSize: 13 }}>
          {spec.label}
        </Box>
      </Tooltip>
      <InputBase
        value={value}
        multiline
        fullWidth
        minRows={1}
        maxRows={9}
        spellCheck={false}
        onChange={(event) => onChange(event.target.value.slice(0, spec.most), true)}
        onBlur={() => onChange(value, false)}
        inputProps={{ 'aria-label': spec.label, wrap: 'off', autoCapitalize: 'off' }}
        sx={{
          bgcolor: INK.raised,
          borderRadius: '7px',
          px: 1,
          py: 0.5,
          fontFamily: MONO,
          fontSize: 12,
          '& textarea': { overflowX: 'auto !important', whiteSpace: 'pre' },
        }}
      />
    </Box>
  );
}

/** A text; long ones may have several lines. */
export function TextField({ spec, value, onChange }: Props) {
  if (spec.lines) return <LinesField spec={spec} value={value} onChange={onChange} />;
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
