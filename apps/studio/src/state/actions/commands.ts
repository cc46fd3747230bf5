import { baseOf, isTrack, lateOf, type NumberParam, type ParamValue, stepOf, STEPS, type Track } from '@uvrex/core';
import { say, sayProblem } from '../toasts';
import { addStartedGrowth, deleteGrowth, duplicateGrowth, selectedGrowth } from './growthActions';
import { alignKeys, chooseAllKeys, deleteKeys, repeatAll, toggleMarker } from './keyActions';
import { toggleStep } from './stepActions';
import { ownFrame, toggleKey } from './valueActions';
import { withClips } from './lazyClips';
import { joinEdits, travel, useDocument } from '../document/document';
import { zoomScale } from '@/state/document/timeScale';
import { soundOf } from '../audio/sound';
import { groupGrowths } from './groups';
import { chooseAhead, chosenIn, type Look, seeAll, setView, useView } from '../document/view';

export interface Command {
  id: string;
  label: string;
  /** In the notation of react-hotkeys-hook; none for what only the palette offers. */
  keys?: string;
  /** A step's sign, for what begins with one. */
  icon?: string;
  /** Keys that the browser itself answers, and passes on to us. */
  native?: string;
  /** A sign that calls it, wherever it lies on the keyboard. */
  sign?: string;
  /** Its keys do it in the midst of a field too, where others are typed. */
  everywhere?: boolean;
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
  if (label) say({ tone: 'info', text: `${direction === 'undo' ? 'Undone' : 'Redone'}: ${label.toLowerCase()}` });
};

/** Keys of a parameter, none where it is not animated. */
const keysOf = (value: ParamValue): Track['keys'] => {
  const base = baseOf(value);
  return isTrack(base) ? base.keys : [];
};

/** The next key before or after the playhead on the selected growth. */
const toKey = (way: 1 | -1) => () => {
  const growth = selectedGrowth();
  if (!growth) return;
  const { frame } = useView.getState();
  const late = lateOf(useDocument.getState().scene, growth);
  const frames = growth.steps
    .flatMap(({ params }) => Object.values(params).flatMap((value) => keysOf(value).map((key) => key.frame + late)))
    .filter((at) => (at - frame) * way > 0)
    .sort((a, b) => (a - b) * way);
  if (frames.length > 0) setView({ frame: frames[0], playing: false });
};

/** Puts a key at the playhead on every animated value of the selected growth. */
const keyAll = (): void => {
  const growth = selectedGrowth();
  if (!growth) return;
  const frame = ownFrame(growth, useView.getState().frame);
  const end = joinEdits();
  for (const { id, kind, params } of growth.steps) {
    for (const [name, value] of Object.entries(params)) {
      if (isTrack(baseOf(value)) && !keysOf(value).some((key) => key.frame === frame))
        toggleKey(growth.id, id, name, stepOf(kind)?.params[name] as NumberParam);
    }
  }
  end();
};

/** Duplicates the selected growth, or all that are chosen. */
const duplicateChosen = (): void => {
  const chosen = chosenIn(useView.getState());
  if (chosen.length > 1)
    void import('./selectionActions').then(({ duplicateGrowths }) => duplicateGrowths(chosen)).catch(sayProblem);
  else duplicateGrowth(selectedGrowth()?.id ?? '');
};

/** Shows more or less time about the playhead. */
const zoom = (factor: number) => () =>
  setView(({ span, frame }) => ({ span: zoomScale(useDocument.getState().scene.range, span, frame, factor) }));

/** The one growth that is looked at alone, if any. */
const shownAlone = (): string | null => {
  const { alone, growth } = useView.getState();
  return alone && selectedGrowth() ? growth : null;
};

const hasGrowth = (): boolean => selectedGrowth() !== undefined;

