'use client';

import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { HexColorInput, HexColorPicker, setNonce } from 'react-colorful';
import { useDocument } from '@/state/document/document';
import { styleNonce } from './styleNonce';
import { INK, MONO } from './theme';

// The field of colours brings its styles along.
if (typeof document !== 'undefined') setNonce(styleNonce() ?? '');

/** A field of colours, the scene's palette, and the colour as it is written. */
export function ColorPicker({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (value: string) => void;
}) {
  const palette = useDocument((state) => state.scene.finish.palette);
  return (
    <>
      <HexColorPicker color={value} onChange={onChange} />
      <Box sx={{ display: 'flex', gap: 0.5, flexWrap: 'wrap', width: 200 }}>
        {palette.map((color) => (
          <ButtonBase
            key={color}
            aria-label={color}
            onClick={() => onChange(color)}
            sx={{ width: 20, height: 20, borderRadius: 10, bgcolor: color, border: `1px solid ${INK.line}` }}
          />
        ))}
      </Box>
      <Box
        component={HexColorInput}
        color={value}
        prefixed
        aria-label={`${label} in hexadecimal`}
        onChange={(color: string) => /^#[0-9a-f]{6}$/i.test(color) && onChange(color)}
        sx={{
          width: 200,
          bgcolor: INK.raised,
          color: INK.text,
          border: `1px solid ${INK.line}`,
          borderRadius: '7px',
          px: 1,
          py: 0.5,
          fontFamily: MONO,
          fontSize: 12,
        }}
      />
    </>
  );
}
