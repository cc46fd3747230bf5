import Box from '@mui/material/Box';
import type { ReactNode } from 'react';
import { INK } from '@/ui/theme';

/** The box that the fields of a step or a place open in. */
export function FieldsBox({ children }: { children: ReactNode }) {
  return (
    <Box
      sx={{
        mt: 0.75,
        bgcolor: 'background.default',
        border: `1px solid ${INK.line}`,
        borderRadius: 3,
        px: 1.25,
        py: 0.75,
      }}
    >
      {children}
    </Box>
  );
}
