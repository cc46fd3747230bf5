import {
  baseOf,
  type Cycle,
  type Ease,
  isTrack,
  type Scene,
  type Track,
  valueAt,
  withBase,
  withKeysMoved,
} from '@uvrex/core';
import { say } from '../toasts';
import { edit, endEdit, holderIn, sceneNow, stepIn, travel, useDocument } from '../document/document';
import { sameContent } from '../document/sameContent';
import { type KeyAddress, setView, useView } from '../document/view';

const trackAt = (draft: Scene, { growth, step, param }: Omit<KeyAddress, 'frame'>): Track | undefined => {
  const value = baseOf(stepIn(draft, growth, step)?.params[param]);
  return isTrack(value) ? value : undefined;
};

/** Keys that are being moved: where they were, in the scene as it was, when the move began. */
interface Move {
  merge: string;
  base: Scene;
  original: readonly KeyAddress[];
  /** Where they are, in the scene as it is now. */
  now: readonly KeyAddress[];
  scene: Scene;
}

let moving: Move | null = null;

/** The move that goes on with keys: a drag, or a run of arrow keys, that nothing has come between. */
function moveGoingOn(keys: readonly KeyAddress[], merge: string | null): Move | null {
  const { scene, history } = useDocument.getState();
  const open = merge !== null && moving?.merge === merge && history.past.at(-1)?.merge === merge;
  return open && moving!.scene === scene && sameContent(moving!.now, keys) ? moving : null;
}

/**
 * Ends a move of keys. Keys that stood where they have come to lie are replaced: this says so, and offers to take the move back.
 */
export function endMove(): void {
  const move = moving;
  moving = null;
  endEdit();
  if (!move || move.scene !== sceneNow()) return;
  const replaced = move.now.filter(
    (key) =>
      trackAt(move.base, key)?.keys.some(({ frame }) => frame === key.frame) &&
      !move.original.some((other) => sameContent(other, key)),
  );
  const entry = useDocument.getState().history.past.at(-1);
  if (replaced.length === 0) return;
  say({
    tone: 'info',
    text:
      replaced.length === 1
        ? `The key that stood at frame ${replaced[0].frame} is replaced.`
        : `${replaced.length} keys that stood there are replaced.`,
    action: {
      label: 'Undo the move',
      run: () => {
        if (useDocument.getState().history.past.at(-1) !== entry) return;
        travel('undo');
        setView({ keys: [...move.original] });
      },
    },
  });
}

/**
 * Puts keys at other frames; keys they land on are replaced. Where two of one track would meet, nothing is changed. While a
 * move goes on (the same keys, under the same merge key) each call begins with the tracks as they were before it: what is
 * passed over stays.
 * @param to the frame of the growth for each of them
 * @returns where they are now
 */
export function retimeKeys(
  keys: readonly KeyAddress[],
  to: (key: KeyAddress, i: number) => number,
  merge: string | null = null,
): KeyAddress[] {
  const targets = keys.map((key, i) => ({ ...key, frame: Math.round(to(key, i)) }));
  const names = targets.map(({ growth, step, param, frame }) => `${growth} ${step} ${param} ${frame}`);
  if (new Set(names).size < names.length || targets.every(({ frame }, i) => frame === keys[i].frame)) return [...keys];
  const going = moveGoingOn(keys, merge);
  const original = going?.original ?? keys;
  const base = going?.base ?? sceneNow();
  const tracks = new Map<string, { address: KeyAddress; moves: Map<number, number> }>();
  original.forEach((address, i) => {
    const name = `${address.growth} ${address.step} ${address.param}`;
    const entry = tracks.get(name) ?? { address, moves: new Map<number, number>() };
    entry.moves.set(address.frame, targets[i].frame);
    tracks.set(name, entry);
  });
  const done = edit(
    keys.length > 1 ? 'Move keys' : 'Move key',
    (draft) => {
      for (const { address, moves } of tracks.values()) {
        const step = stepIn(draft, address.growth, address.step);
        const track = trackAt(base, address);
        if (step && track)
          step.params[address.param] = withBase(step.params[address.param], withKeysMoved(track, moves));
      }
    },
    { merge },
  );
  if (!done) return [...keys];
  moving = merge === null ? null : { merge, base, original, now: targets, scene: sceneNow() };
  return targets;
}

