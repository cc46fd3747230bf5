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
