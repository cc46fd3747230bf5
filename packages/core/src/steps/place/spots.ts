import { NO_POINT } from '../../geometry/paths';
import { type AlongParams } from './along';
import { modulo } from './turnPattern';
import { type StepContext } from '../declare';

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

interface Placing {
  p: AlongParams;
  slots: { at: Float64Array; numbers?: Uint32Array };
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
export function spotsOf(placing: Placing): Spots {
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
  if (motion) inMotion(placing, motion, first, spots, put);
  else {
    const shift = shiftOf(placing);
    for (let k = 0; k < n; k++) {
      const { s, rest } = shift(slots.at[k]);
      const number = slots.numbers ? slots.numbers[k] : k;
      put(s, rest, number, number);
    }
  }
  return spots;
}

/** How places of a train lie now against where they were laid. */
function shiftOf({ p, whole, from, visible, loop }: Placing): (here: number) => { s: number; rest: number } {
  const now = { s: 0, rest: 0 };
  const at = (s: number, rest: number): { s: number; rest: number } => {
    now.s = s;
    now.rest = rest;
    return now;
  };
  switch (p.reveal) {
    case 'feed':
      // The train's head is at the front: all places lie back by what is still to come.
      return (here) => at(here + visible - whole, here);
    case 'pull': {
      const out = (1 - p.fed) * (p.enters === 'both' ? whole / 2 : whole);
      return (here) => {
        const back = p.enters === 'base' || (p.enters === 'both' && here < whole / 2);
        const s = back ? here - out : here + out;
        return at(s - from, s);
      };
    }
    default:
      // Where what is there runs over the seam of a ring, places after it come last.
      return (here) => at(loop && here < from ? here + whole - from : here - from, here);
  }
}

/** An endless train: each on its way from its place to the next, at an even pace. */
function inMotion(
  { slots: { at }, whole, from, loop }: Placing,
  { moved, whole: passed, births }: Endless,
  first: number,
  spots: Spots,
  put: (s: number, rest: number, number: number, dice: number) => void,
): void {
  const n = at.length;
  const period = births === 0 ? n + 1 : loop ? greatestCommon(n, Math.abs(births)) : Math.abs(births);
  spots.ids = loop ? n : period * Math.ceil((n + 2) / period);
  if (n === 0) return;
  // The one before the first comes in from beyond the base.
  const last = n > 1 ? at[n - 1] - at[n - 2] : whole;
  for (let k = first; k < n; k++) {
    const here = k < 0 ? at[0] - (n > 1 ? at[1] - at[0] : whole) : at[k];
    const next = k + 1 < n ? at[k + 1] : loop ? whole + at[0] : here + last;
    const s = here + (next - here) * moved;
    const rest = loop ? modulo(s, whole) : s;
    const number = loop ? modulo(k - passed, n) : k - passed;
    put(loop && rest < from ? rest + whole - from : rest - from, rest, number, modulo(number, period));
  }
}

const greatestCommon = (a: number, b: number): number => (b === 0 ? a : greatestCommon(b, a % b));
export const leastCommon = (a: number, b: number): number => (a * b) / greatestCommon(a, b);
