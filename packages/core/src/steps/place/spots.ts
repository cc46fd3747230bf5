import type { Slots } from '../../curves/slots';
import { NO_POINT } from '../../geometry/paths';
import type { AlongParams } from './along';
import type { Hanging } from './hanging';
import { modulo } from './turnPattern';
import type { StepContext } from '../declare';

/** Where places are now that were laid out along a path: those that are on what is there of it. */
export interface Spots {
  count: number;
  /** Arc length on what is there of the path, and on the whole path, metres. */
  s: Float64Array;
  rest: Float64Array;
  /** Number in the row, which its turn, its item and its id hang on. */
  number: Int32Array;
  /** What its chance hangs on. */
  dice: Int32Array;
  /** Ids begin again after so many. */
  ids: number;
}

export interface Placing {
  p: AlongParams;
  slots: Slots & { numbers?: Uint32Array; hanging?: Hanging };
  /** Length of the whole path, where on it what is there begins, and how long that is, metres. */
  whole: number;
  from: number;
  visible: number;
  /** Whether the whole path is closed, however much of it is there. */
  loop: boolean;
  motion: Endless | null;
}

export interface Endless {
  /** Births over the range, a whole number of patterns. */
  births: number;
  /** Births that have been, and how much of the next one. */
  whole: number;
  moved: number;
  /** Share of the range. */
  done: number;
}

/** How far an endless train has come. */
export function endlessMotion(births: number, pattern: number, { frame, range: [first, last] }: StepContext): Endless {
  const patterns = births === 0 ? 0 : Math.sign(births) * Math.max(1, Math.round(Math.abs(births) / pattern));
  const done = (frame - first) / (last - first + 1);
  const passed = patterns * pattern * done;
  const settled = Math.floor(passed + 1e-9);
  return { births: patterns * pattern, whole: settled, moved: Math.max(0, passed - settled), done };
}

/** Where each place is now, without those that are not there. */
export async function spotsOf(placing: Placing): Promise<Spots> {
  const { slots, visible, loop, motion } = placing;
  const n = slots.at.length;
  // Endless trains have one more at work: the one that comes in while another goes.
  const first = motion && !loop ? -1 : 0;
  const spots: Spots = {
    count: 0,
    s: new Float64Array(n - first),
    rest: new Float64Array(n - first),
    number: new Int32Array(n - first),
    dice: new Int32Array(n - first),
    // Numbers that were given stay as they are.
    ids: slots.numbers ? NO_POINT : n,
  };
  const put = (s: number, rest: number, number: number, dice: number): void => {
    if (s < 0 || s > visible) return;
    const at = spots.count++;
    spots.s[at] = s;
    spots.rest[at] = rest;
    spots.number[at] = number;
    spots.dice[at] = dice;
  };
  if (n === 0) return spots;
  if (motion) await inMotion(placing, motion, first, spots, put);
  else {
    const now = await movedAlong(placing);
    for (let k = 0; k < n; k++) {
      const number = slots.numbers ? slots.numbers[k] : k;
      const s = now ? now[k] : slots.at[k];
      const rest = placing.p.reveal === 'pull' ? s : slots.at[k];
      // Where what is there runs over the seam of a ring, places after it come last.
      put(
        now || !loop || s >= placing.from ? s - placing.from : s + placing.whole - placing.from,
        rest,
        number,
        number,
      );
    }
  }
  return spots;
}

/** Where the places of a train lie on the whole path that is fed or pulled along it; null where each lies where it was laid. */
async function movedAlong({ p, slots, whole, from, visible, loop }: Placing): Promise<Float64Array | null> {
  const { at } = slots;
  const n = at.length;
  switch (p.reveal) {
    case 'feed': {
      // With nothing to come and nothing gone they are home.
      if (visible >= whole * (1 - 1e-6)) return null;
      // The train's head is at the front: all places lie back by what is still to come. Where its base is eaten it is fed out
      // of the far end: its tail stays there. On a ring, what is there goes over the seam.
      const shift = from + visible - whole + (loop ? 0 : from);
      return drawn(slots, 0, n, shift > 0 ? 0 : n - 1, shift);
    }
    case 'pull': {
      const out = (1 - p.fed) * (p.enters === 'both' ? whole / 2 : whole);
      const half = at.findIndex((here) => here >= whole / 2);
      const split = p.enters === 'base' ? n : p.enters === 'end' ? 0 : half < 0 ? n : half;
      const [back, on] = [await drawn(slots, 0, split, split - 1, -out), await drawn(slots, split, n, split, out)];
      const all = new Float64Array(n);
      all.set(back);
      all.set(on, split);
      return all;
    }
    default:
      return null;
  }
}

/**
 * Places `first` up to `end` drawn along the path by one of them, which is the first or the last: rigidly, or link by link
 * where they hang in each other.
 */
async function drawn(
  slots: Placing['slots'],
  first: number,
  end: number,
  by: number,
  shift: number,
): Promise<Float64Array> {
  const { at, hanging } = slots;
  if (end <= first) return new Float64Array(0);
  if (!hanging) return at.slice(first, end).map((s) => s + shift);
  const way = by === first ? 1 : -1;
  const laid = await hanging.from(by, at[by] + shift, end - first, way);
  return way > 0 ? laid : laid.reverse();
}

/** An endless train: each on its way from its place to the next, at an even pace. */
async function inMotion(
  { slots, whole, from, loop }: Placing,
  { moved, whole: passed, births }: Endless,
  first: number,
  spots: Spots,
  put: (s: number, rest: number, number: number, dice: number) => void,
): Promise<void> {
  const { at, hanging } = slots;
  const n = at.length;
  const period = births === 0 ? n + 1 : loop ? greatestCommon(n, Math.abs(births)) : Math.abs(births);
  spots.ids = loop ? n : period * Math.ceil((n + 2) / period);
  // The one before the first comes in from beyond the base.
  const last = n > 1 ? at[n - 1] - at[n - 2] : whole;
  const place = (k: number): number =>
    k < 0 ? at[0] - (n > 1 ? at[1] - at[0] : whole) : k < n ? at[k] : loop ? whole + at[0] : at[n - 1] + last;
  const hung = hanging && n >= hanging.period ? await endlessLinks() : null;
  for (let k = first; k < n; k++) {
    const s = hung ? hung[k - first] : place(k) + (place(k + 1) - place(k)) * moved;
    const rest = loop ? modulo(s, whole) : s;
    const number = loop ? modulo(k - passed, n) : k - passed;
    put(loop && rest < from ? rest + whole - from : rest - from, rest, number, modulo(number, period));
  }

  /**
   * One of the first links goes evenly to where the one lies that has the same turn, and there the next takes over: it is
   * then just as far. The others hang in it.
   */
  async function endlessLinks(): Promise<Float64Array> {
    const leader = modulo(passed, hanging!.period);
    const s = at[0] + ((place(hanging!.period) - at[0]) * (leader + moved)) / hanging!.period;
    const all = new Float64Array(n - first);
    if (loop) {
      const ring = await hanging!.round(leader - passed, s);
      for (let i = 0; i < n; i++) all[(leader + i) % n] = ring[i];
      return all;
    }
    all.set(await hanging!.from(leader - passed, s, n - leader, 1), leader - first);
    const before = await hanging!.from(leader - passed, s, leader - first + 1, -1);
    all.set(before.reverse(), 0);
    return all;
  }
}

const greatestCommon = (a: number, b: number): number => (b === 0 ? a : greatestCommon(b, a % b));
export const leastCommon = (a: number, b: number): number => (a * b) / greatestCommon(a, b);
