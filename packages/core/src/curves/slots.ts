import { distance, dot, sub, unit, type Vec3 } from '../geometry/vec';

/** How places are laid out along a path. */
export interface SlotRule {
  /** Length that each place takes, metres; or how many there are. */
  pitch: number;
  count: number | null;
  /** Lengths left free at both ends of an open path, metres. */
  start: number;
  end: number;
  /** What becomes of a remainder: left free, spread over all, or taken up by growing or shrinking what is placed. */
  rest: 'leave' | 'spread' | 'fit';
  /** A closed path takes a whole number of this many. */
  pattern: number;
  /** Whether they hang in each other: nearer, they hang loose, and further apart than their pitch they would cut. */
  hung?: boolean;
  /** Factor on the pitch of the k-th place, at a share of the path; all the same where it is left out. */
  each?: (k: number, share: number) => number;
}

/** Places along a path. */
export interface Slots {
  /** Arc lengths of their middles on the whole path, metres, rising. */
  at: Float64Array;
  /** Factor on the size of what is placed, 1 unless it is fitted. */
  size: number;
}

const NONE: Slots = { at: new Float64Array(0), size: 1 };

/**
 * Lays places out along a path of a length. Each takes its pitch and stands in the middle of it, so that neighbours
 * touch where the pitch is their own length.
 */
export function slotsAlong(length: number, closed: boolean, rule: SlotRule): Slots {
  const { pitch, start, end, rest, pattern } = rule;
  const room = closed ? length : length - start - end;
  if (!(room > 0) || !(pitch > 0)) return NONE;
  if (rule.each) return unevenSlots(room, length, closed, rule, rule.each);
  // A hair of tolerance, so that a length that means whole places is not cut short by rounding.
  const loose = rule.hung === true && rest !== 'fit' && (closed || rest === 'spread');
  const fitting = loose
    ? Math.ceil(room / pitch - 1e-6)
    : closed
      ? Math.round(room / pitch)
      : Math.floor(room / pitch + 1e-6);
  let n = rule.count ?? fitting;
  if (closed && pattern > 1) n = Math.max(1, loose ? Math.ceil(n / pattern) : Math.round(n / pattern)) * pattern;
  if (n < 1) return NONE;
  const spread = closed || rule.count !== null || rest !== 'leave';
  const apart = spread ? room / n : pitch;
  const from = closed ? 0 : start;
  const at = new Float64Array(n);
  for (let k = 0; k < n; k++) at[k] = from + (k + (closed ? 0 : 0.5)) * apart;
  return {
    at,
    size: rest === 'fit' && rule.count === null ? apart / pitch : 1,
  };
}

/** The least share of its pitch that a place takes: what has no size at all would find room for ever. */
const LEAST = 0.02;

function unevenSlots(
  room: number,
  length: number,
  closed: boolean,
  { pitch, count, start, rest, pattern }: SlotRule,
  each: (k: number, share: number) => number,
): Slots {
  const from = closed ? 0 : start;
  const taken: number[] = [];
  const measure = (k: number, s: number): number => {
    // How much it takes depends on where its middle comes to lie, which depends on that again: twice is close enough.
    const first = pitch * Math.max(LEAST, each(k, (from + s + pitch / 2) / length));
    return pitch * Math.max(LEAST, each(k, (from + s + first / 2) / length));
  };
  let sum = 0;
  const wanted = (): boolean => (count !== null ? taken.length < count : sum < room * (1 + 1e-6));
  while (wanted()) {
    const next = measure(taken.length, sum);
    if (count === null && sum + next > room * (1 + 1e-6) && !(closed && room - sum > next / 2)) break;
    taken.push(next);
    sum += next;
  }
  if (closed && pattern > 1) {
    const n = Math.max(1, Math.round(taken.length / pattern)) * pattern;
    for (let k = taken.length; k < n; k++) taken.push(measure(k, sum - 1e-9));
    taken.length = n;
    sum = taken.reduce((total, part) => total + part, 0);
  }
  if (taken.length === 0) return NONE;
  const size = rest === 'fit' && count === null ? room / sum : 1;
  const spread = closed || count !== null || rest === 'spread';
  const gap = size === 1 && spread ? (room - sum) / taken.length : 0;
  const at = new Float64Array(taken.length);
  let s = from;
  taken.forEach((part, k) => {
    at[k] = s + (closed ? 0 : (part * size + gap) / 2);
    // On a closed path the first one's middle is at the seam, so that what comes after is half of both further on.
    s += closed ? ((part + taken[(k + 1) % taken.length]) * size) / 2 + gap : part * size + gap;
  });
  return { at, size };
}

/** How links hang in each other, metres. */
export interface Hang {
  /** Thickness by which each reaches into the next, and how wide each is. */
  wire: number;
  wide: number;
  /** What the opening leaves beside the wire of the next link. */
  room: number;
}

/** A place on a path with its direction there. */
export interface Directed {
  position: Vec3;
  tangent: Vec3;
}

/**
 * Slots moved on along a bending path so that rigid pieces that touch when the path is straight touch round its bends too:
 * each is as far from the one before in a straight line as it was laid along the path. Pieces that hang in each other lie
 * along the path's direction at their middle, so that their ends stand off the straight line between them, and come nearer.
 * @param at arc lengths as they were laid
 * @param on the path at an arc length
 * @param length of the path: what would lie beyond is left out
 * @param hang how pieces reach into their neighbours; none where they stand end to end
 */
export function chordSlots(
  at: Float64Array,
  on: (s: number) => Directed,
  length: number,
  { wire, room }: Pick<Hang, 'wire' | 'room'> = { wire: 0, room: Infinity },
): Float64Array {
  const moved: number[] = [];
  for (let k = 0; k < at.length; k++) {
    if (k === 0) {
      moved.push(at[0]);
      continue;
    }
    const laid = at[k] - at[k - 1];
    const before = on(moved[k - 1]);
    let s = moved[k - 1] + laid;
    for (let round = 0; round < 24 && s <= length; round++) {
      const here = on(s);
      const apart = distance(before.position, here.position);
      const way = unit(sub(here.position, before.position));
      const along = wire > 0 ? (dot(before.tangent, way) + dot(here.tangent, way)) / 2 : 1;
      // At an angle a wire lies beside the middle of the bow it hangs in, which is nearer by the square of how far beside.
      const nearer = wire > 0 ? ((2 * wire * wire) / room) * (1 - along) : 0;
      const missing = (laid + wire) * along - wire - nearer - apart;
      s += missing;
      if (Math.abs(missing) < 1e-9) break;
    }
    if (s > length) break;
    moved.push(s);
  }
  return Float64Array.from(moved);
}
