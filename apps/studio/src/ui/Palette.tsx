'use client';

import Box from '@mui/material/Box';
import Dialog from '@mui/material/Dialog';
import InputBase from '@mui/material/InputBase';
import List from '@mui/material/List';
import ListItemButton from '@mui/material/ListItemButton';
import { useEffect, useRef, useState } from 'react';
import { type FormKind, STEPS, stepOf, type Step } from '@uvrex/core';
import { addStep, selectedGrowth } from '@/state/actions';
import { COMMANDS, keysText } from '@/state/commands';
import { setView, useView } from '@/state/view';
import { StepIcon } from './StepIcon';
import { focusRow } from './focusRow';
import { INK, MONO } from './theme';

interface Entry {
  id: string;
  label: string;
  help?: string;
  icon?: string;
  keys?: string;
  run: () => void;
  off?: string;
}

/** Kinds of geometry that a growth's steps give. */
const given = (steps: readonly Step[]): Set<FormKind> =>
  new Set(steps.flatMap(({ kind, on }) => (on ? (stepOf(kind)?.gives ?? []) : [])));

function stepEntries(): Entry[] {
  const growth = selectedGrowth();
  if (!growth) return [];
  const kinds = given(growth.steps);
  return STEPS.map((step) => {
    const missing = step.takes.filter((kind) => !kinds.has(kind));
    const none = step.takesOne !== undefined && !step.takesOne.some((kind) => kinds.has(kind));
    return {
      id: `step:${step.kind}`,
      label: step.label,
      help: step.help,
      icon: step.icon,
      run: () => addStep(growth.id, step.kind),
      off:
        missing.length > 0
          ? `needs ${missing.join(' and ')} first`
          : none
            ? `needs ${step.takesOne!.slice(0, -1).join(', ')} or ${step.takesOne!.at(-1)} first`
            : undefined,
    };
  });
}

const commandEntries = (): Entry[] =>
  COMMANDS.filter(({ id, can }) => id !== 'palette' && (can?.() ?? true)).map((command) => ({
    ...command,
    keys: command.keys ?? command.native,
  }));

/** Finds and runs everything: steps that fit the selected growth, new growths, all commands. */
export function Palette() {
  const kind = useView((state) => state.palette);
  return kind ? <OpenPalette kind={kind} /> : null;
}

function OpenPalette({ kind }: { kind: 'commands' | 'steps' }) {
  const [query, setQuery] = useState('');
  const [chosen, setChosen] = useState(0);
  const list = useRef<HTMLUListElement>(null);
  const steps = stepEntries();
  const commands = commandEntries();
  const starts = commands.filter(({ id }) => id.startsWith('new:'));
  const sorted =
    kind === 'steps'
      ? steps
      : [
          ...starts,
          ...commands.filter(({ id }) => !id.startsWith('new:')),
          ...steps.map((entry) => ({ ...entry, label: `Add step: ${entry.label.toLowerCase()}` })),
        ];
  const words = query.toLowerCase().split(/\s+/).filter(Boolean);
  const found = sorted
    .filter(({ label, help }) => words.every((word) => `${label} ${help ?? ''}`.toLowerCase().includes(word)))
    .sort((a, b) => Number(a.off !== undefined) - Number(b.off !== undefined));
  const [before] = useState(() => document.activeElement);
  const close = (): void => {
    setView({ palette: null });
    focusRow(undefined, before);
  };
  const run = (entry: Entry | undefined): void => {
    if (!entry || entry.off) return;
    const { openSteps } = useView.getState();
    setView({ palette: null });
    entry.run();
    // To the step that has been added; else back to where it was, or to what is selected now.
    const now = useView.getState();
    const added = now.openSteps.find((id) => !openSteps.includes(id));
    const back = before?.isConnected && before !== document.body ? undefined : now.growth;
    focusRow(added ?? back ?? undefined, before);
  };
  useEffect(() => {
    list.current?.children[chosen]?.scrollIntoView({ block: 'nearest' });
  }, [chosen]);

  return (
    <Dialog
      open
      onClose={close}
      maxWidth="sm"
      fullWidth
      slotProps={{
        paper: { 'aria-label': kind === 'steps' ? 'Add a step' : 'Commands', 'aria-labelledby': undefined },
      }}
      sx={{ '& .MuiDialog-container': { alignItems: 'flex-start', pt: '9vh' } }}
      disableRestoreFocus
    >
      <InputBase
        autoFocus
        placeholder={kind === 'steps' ? 'Which step?' : 'What would you like to do?'}
        value={query}
        onChange={(event) => {
          setQuery(event.target.value);
          setChosen(0);
        }}
        onKeyDown={(event) => {
          if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
            event.preventDefault();
            setChosen((at) => Math.min(found.length - 1, Math.max(0, at + (event.key === 'ArrowDown' ? 1 : -1))));
          }
          if (event.key === 'Enter') run(found[chosen]);
        }}
        inputProps={{
          'aria-label': 'Find',
          role: 'combobox',
          'aria-expanded': true,
          'aria-controls': 'palette-list',
          'aria-activedescendant': found[chosen] ? `palette-${found[chosen].id}` : undefined,
        }}
        sx={{ px: 2.5, py: 1.5, fontSize: 16, borderBottom: `1px solid ${INK.line}` }}
      />
      <List
        ref={list}
        id="palette-list"
        role="listbox"
        aria-label="Found"
        sx={{ overflowY: 'auto', maxHeight: '56vh', py: 0.75 }}
      >
        {found.map((entry, i) => (
          <ListItemButton
            key={entry.id}
            id={`palette-${entry.id}`}
            role="option"
            aria-selected={i === chosen}
            aria-disabled={entry.off !== undefined}
            selected={i === chosen}
            onClick={() => run(entry)}
            sx={{ mx: 0.75, borderRadius: 2, py: 0.6, gap: 2, opacity: entry.off ? 0.65 : 1 }}
          >
            {entry.icon && (
              <Box sx={{ color: 'primary.main', display: 'flex' }}>
                <StepIcon icon={entry.icon} />
              </Box>
            )}
            <Box sx={{ flex: 1, minWidth: 0 }}>
              <Box sx={{ fontSize: 14, fontWeight: 550 }}>{entry.label}</Box>
              {entry.help && <Box sx={{ fontSize: 12, color: 'text.secondary' }}>{entry.help}</Box>}
            </Box>
            {entry.off && <Box sx={{ fontSize: 12, color: '#f2d06b' }}>{entry.off}</Box>}
            {entry.keys && (
              <Box sx={{ fontFamily: MONO, fontSize: 11.5, color: 'text.secondary', whiteSpace: 'nowrap' }}>
                {keysText(entry.keys)}
              </Box>
            )}
          </ListItemButton>
        ))}
        {found.length === 0 && <Box sx={{ px: 2.5, py: 1.5, color: 'text.secondary' }}>Nothing is called that.</Box>}
      </List>
    </Dialog>
  );
}
