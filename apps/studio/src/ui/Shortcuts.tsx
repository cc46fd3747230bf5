'use client';

import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import Dialog from '@mui/material/Dialog';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { type KeyboardEvent, type ReactNode, useState } from 'react';
import { type Command, COMMANDS, keysText } from '@/state/actions/commands';
import { giveKeys, keysOf, keysPressed, resetKeys, useKeys } from '@/state/storage/shortcuts';
import { setView } from '@/state/document/view';
import { INK, MONO } from './theme';

const HANDS: [string, string][] = [
  ['Look around', 'Drag in the view'],
  ['Come closer', 'Wheel'],
  ['Move the view', 'Right drag'],
  ['Choose several growths', 'Ctrl or Shift click'],
  ['Change a number', 'Drag its label; Shift for fine steps'],
  ['Change a number in its field', 'Wheel, or ↑ ↓; Shift for fine steps'],
  ['Change several numbers', 'Drag down over their labels, then sideways'],
  ['Link a number by formula', '= and the formula, in its field'],
  ['Take a drag back', 'Escape, before letting go'],
  ['Move a key', 'Drag it, or ← → on a focused one'],
  ['Easing of a key', 'Double-click it, or Enter'],
  ['Choose several keys', 'Shift click'],
  ['Rename', 'Double-click a name'],
];

const close = (): void => setView({ sheet: null });
const COLUMNS = { display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: 5, rowGap: 0.25, fontSize: 13 } as const;

/** The sheet of shortcuts, which can be given other keys. */
export function Shortcuts() {
  const own = useKeys((state) => state.own);
  /** The command whose keys are being pressed. */
  const [asked, setAsked] = useState<string | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const press = (event: KeyboardEvent): void => {
    if (asked === null) return;
    event.preventDefault();
    event.stopPropagation();
    if (event.key === 'Escape') return setAsked(null);
    const keys = keysPressed(event.nativeEvent);
    if (!keys) return;
    const why = giveKeys(asked, keys);
    setRefused(why);
    if (!why) setAsked(null);
  };
  return (
    <Dialog open onClose={close} maxWidth="md" fullWidth onKeyDownCapture={press}>
      <DialogTitle sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
        <Box sx={{ flex: 1 }}>Shortcuts</Box>
        {Object.keys(own).length > 0 && (
          <Button color="inherit" onClick={resetKeys}>
            Set all back
          </Button>
        )}
        <Button color="inherit" onClick={close}>
          Close
        </Button>
      </DialogTitle>
      <DialogContent>
        <Box
          role="status"
          sx={{ color: refused ? 'error.main' : 'text.secondary', fontSize: 13, pb: 1.5, minHeight: 32 }}
        >
          {refused ?? (asked ? 'Press the new keys; Esc leaves them as they are.' : 'Click keys to change them.')}
        </Box>
        <Box sx={COLUMNS}>
          {COMMANDS.filter(({ icon, id }) => !icon || keysOf({ id }, own)).map((command) => (
            <Row key={command.id} label={command.label}>
              <KeysOf
                command={command}
                keys={keysOf(command, own)}
                asked={asked === command.id}
                ask={() => {
                  setRefused(null);
                  setAsked(command.id);
                }}
              />
            </Row>
          ))}
        </Box>
        <Box sx={{ ...COLUMNS, pt: 2 }}>
          {HANDS.map(([label, keys]) => (
            <Row key={label} label={label}>
              <Box
                component="span"
                sx={{ fontFamily: MONO, fontSize: 12, color: 'text.secondary', textAlign: 'right' }}
              >
                {keys}
              </Box>
            </Row>
          ))}
        </Box>
      </DialogContent>
    </Dialog>
  );
}

const Row = ({ label, children }: { label: string; children: ReactNode }) => (
  <Box
    sx={{
      display: 'flex',
      justifyContent: 'space-between',
      alignItems: 'center',
      gap: 3,
      py: 0.4,
      borderBottom: `1px solid ${INK.line}66`,
    }}
  >
    {label}
    {children}
  </Box>
);

interface KeysProps {
  command: Command;
  keys: string;
  asked: boolean;
  ask: () => void;
}

/** A command's keys; a click asks for others. */
function KeysOf({ command, keys, asked, ask }: KeysProps) {
  const fixed = command.sign ?? (command.native ? keysText(command.native) : null);
  const look = { fontFamily: MONO, fontSize: 12, color: 'text.secondary', whiteSpace: 'nowrap' } as const;
  if (fixed !== null)
    return (
      <Box component="span" sx={look}>
        {fixed}
      </Box>
    );
  const said = keys === '' ? 'none' : keysText(keys);
  return (
    <ButtonBase
      aria-label={`Keys of ${command.label}: ${said}`}
      aria-pressed={asked}
      onClick={ask}
      sx={{
        ...look,
        px: 0.75,
        py: 0.25,
        borderRadius: 1,
        color: asked ? INK.front : 'text.secondary',
        border: `1px solid ${asked ? INK.front : 'transparent'}`,
        '&:hover': { borderColor: INK.line },
      }}
    >
      {asked ? 'press keys' : said}
    </ButtonBase>
  );
}
