'use client';

import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useLiveQuery } from 'dexie-react-hooks';
import { useEffect, useRef, useState } from 'react';
import { type Family, type FormKind, kindsGiven, type StepDeclaration, STEPS, USES } from '@uvrex/core';
import { type Cutting, CUTTINGS, STEP_WORDS } from '@uvrex/core/cuttings';
import { MOMENTS, SMALL } from '@uvrex/examples/small';
import { addStartedGrowth, selectedGrowth } from '@/state/actions/growthActions';
import { addStep } from '@/state/actions/stepActions';
import { COMMANDS } from '@/state/actions/commands';
import { plant, plantOwn } from '@/state/actions/cuttings';
import { deleteCutting, exportOwn, importCutting, ownCuttings, renameCutting } from '@/state/storage/cuttingShelf';
import type { StoredCutting } from '@/store/db';
import { keysOf } from '@/state/storage/shortcuts';
import { setView, useView } from '@/state/document/view';
import { COMMAND_WORDS } from './commandWords';
import { focusRow } from './focusRow';
import { MoreMenu } from './MoreMenu';
import { type Entry, Picker, type Section } from './Picker';
import { RenameInput } from './RenameInput';
import { INK } from './theme';
import { announceDeleted } from './deleted';
import { DeletedButton } from './DeletedButton';
import { sayProblem, withProgress } from '@/state/toasts';

const small = (name: string, rest?: number): Entry['picture'] =>
  name in SMALL ? { src: SMALL[name], moments: MOMENTS, rest } : undefined;

const FAMILIES: readonly { of: Family; title: string }[] = [
  { of: 'shape', title: 'Shape' },
  { of: 'grow', title: 'Grow' },
  { of: 'skin', title: 'Skin' },
  { of: 'finish', title: 'Finish' },
  { of: 'place', title: 'Place' },
  { of: 'start', title: 'One more start' },
];

/** Why a step cannot be added to what is there; undefined where it can. */
function missingFor({ takes, takesOne }: StepDeclaration, kinds: ReadonlySet<FormKind>): string | undefined {
  const missing = takes.filter((kind) => !kinds.has(kind));
  if (missing.length > 0) return `needs ${missing.join(' and ')} first`;
  if (!takesOne || takesOne.some((kind) => kinds.has(kind))) return undefined;
  return `needs ${takesOne.slice(0, -1).join(', ')} or ${takesOne.at(-1)} first`;
}

/** Steps by family, those that fit first; what does not fit comes last, with why. */
function stepSections(): Section[] {
  const growth = selectedGrowth();
  const kinds = kindsGiven(growth?.steps ?? []);
  const steps = growth ? STEPS : STEPS.filter(({ family }) => family !== 'start');
  const entries = steps.map((step): Entry & { family: Family } => ({
    id: `step:${step.kind}`,
    family: step.family,
    label: step.label,
    help: step.help,
    words: STEP_WORDS[step.kind],
    icon: step.icon,
    picture: small(`${step.family === 'start' ? 'start' : 'step'}-${step.kind}`),
    run: () => growth && addStep(growth.id, step.kind),
    off: growth ? missingFor(step, kinds) : 'needs a selected growth',
  }));
  const fitting = (of: Family): Entry[] => entries.filter(({ family, off }) => family === of && !off);
  return [
    ...FAMILIES.map(({ of, title }): Section => ({ title, as: 'cards', entries: fitting(of) })),
    { title: 'Not here yet', as: 'rows', entries: entries.filter(({ off }) => off) },
  ];
}

const cuttingEntry = (cutting: Cutting): Entry => ({
  id: `cutting:${cutting.id}`,
  label: cutting.name,
  help: cutting.help,
  words: cutting.words,
  picture: small(`cutting-${cutting.id}`, cutting.moment),
  run: () => plant(cutting),
});

/** What can be planted on the selected growth. */
function fittingCuttings(): Section[] {
  const growth = selectedGrowth();
  const kinds = kindsGiven(growth?.steps ?? []);
  const fit = CUTTINGS.filter(({ on }) => on !== null && kinds.has(on));
  return [{ title: 'Plant on this growth', as: 'cards', beside: true, entries: fit.map(cuttingEntry) }];
}

/** Everything that a growth can begin with. */
const startSections = (): Section[] => [
  { title: 'Whole pieces', as: 'cards', entries: CUTTINGS.filter(({ on }) => on === null).map(cuttingEntry) },
  ...USES.map((use): Section => ({
    title: use,
    as: 'cards',
    entries: STEPS.filter((step) => step.use === use).map((step) => ({
      id: `new:${step.kind}`,
      label: step.label,
      help: step.help,
      words: STEP_WORDS[step.kind],
      icon: step.icon,
      picture: small(`start-${step.kind}`),
      run: () => addStartedGrowth(step.kind),
    })),
  })),
];

function commandSections(): Section[] {
  const commands = COMMANDS.filter(({ id, can }) => id !== 'palette' && (can?.() ?? true)).map((command): Entry => ({
    ...command,
    words: COMMAND_WORDS[command.id],
    keys: keysOf(command) || command.native,
  }));
  const isStart = ({ id }: Entry): boolean => id.startsWith('new:');
  const steps = stepSections().flatMap(({ entries }) =>
    entries.map((entry) => ({ ...entry, label: `Add step: ${entry.label.toLowerCase()}` })),
  );
  const cuttings = [
    ...fittingCuttings().flatMap(({ entries }) => entries),
    ...CUTTINGS.filter(({ on }) => on === null).map(cuttingEntry),
  ].map((entry) => ({ ...entry, label: `Plant: ${entry.label.toLowerCase()}` }));
  return [
    {
      title: null,
      as: 'rows',
      entries: [...commands.filter(isStart), ...commands.filter((entry) => !isStart(entry)), ...steps, ...cuttings],
    },
  ];
}

