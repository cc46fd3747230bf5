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
import { edit, holderIn, sceneNow, stepIn } from './document';
import { type KeyAddress, setView, useView } from './view';

const trackAt = (draft: Scene, { growth, step, param }: Omit<KeyAddress, 'frame'>): Track | undefined => {
  const value = baseOf(stepIn(draft, growth, step)?.params[param]);
  return isTrack(value) ? value : undefined;
};

/**
 * Puts keys at other frames; keys they land on are replaced. Where two of one track would meet, nothing is changed.
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
  const tracks = new Map<string, { address: KeyAddress; moves: Map<number, number> }>();
  keys.forEach((address, i) => {
    const name = `${address.growth} ${address.step} ${address.param}`;
    const entry = tracks.get(name) ?? { address, moves: new Map<number, number>() };
    entry.moves.set(address.frame, targets[i].frame);
    tracks.set(name, entry);
  });
  edit(
    keys.length > 1 ? 'Move keys' : 'Move key',
    (draft) => {
      for (const { address, moves } of tracks.values()) {
        const step = stepIn(draft, address.growth, address.step);
        const track = trackAt(draft, address);
        if (step && track)
          step.params[address.param] = withBase(step.params[address.param], withKeysMoved(track, moves));
      }
    },
    merge,
  );
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
    merge,
  );
}

/** Removes keys; a track that loses its last one becomes the constant it showed. */
export function deleteKeys(keys: readonly KeyAddress[]): void {
  edit(keys.length > 1 ? 'Delete keys' : 'Delete key', (draft) => {
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
  setView({ keys: [] });
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
    merge,
  );
}

export function setCycle(address: Omit<KeyAddress, 'frame'>, end: 'before' | 'after', cycle: Cycle): void {
  edit('Change what happens past the keys', (draft) => {
    const track = trackAt(draft, address);
    if (track) track[end] = cycle;
  });
}
