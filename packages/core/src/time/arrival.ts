import { mapped } from '../geometry/filled';
/**
 * When a growing front gets to places, be they points of paths or of a surface. A place has an arrival, a share 0..1 of the
 * growing; a front has come so far at a frame, and has passed what arrives before. Ages, glow, settling, offsets in time
 * and falloffs by the front all come from here.
 */
export interface Front {
  /** Arrival of each place. */
  arrival: (place: number) => number;
  /** First place of each lane, and one past the last: a lane is what one front runs through, as a path is. */
  lanes: ArrayLike<number>;
  /** How far the front of a lane had come so many frames ago, 0..1. */
  reached: (lane: number, framesAgo: number) => number;
}

/** Single precision, in which arrivals are kept. */
const HAIR = 1e-6;

/** Whether a front that has come so far has got to a place: to one at the very end too, and to none before it sets out. */
const passes = (reached: number, place: number): boolean => reached > 0 && reached >= place - HAIR;

/**
 * Seconds since the front passed each place.
 * @param count of places
 * @param most frames to look back; what was there before counts as that old
 * @param fps frames a second
 */
export function agesBehind(front: Front, count: number, most: number, fps: number): Float32Array {
  const { arrival, lanes, reached } = front;
  const age = new Float32Array(count);
  for (let lane = 0; lane + 1 < lanes.length; lane++) {
    const [a, b] = [lanes[lane], lanes[lane + 1]];
    const order = Array.from({ length: b - a }, (_, i) => a + i).sort((i, j) => arrival(j) - arrival(i));
    // From the front backwards, what lies further back was passed earlier: one walk serves all places.
    let ago = 0;
    let [here, before] = [1, reached(lane, 0)];
    for (const i of order) {
      const place = arrival(i);
      while (ago < most && passes(before, place)) {
        here = before;
        before = reached(lane, ++ago);
      }
      const exact =
        ago === 0 ? 0 : passes(before, place) ? ago : ago - 1 + (here > before ? (here - place) / (here - before) : 0);
      age[i] = Math.min(most, Math.max(0, exact)) / fps;
    }
  }
  return age;
}

/**
 * Where on a run of places the front stands, as a share of their length: what the front of a branching growth leaves of
 * one of its paths.
 * @param arrivals of the places, rising
 * @param lengths along them, from 0
 * @param at how far the front has come
 */
export function lengthBefore(arrivals: ArrayLike<number>, lengths: ArrayLike<number>, at: number): number {
  const n = arrivals.length;
  const total = n > 0 ? lengths[n - 1] : 0;
  if (n === 0 || at <= arrivals[0]) return 0;
  if (at >= arrivals[n - 1]) return 1;
  let k = 0;
  while (k + 2 < n && arrivals[k + 1] <= at) k++;
  const run = arrivals[k + 1] - arrivals[k];
  const t = run > 0 ? (at - arrivals[k]) / run : 1;
  return total > 0 ? (lengths[k] + (lengths[k + 1] - lengths[k]) * t) / total : 0;
}

/**
 * Seconds since a front that has come so far got to each place; below 0 where it has yet to come, by how long it will take,
 * so that what lies between two places is passed when it should be. What it never gets to within the frames looked at counts
 * as that far ahead at its mean pace.
 * @param distances from where the front sets out
 * @param reached how far the front had come so many frames ago; it is asked for frames to come by numbers below 0
 * @param back,ahead whole frames to look at
 */
export function agesOfReach(
  distances: ArrayLike<number>,
  reached: (framesAgo: number) => number,
  [back, ahead]: readonly [number, number],
  fps: number,
): Float32Array {
  const reach = (ago: number): number => Math.max(0, reached(ago));
  const past = Array.from({ length: back + 1 }, (_, ago) => reach(ago));
  const future = Array.from({ length: ahead + 1 }, (_, j) => reach(-j));
  // How far it had come at least since then, and will have come at most till then.
  const since = running(past, Math.min);
  const till = running(future, Math.max);
  const pace = Math.max(1e-9, (till[ahead] - since[back]) / Math.max(1, back + ahead));
  return mapped(Float32Array, distances, (place) => {
    if (passes(past[0], place)) {
      const k = firstWhere(since, (least) => !passes(least, place));
      if (k > back) return back / fps;
      const [here, before] = [past[k - 1], past[k]];
      return (k - 1 + (here > before ? Math.min(1, Math.max(0, (here - place) / (here - before))) : 0)) / fps;
    }
    const j = firstWhere(till, (most) => passes(most, place));
    if (j > ahead) return -(ahead + Math.min(1e6, (place - till[ahead]) / pace)) / fps;
    const [here, before] = [future[j], future[j - 1]];
    return -(j - (here > before ? Math.min(1, Math.max(0, (here - place) / (here - before))) : 0)) / fps;
  });
}

function running(values: readonly number[], of: (a: number, b: number) => number): number[] {
  const out: number[] = [];
  for (const value of values) out.push(out.length > 0 ? of(out[out.length - 1], value) : value);
  return out;
}

/** The first number for which something holds that goes on holding once it does; the length where it never does. */
function firstWhere(values: readonly number[], holds: (value: number) => boolean): number {
  let [low, high] = [0, values.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (holds(values[middle])) high = middle;
    else low = middle + 1;
  }
  return low;
}