/** Finds and runs everything: steps and cuttings that fit the selected growth, new growths, all commands. */
export function Palette() {
  const kind = useView((state) => state.palette);
  return kind ? <OpenPalette kind={kind} /> : null;
}

const WORDS = {
  commands: { label: 'Commands', placeholder: 'What would you like to do?' },
  steps: { label: 'Add a step', placeholder: 'Which step?' },
  begin: { label: 'New growth', placeholder: 'What shall grow? A leaf, a chain, a vine, letters …' },
};

function OpenPalette({ kind }: { kind: keyof typeof WORDS }) {
  const [before] = useState(() => document.activeElement);
  const own = useOwnCuttings(kind === 'commands' ? null : kind === 'begin' ? 'growths' : 'steps');
  // Sections stay the same objects while it is open: a growth that is being measured changes nothing in it.
  const [sections] = useState(() =>
    kind === 'commands'
      ? commandSections()
      : kind === 'begin'
        ? startSections()
        : [...fittingCuttings(), ...stepSections()],
  );
  const close = (): void => {
    setView({ palette: null });
    focusRow(undefined, before);
  };
  const pick = (entry: Entry): void => {
    const { openSteps } = useView.getState();
    setView({ palette: null });
    entry.run();
    // To the step that has been added; else back to where it was, or to what is selected now.
    const now = useView.getState();
    const added = now.openSteps.find((id) => !openSteps.includes(id));
    const back = before?.isConnected && before !== document.body ? undefined : now.growth;
    focusRow(added ?? back ?? undefined, before);
  };
  return (
    <Picker
      {...WORDS[kind]}
      wide={kind !== 'commands'}
      sections={[...own.sections, ...sections]}
      close={close}
      pick={pick}
      foot={kind === 'commands' ? undefined : own.foot}
    />
  );
}

/**
 * One's own cuttings, what can be done with them, and how others come in.
 * @param of of which kind; null for all, as rows
 */
function useOwnCuttings(of: StoredCutting['of'] | null): { sections: Section[]; foot: React.ReactNode } {
  const stored = useLiveQuery(ownCuttings, []) ?? [];
  const [naming, setNaming] = useState<StoredCutting | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const pictures = usePictures(stored);
  const entries = stored
    .filter((cutting) => of === null || cutting.of === of)
    .map((cutting): Entry => {
      const src = pictures.get(cutting.id);
      return {
        id: `own:${cutting.id}`,
        label: cutting.name,
        icon: 'M10 17V9M10 9C10 5 6 4 4 4 4 7 6 9 10 9M10 11C10 8 13 7 16 7 16 10 13 11 10 11',
        picture: src ? { src, moments: 1 } : undefined,
        run: () => plantOwn(cutting),
        more: (
          <MoreMenu
            of={cutting.name}
            items={[
              { label: 'Rename', run: () => setNaming(cutting) },
              { label: 'Export', run: () => exportOwn(cutting) },
              { label: 'Delete', run: () => void announceDeleted(cutting.name, deleteCutting(cutting)) },
            ]}
          />
        ),
      };
    });
  const foot = (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, px: 2, py: 1, borderTop: `1px solid ${INK.line}` }}>
      {naming ? (
        <RenameInput
          value={naming.name}
          label="Name of the cutting"
          done={(name) => {
            if (name) void renameCutting(naming, name).catch(sayProblem);
            setNaming(null);
          }}
        />
      ) : (
        <Box sx={{ flex: 1, fontSize: 12, color: 'text.secondary' }}>
          Keep a growth or a step as a cutting of your own by its menu.
        </Box>
      )}
      <DeletedButton />
      <Button color="inherit" size="small" sx={{ color: 'text.secondary' }} onClick={() => input.current?.click()}>
        Import a cutting
      </Button>
      <input
        ref={input}
        type="file"
        accept=".json,.zip,application/json,application/zip"
        hidden
        data-testid="import-cutting"
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          if (file) withProgress(`Reading “${file.name}” …`, (signal) => importCutting(file, signal)).catch(sayProblem);
          event.target.value = '';
        }}
      />
    </Box>
  );
  const as = of === null ? 'rows' : 'cards';
  return { sections: [{ title: 'Your cuttings', as, beside: of === 'steps', entries }], foot };
}

/** Addresses of the pictures of one's own cuttings, given back when they are no longer shown. */
function usePictures(stored: readonly StoredCutting[]): ReadonlyMap<string, string> {
  const [urls, setUrls] = useState<ReadonlyMap<string, string>>(new Map());
  const ids = stored.map(({ id }) => id).join();
  useEffect(() => {
    const made = new Map(
      stored.flatMap(({ id, picture }) => (picture ? [[id, URL.createObjectURL(picture)] as const] : [])),
    );
    setUrls(made);
    return () => made.forEach((url) => URL.revokeObjectURL(url));
    // By which there are: names that change make no new pictures.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [ids]);
  return urls;
}
