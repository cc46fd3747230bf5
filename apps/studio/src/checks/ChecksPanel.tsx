'use client';

import Close from '@mui/icons-material/Close';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import { setView } from '@/state/document/view';
import { INK } from '@/ui/theme';
import { CHECKS } from './register';

/** Measured properties of the scene, beside the picture. */
export function ChecksPanel() {
  return (
    <Box
      component="section"
      aria-label="Checks"
      sx={{
        position: 'absolute',
        top: 50,
        right: 14,
        bottom: 50,
        width: 340,
        overflowY: 'auto',
        bgcolor: '#142026f2',
        border: `1px solid ${INK.line}`,
        borderRadius: 3,
        px: 2,
        py: 1.25,
        fontSize: 13,
        '& h3': { m: 0, pt: 1, pb: 0.5, fontSize: 13.5 },
      }}
    >
      <Box sx={{ display: 'flex', justifyContent: 'space-between', alignItems: 'center' }}>
        <Box component="h2" sx={{ m: 0, fontSize: 15 }}>
          Checks
        </Box>
        <IconButton aria-label="Close the checks" onClick={() => setView({ checks: false })}>
          <Close fontSize="small" />
        </IconButton>
      </Box>
      {CHECKS.map((Check, i) => (
        <Check key={i} />
      ))}
    </Box>
  );
}
