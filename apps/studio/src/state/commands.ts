import { isTrack, type NumberParam, STEPS, stepOf } from '@uvrex/core';
import { say } from '@/ui/Toasts';
import {
  addStartedGrowth,
  deleteGrowth,
  deleteKeys,
  duplicateGrowth,
  selectedGrowth,
  toggleKey,
  toggleStep,
} from './actions';
import { travel, useDocument } from './document';
import { type Look, setView, useView } from './view';

export interface Command {
  id: string;
  label: string;
  /** In the notation of react-hotkeys-hook; none for what only the palette offers. */
  keys?: string;
  /** A sign that calls it, wherever it lies on the keyboard. */
  sign?: string;
  run: () => void;
  /** Whether it can do anything now. */
  can?: () => boolean;
}

const LOOKS: Look[] = ['finished', 'paths', 'points'];

const step = (by: number) => () => {
  const [first, last] = useDocument.getState().scene.range;
  setView(({ frame }) => ({ frame: Math.min(last, Math.max(first, Math.round(frame) + by)), playing: false }));
};
const there = (end: 0 | 1) => () => setView({ frame: useDocument.getState().scene.range[end], playing: false });

const history = (direction: 'undo' | 'redo') => () => {
  const label = travel(direction);
  if (label) say({ tone: 'info', text: `${direction === 'undo' ? 'Undone' : 'Done again'}: ${label.toLowerCase()}` });
};

/** The next key before or after the playhead on the selected growth. */
const toKey = (way: 1 | -1) => () => {
  const growth = selectedGrowth();
  if (!growth) return;
  const { frame } = useView.getState();
  const frames = growth.steps
    .flatMap(({ params }) =>
      Object.values(params).flatMap((value) =>
        isTrack(value) ? value.keys.map((key) => key.frame + growth.shift) : [],
      ),
    )
    .filter((at) => (at - frame) * way > 0)
    .sort((a, b) => (a - b) * way);
  if (frames.length > 0) setView({ frame: frames[0], playing: false });
};

/** Puts a key at the playhead on every animated value of the selected growth. */
const keyAll = (): void => {
  const growth = selectedGrowth();
  if (!growth) return;
  const frame = useView.getState().frame - growth.shift;
  for (const { id, kind, params } of growth.steps) {
    for (const [name, value] of Object.entries(params)) {
      if (isTrack(value) && !value.keys.some((key) => key.frame === frame))
        toggleKey(growth.id, id, name, stepOf(kind)?.params[name] as NumberParam);
    }
  }
};

const hasGrowth = (): boolean => selectedGrowth() !== undefined;

/** Everything that a key or the palette can do. */
export const COMMANDS: readonly Command[] = [
  { id: 'play', label: 'Play or stop', keys: 'space', run: () => setView(({ playing }) => ({ playing: !playing })) },
  { id: 'back', label: 'One frame back', keys: 'left', run: step(-1) },
  { id: 'on', label: 'One frame on', keys: 'right', run: step(1) },
  { id: 'back12', label: 'Twelve frames back', keys: 'shift+left', run: step(-12) },
  { id: 'on12', label: 'Twelve frames on', keys: 'shift+right', run: step(12) },
  { id: 'first', label: 'To the first frame', keys: 'home', run: there(0) },
  { id: 'last', label: 'To the last frame', keys: 'end', run: there(1) },
  { id: 'keyBefore', label: 'To the key before', keys: 'comma', run: toKey(-1), can: hasGrowth },
  { id: 'keyAfter', label: 'To the key after', keys: 'period', run: toKey(1), can: hasGrowth },
  { id: 'keyAll', label: 'Set keys here on all animated values', keys: 'shift+k', run: keyAll, can: hasGrowth },
  {
    id: 'remove',
    label: 'Delete the chosen keys',
    keys: 'delete, backspace',
    run: () => deleteKeys(useView.getState().keys),
    can: () => useView.getState().keys.length > 0,
  },
  {
    id: 'undo',
    label: 'Undo',
    keys: 'mod+z',
    run: history('undo'),
    can: () => useDocument.getState().history.past.length > 0,
  },
  {
    id: 'redo',
    label: 'Do again',
    keys: 'mod+shift+z, mod+y',
    run: history('redo'),
    can: () => useDocument.getState().history.future.length > 0,
  },
  { id: 'draw', label: 'Draw a path', keys: 'd', run: () => setView({ tool: 'draw', redraw: null, playing: false }) },
  {
    id: 'steps',
    label: 'Add a step to this growth',
    keys: 'n',
    run: () => setView({ palette: 'steps' }),
    can: hasGrowth,
  },
  {
    id: 'bud',
    label: 'Switch the focused step on or off',
    keys: 'b',
    run: () => {
      const growth = selectedGrowth();
      const { focusStep } = useView.getState();
      if (growth && focusStep) toggleStep(growth.id, focusStep);
    },
    can: () => selectedGrowth()?.steps.some(({ id }) => id === useView.getState().focusStep) ?? false,
  },
  { id: 'all', label: 'See everything', keys: 'o', run: () => setView(({ frameAll }) => ({ frameAll: frameAll + 1 })) },
  { id: 'shot', label: "Look through the shot's camera", keys: 'c', run: () => setView({ eye: null }) },
  {
    id: 'look',
    label: 'Next way of showing: finished, paths, points',
    keys: 'l',
    run: () => setView(({ look }) => ({ look: LOOKS[(LOOKS.indexOf(look) + 1) % LOOKS.length] })),
  },
  { id: 'palette', label: 'All commands', keys: 'mod+k', run: () => setView({ palette: 'commands' }) },
  { id: 'export', label: 'Export', keys: 'mod+e', run: () => setView({ sheet: 'export', playing: false }) },
  { id: 'shortcuts', label: 'Shortcuts', sign: '?', run: () => setView({ sheet: 'shortcuts' }) },
  {
    id: 'checks',
    label: 'Checks: pace and seam',
    keys: 'p',
    run: () => setView(({ checks }) => ({ checks: !checks })),
  },
  {
    id: 'duplicate',
    label: 'Duplicate this growth',
    keys: 'mod+d',
    run: () => duplicateGrowth(selectedGrowth()?.id ?? ''),
    can: hasGrowth,
  },
  { id: 'delete', label: 'Delete this growth', run: () => deleteGrowth(selectedGrowth()?.id ?? ''), can: hasGrowth },
  ...STEPS.filter(({ family }) => family === 'start').map((start): Command => ({
    id: `new:${start.kind}`,
    label: `New growth: ${start.label.toLowerCase()}`,
    run: () => addStartedGrowth(start.kind),
  })),
];

/** Runs a command when it can do something now. */
export function runCommand(id: string): void {
  const command = COMMANDS.find((entry) => entry.id === id);
  if (command && (command.can?.() ?? true)) command.run();
}

/** A command's keys as people read them. */
export function keysText(keys: string): string {
  const mac = typeof navigator !== 'undefined' && /mac/i.test(navigator.platform);
  const words: Record<string, string> = {
    mod: mac ? '⌘' : 'Ctrl',
    shift: 'Shift',
    left: '←',
    right: '→',
    space: 'Space',
    comma: ',',
    period: '.',
    delete: 'Delete',
    backspace: 'Backspace',
    home: 'Home',
    end: 'End',
  };
  return keys
    .split(', ')
    .map((one) =>
      one
        .split('+')
        .map((part) => words[part] ?? part.toUpperCase())
        .join(' '),
    )
    .join('  or  ');
}