/** Everything that a key or the palette can do. */
export const COMMANDS: readonly Command[] = [
  { id: 'play', label: 'Play or stop', keys: 'space', run: () => setView(({ playing }) => ({ playing: !playing })) },
  {
    id: 'mute',
    label: 'Sound on or off',
    keys: 'm',
    run: () => setView(({ muted }) => ({ muted: !muted })),
    can: () => soundOf(useDocument.getState().scene) !== null,
  },
  {
    id: 'ahead',
    label: 'Compute all frames ahead, or only those shown',
    run: () => chooseAhead(!useView.getState().ahead),
  },
  { id: 'back', label: 'Previous frame', keys: 'left', run: step(-1) },
  { id: 'on', label: 'Next frame', keys: 'right', run: step(1) },
  { id: 'back12', label: 'Twelve frames back', keys: 'shift+left', run: step(-12) },
  { id: 'on12', label: 'Twelve frames forward', keys: 'shift+right', run: step(12) },
  { id: 'first', label: 'To the first frame', keys: 'home', run: there(0) },
  { id: 'last', label: 'To the last frame', keys: 'end', run: there(1) },
  { id: 'keyBefore', label: 'To the key before', keys: 'comma', run: toKey(-1), can: hasGrowth },
  { id: 'keyAfter', label: 'To the key after', keys: 'period', run: toKey(1), can: hasGrowth },
  { id: 'keyAll', label: 'Set keys here on all animated values', keys: 'shift+k', run: keyAll, can: hasGrowth },
  {
    id: 'remove',
    label: 'Delete selected keys',
    keys: 'delete, backspace',
    run: () => deleteKeys(useView.getState().keys),
    can: () => useView.getState().keys.length > 0,
  },
  {
    id: 'allKeys',
    label: 'Select all keys of this growth',
    keys: 'mod+a',
    run: chooseAllKeys,
    can: hasGrowth,
  },
  {
    id: 'repeatAll',
    label: 'Repeat all animation of this growth',
    run: () => repeatAll(useView.getState().growth ?? ''),
    can: hasGrowth,
  },
  {
    id: 'align',
    label: 'Align selected keys to the playhead',
    keys: 'g',
    run: alignKeys,
    can: () => useView.getState().keys.length > 0,
  },
  { id: 'marker', label: 'Set or remove a marker here', keys: 'i', run: toggleMarker },
  { id: 'nearer', label: 'Zoom in on the timeline', keys: 'shift+up', run: zoom(0.5) },
  {
    id: 'further',
    label: 'Zoom out on the timeline',
    keys: 'shift+down',
    run: zoom(2),
    can: () => useView.getState().span !== null,
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
    label: 'Redo',
    keys: 'mod+shift+z, mod+y',
    run: history('redo'),
    can: () => useDocument.getState().history.future.length > 0,
  },
  { id: 'draw', label: 'Draw a path', keys: 'd', run: () => setView({ tool: 'draw', redraw: null, playing: false }) },
  { id: 'begin', label: 'New growth, by its picture', keys: 'shift+n', run: () => setView({ palette: 'begin' }) },
  {
    id: 'steps',
    label: 'Add a step to this growth',
    keys: 'n',
    run: () => setView({ palette: 'steps' }),
    can: hasGrowth,
  },
  {
    id: 'bud',
    label: 'Enable or disable the focused step',
    keys: 'b',
    run: () => {
      const growth = selectedGrowth();
      const { focusStep } = useView.getState();
      if (growth && focusStep) toggleStep(growth.id, focusStep);
    },
    can: () => selectedGrowth()?.steps.some(({ id }) => id === useView.getState().focusStep) ?? false,
  },
  {
    id: 'all',
    label: 'Frame everything',
    keys: 'o',
    run: () => seeAll(),
  },
  { id: 'front', label: 'Front view, or back', keys: '1', run: () => seeAll(shownAlone(), 'front') },
  { id: 'side', label: 'Right view, or left', keys: '2', run: () => seeAll(shownAlone(), 'side') },
  { id: 'top', label: 'Top view', keys: '3', run: () => seeAll(shownAlone(), 'top') },
  { id: 'grid', label: 'Grid and axes', keys: 'x', run: () => setView(({ grid }) => ({ grid: !grid })) },
  {
    id: 'measure',
    label: 'Measure a distance',
    keys: 'r',
    run: () => setView({ tool: 'measure', playing: false }),
  },
  {
    id: 'alone',
    label: 'Isolate selection',
    keys: 'a',
    run: () => setView(({ alone }) => ({ alone: !alone })),
    can: hasGrowth,
  },
  {
    id: 'place',
    label: 'Move, rotate and scale this growth',
    keys: 'h',
    run: () => {
      const name = `place of ${selectedGrowth()!.id}`;
      setView(({ openSteps }) => ({
        tool: 'look',
        openSteps: openSteps.includes(name) ? openSteps.filter((other) => other !== name) : [...openSteps, name],
      }));
    },
    can: hasGrowth,
  },
  {
    id: 'group',
    label: 'Group selected growths',
    keys: 'mod+g',
    run: () => groupGrowths(chosenIn(useView.getState())),
    can: hasGrowth,
  },
  { id: 'shot', label: "Look through the shot's camera", keys: 'c', run: () => setView({ eye: null }) },
  {
    id: 'look',
    label: 'Cycle display mode: finished, paths, points',
    keys: 'l',
    run: () => setView(({ look }) => ({ look: LOOKS[(LOOKS.indexOf(look) + 1) % LOOKS.length] })),
  },
  {
    id: 'palette',
    label: 'All commands',
    keys: 'mod+k',
    everywhere: true,
    run: () => setView({ palette: 'commands' }),
  },
  {
    id: 'export',
    label: 'Export',
    keys: 'mod+e',
    everywhere: true,
    run: () => setView({ sheet: 'export', playing: false }),
  },
  {
    id: 'keep',
    label: 'Save a version',
    keys: 'mod+s',
    everywhere: true,
    run: () => void import('../storage/versions').then(({ keepVersion }) => keepVersion()).catch(sayProblem),
  },
  {
    id: 'versions',
    label: 'Versions: restore or compare',
    keys: 'v',
    run: () => setView({ sheet: 'versions', playing: false }),
  },
  {
    id: 'lessons',
    label: 'Lessons beside the work',
    keys: 'shift+l',
    run: () => setView(({ lesson }) => ({ lesson: lesson ? null : { id: '', done: [] } })),
  },
  { id: 'shortcuts', label: 'Shortcuts', sign: '?', run: () => setView({ sheet: 'shortcuts' }) },
  {
    id: 'checks',
    label: 'Checks: pace, seam, fit and trails',
    keys: 'p',
    run: () => setView(({ checks }) => ({ checks: !checks })),
  },
  {
    id: 'table',
    label: 'Attribute table',
    keys: 't',
    run: () => setView(({ table }) => ({ table: !table, shade: null })),
    can: hasGrowth,
  },
  {
    id: 'copy',
    label: 'Copy selected keys, the focused step, or this growth',
    native: 'mod+c',
    run: () =>
      withClips(({ copyText }) => {
        const text = copyText();
        return text === null ? undefined : navigator.clipboard.writeText(text);
      }),
    can: hasGrowth,
  },
  {
    id: 'paste',
    label: 'Paste',
    native: 'mod+v',
    run: () =>
      void navigator.clipboard.readText().then(
        (text) =>
          withClips(
            ({ pasteText }) =>
              pasteText(text) || say({ tone: 'info', text: 'There is nothing copied from a scene on the clipboard.' }),
          ),
        () =>
          say({ tone: 'info', text: `Press ${keysText('mod+v')}: the browser lets nothing else read the clipboard.` }),
      ),
  },
  {
    id: 'duplicate',
    label: 'Duplicate selected growths',
    keys: 'mod+d',
    run: duplicateChosen,
    can: hasGrowth,
  },
  { id: 'delete', label: 'Delete this growth', run: () => deleteGrowth(selectedGrowth()?.id ?? ''), can: hasGrowth },
  ...STEPS.filter(({ family }) => family === 'start').map((start): Command => ({
    id: `new:${start.kind}`,
    label: `New growth: ${start.label.toLowerCase()}`,
    icon: start.icon,
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
    alt: mac ? '⌥' : 'Alt',
    left: '←',
    right: '→',
    up: '↑',
    down: '↓',
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
