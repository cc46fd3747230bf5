'use client';

import Box from '@mui/material/Box';
import Dialog from '@mui/material/Dialog';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { COMMANDS, keysText } from '@/state/commands';
import { setView } from '@/state/view';
import { INK, MONO } from './theme';

const HANDS: [string, string][] = [
  ['Look around', 'Drag in the view'],
  ['Come closer', 'Wheel'],
  ['Move the view', 'Right drag'],
  ['Change a number', 'Drag its label; Shift for fine steps'],
  ['Link a number by formula', '= and the formula, in its field'],
  ['Move a key', 'Drag it, or ← → on a focused one'],
  ['Easing of a key', 'Double-click it, or Enter'],
  ['Choose several keys', 'Shift click'],
  ['Rename', 'Double-click a name'],
];

/** The sheet of shortcuts. */
export function Shortcuts() {
  return (
    <Dialog open onClose={() => setView({ sheet: null })} maxWidth="md">
      <DialogTitle>Shortcuts</DialogTitle>
      <DialogContent sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: 5, rowGap: 0.25, fontSize: 13 }}>
        {[
          ...COMMANDS.flatMap(({ label, keys, native, sign }): [string, string][] => {
            const shown = keys ?? native;
            return sign ? [[label, sign]] : shown ? [[label, keysText(shown)]] : [];
          }),
          ...HANDS,
        ].map(([label, keys]) => (
          <Box
            key={label}
            sx={{
              display: 'flex',
              justifyContent: 'space-between',
              gap: 3,
              py: 0.4,
              borderBottom: `1px solid ${INK.line}66`,
            }}
          >
            {label}
            <Box
              component="span"
              sx={{ fontFamily: MONO, fontSize: 12, color: 'text.secondary', whiteSpace: 'nowrap' }}
            >
              {keys}
            </Box>
          </Box>
        ))}
      </DialogContent>
    </Dialog>
  );
}
