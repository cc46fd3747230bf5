import { type Ease, easeAt } from './easing';

/** A value at a frame, and how it runs on to the next key. */
export interface Key {
  /** Frame, whole or fractional. */
  frame: number;
  /** In the parameter's own unit. */
  value: number;
  ease: Ease;
}

/**
 * What a track does before its first and after its last key: hold the end value; repeat; repeat forwards and backwards;
 * repeat with each round beginning where the last one ended. A round takes in its first frame and not its last: that is the
 * first of the next one, so that every round is like every other.
 */
export type Cycle = 'hold' | 'repeat' | 'ping-pong' | 'repeat-offset';

export const CYCLES: readonly Cycle[] = ['hold', 'repeat', 'ping-pong', 'repeat-offset'];

/** An animated value: keys with rising frames, one or more. */
export interface Track {
  keys: Key[];
  before: Cycle;
  after: Cycle;
}

/**
 * The value of a track at any frame, fractional ones too. Exact on keys: a key's frame gives the key's value, not a
 * rounded neighbour, and so does each time that it comes round. Repeating tracks cost the same at any distance from their keys.
 *
 * @example
 * const rises = { keys: [{ frame: 0, value: 0, ease: 'linear' }, { frame: 24, value: 2, ease: 'linear' }], before: 'hold', after: 'repeat' };
 * valueAt(rises, 12); // → 1
 * valueAt(rises, 30); // → 0.5
 */
export function valueAt(track: Track, frame: number): number {
  const { keys } = track;
  const first = keys[0];
  const last = keys[keys.length - 1];
  const length = last.frame - first.frame;
  const cycle = frame < first.frame ? track.before : frame >= last.frame ? track.after : null;
  if (cycle === null) return within(keys, frame);
  if (cycle === 'hold' || length === 0) return frame < first.frame ? first.value : last.value;

  const passed = (frame - first.frame) / length;
  // Lengths such as 0.7 are not what they seem: a hair from a whole number of rounds is a whole number.
  const whole = Math.round(passed);
  const even = Math.abs(passed - whole) < 1e-9 * Math.max(1, Math.abs(passed));
  const rounds = even ? whole : Math.floor(passed);
  const phase = even ? 0 : frame - first.frame - rounds * length;
  if (cycle === 'ping-pong') {
    return within(keys, rounds % 2 === 0 ? first.frame + phase : last.frame - phase);
  }
  const value = within(keys, first.frame + phase);
  return cycle === 'repeat-offset' ? value + rounds * (last.value - first.value) : value;
}

function within(keys: readonly Key[], frame: number): number {
  let low = 0;
  let high = keys.length - 1;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (keys[middle].frame <= frame) low = middle;
    else high = middle;
  }
  const a = keys[low];
  const b = keys[high];
  if (frame >= b.frame) return b.value;
  if (frame <= a.frame) return a.value;
  const t = easeAt(a.ease, (frame - a.frame) / (b.frame - a.frame));
  return a.value + (b.value - a.value) * t;
}

/** The track with a key set at `frame`: an existing key there takes the value, else one is put in with the ease of the segment it splits. */
export function withKey(track: Track, frame: number, value: number): Track {
  const existing = track.keys.findIndex((key) => key.frame === frame);
  if (existing >= 0) {
    return { ...track, keys: track.keys.map((key, i) => (i === existing ? { ...key, value } : key)) };
  }
  const before = track.keys.filter((key) => key.frame < frame);
  const after = track.keys.filter((key) => key.frame > frame);
  const ease = before.at(-1)?.ease ?? after[0]?.ease ?? 'ease-in-out';
  return { ...track, keys: [...before, { frame, value, ease }, ...after] };
}

/**
 * The track with some of its keys at other frames; a key that stands where one lands is replaced.
 * @param moves from the frames at which they are to those they go to
 */
export function withKeysMoved(track: Track, moves: ReadonlyMap<number, number>): Track {
  const moved = track.keys.filter(({ frame }) => moves.has(frame));
  const landed = new Set(moved.map(({ frame }) => moves.get(frame)!));
  const others = track.keys.filter(({ frame }) => !moves.has(frame) && !landed.has(frame));
  const keys = [...others, ...moved.map((key) => ({ ...key, frame: moves.get(key.frame)! }))];
  return { ...track, keys: keys.sort((a, b) => a.frame - b.frame) };
}

/** The track with keys of another put in, later by so many frames; those that stand where they land are replaced. */
export function withKeysPut(track: Track, keys: readonly Key[], later: number): Track {
  const put = keys.map((key) => ({ ...key, frame: key.frame + later }));
  const landed = new Set(put.map(({ frame }) => frame));
  const others = track.keys.filter(({ frame }) => !landed.has(frame));
  return { ...track, keys: [...others, ...put].sort((a, b) => a.frame - b.frame) };
}