/** Moves keys by whole frames. Returns where they are now. */
export const moveKeys = (keys: readonly KeyAddress[], by: number, merge: string): KeyAddress[] =>
  retimeKeys(keys, ({ frame }) => frame + by, merge);

/** Moves the chosen keys of every track so that its first one stands at the playhead. */
export function alignKeys(): void {
  const { keys, frame } = useView.getState();
  const first = new Map<string, number>();
  const nameOf = ({ growth, step, param }: KeyAddress): string => `${growth} ${step} ${param}`;
  for (const key of keys) first.set(nameOf(key), Math.min(first.get(nameOf(key)) ?? Infinity, key.frame));
  const shift = (id: string): number => holderIn(sceneNow(), id)?.shift ?? 0;
  setView({ keys: retimeKeys(keys, (key) => key.frame - first.get(nameOf(key))! + frame - shift(key.growth)) });
}

/** Chooses every key of the selected growth, or of the scene itself. */
export function chooseAllKeys(): void {
  const growth = holderIn(sceneNow(), useView.getState().growth);
  if (!growth) return;
  const keys = growth.steps.flatMap((step) =>
    Object.entries(step.params).flatMap(([param, value]) => {
      const track = baseOf(value);
      return isTrack(track) ? track.keys.map(({ frame }) => ({ growth: growth.id, step: step.id, param, frame })) : [];
    }),
  );
  setView({ keys });
}

/** Puts a marker at the playhead, or takes the one there away. */
export function toggleMarker(): void {
  const frame = Math.round(useView.getState().frame);
  const there = sceneNow().markers.some((marker) => marker.frame === frame);
  edit(there ? 'Take a marker away' : 'Set a marker', (draft) => {
    if (there) draft.markers = draft.markers.filter((marker) => marker.frame !== frame);
    else draft.markers = [...draft.markers, { frame, name: '' }].sort((a, b) => a.frame - b.frame);
  });
}

export function changeMarker(
  index: number,
  change: { frame?: number; name?: string },
  merge: string | null = null,
): void {
  edit(
    'Change a marker',
    (draft) => {
      const marker = draft.markers[index];
      // Two in one place would be one.
      if (marker && !draft.markers.some((other, i) => i !== index && other.frame === change.frame))
        Object.assign(marker, change);
    },
    { merge },
  );
}

/** Removes keys; a track that loses its last one becomes the constant it showed. */
export function deleteKeys(keys: readonly KeyAddress[]): void {
  const done = edit(keys.length > 1 ? 'Delete keys' : 'Delete key', (draft) => {
    for (const key of keys) {
      const step = stepIn(draft, key.growth, key.step);
      const track = trackAt(draft, key);
      if (!step || !track) continue;
      const left = track.keys.filter(({ frame }) => frame !== key.frame);
      step.params[key.param] = withBase(
        step.params[key.param],
        left.length > 0 ? { ...track, keys: left } : valueAt(track, key.frame),
      );
    }
  });
  if (done) setView({ keys: [] });
}

export function setEase(keys: readonly KeyAddress[], ease: Ease, merge: string | null = null): void {
  edit(
    'Change easing',
    (draft) => {
      for (const address of keys) {
        const key = trackAt(draft, address)?.keys.find(({ frame }) => frame === address.frame);
        if (key) key.ease = ease;
      }
    },
    { merge },
  );
}

/** Sets what happens before or after the keys, for the track of each of some keys. */
export function setCycle(addresses: readonly Omit<KeyAddress, 'frame'>[], end: 'before' | 'after', cycle: Cycle): void {
  edit(end === 'before' ? 'Change what happens before the keys' : 'Change what happens after the keys', (draft) => {
    for (const address of addresses) {
      const track = trackAt(draft, address);
      if (track) track[end] = cycle;
    }
  });
}

/** Has all animated values of a growth, or of the scene itself, repeat before and after their keys. */
export function repeatAll(holder: string): void {
  edit('Repeat all animation', (draft) => {
    for (const { params } of holderIn(draft, holder)?.steps ?? [])
      for (const value of Object.values(params)) {
        const track = baseOf(value);
        if (isTrack(track)) Object.assign(track, { before: 'repeat', after: 'repeat' } satisfies Partial<Track>);
      }
  });
}
