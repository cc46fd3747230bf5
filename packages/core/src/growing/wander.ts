import { noise3 } from '../fields/noise';
import { random } from '../fields/random';
import type { Vec3 } from '../geometry/vec';
import { Neighbours } from '../geometry/search/spatialHash';

const { atan2, ceil, cos, hypot, max, min, sin, sqrt } = Math;

/** How tendrils wander. */
export interface Wandering {
  /** Where each begins, and which way. */
  beginnings: readonly { place: Vec3; way: Vec3 }[];
  /** Length that each comes to, metres, and by which share lengths differ. */
  length: number;
  vary: number;
  /** From point to point, metres. */
  piece: number;
  /** How much the noise that they follow turns them, 0 straight on, and from one turn of it to the next, metres. */
  turning: number;
  size: number;
  /** How much all of them rise, below 0 sink. */
  rise: number;
  /** Places that draw them, and how much; below 0 they are shunned. */
  drawn: readonly Vec3[];
  draw: number;
  /** How far they keep from one another, metres; 0 they do not mind. */
  apart: number;
  /** Brings a place to where they may be: onto a skin, between two heights; null where they may be anywhere. */
  hold: ((place: Vec3) => Vec3) | null;
  seed: number;
}

/** So many tendrils go on between two yields: each asks all that has been laid beside it. */
const CHUNK = 64;

/** Nothing turns faster than this, radians a point. */
const NIMBLE = 0.6;

/**
 * Tendrils that go on a piece at a time, all together: each turns by a noise of its place and its own number, towards what draws it,
 * and away from what others have laid down where it comes near (steering by summed wishes, Reynolds, Steering behaviors for
 * autonomous characters, 1999). None turns sharply.
 * @returns 3k numbers each, metres
 */
export async function wanderPaths(how: Wandering, yieldNow: () => Promise<void>): Promise<number[][]> {
  const { beginnings, piece, hold, seed, apart } = how;
  const n = beginnings.length;
  const places = Float64Array.from(beginnings.flatMap(({ place }) => hold?.(place) ?? place));
  const ways = Float64Array.from(beginnings.flatMap(({ way }) => way));
  const laid: number[][] = Array.from({ length: n }, (_, k) => [...places.subarray(3 * k, 3 * k + 3)]);
  const steps = Array.from({ length: n }, (_, k) =>
    max(1, ceil((how.length * (1 + how.vary * (2 * random(seed, k, 1) - 1))) / piece)),
  );
  const longest = steps.reduce((most, count) => max(most, count), 0);
  const push = new Float64Array(3);
  const goal: [number, number, number] = [0, 0, 0];
  /** All that has been laid, with the number of who laid it. */
  let all = new Float64Array(3 * 1024);
  let owners = new Uint32Array(1024);
  let count = 0;
  const lay = (k: number): void => {
    if (count === owners.length) {
      const [wider, more] = [new Float64Array(6 * count), new Uint32Array(2 * count)];
      wider.set(all);
      more.set(owners);
      [all, owners] = [wider, more];
    }
    all.set(places.subarray(3 * k, 3 * k + 3), 3 * count);
    owners[count++] = k;
  };
  for (let k = 0; k < n; k++) lay(k);
  const neighbours = apart > 0 ? new Neighbours(apart) : null;
  for (let step = 0; step < longest; step++) {
    await yieldNow();
    // What is laid in this step is not yet in the way.
    neighbours?.put(all, count);
    for (let k = 0; k < n; k++) {
      if (k % CHUNK === CHUNK - 1) await yieldNow();
      if (step >= steps[k]) continue;
      const [x, y, z] = [places[3 * k], places[3 * k + 1], places[3 * k + 2]];
      const scale = 1 / how.size;
      noise3(x * scale, y * scale, z * scale, 7.31 * k, { detail: 2, roughness: 0.5, seed, period: 0 }, push);
      for (let c = 0; c < 3; c++) goal[c] = ways[3 * k + c] + how.turning * push[c];
      goal[1] += how.rise;
      if (how.draw !== 0 && how.drawn.length > 0) {
        let [best, least] = [how.drawn[0], Infinity];
        for (const place of how.drawn) {
          const far = hypot(place[0] - x, place[1] - y, place[2] - z);
          if (far < least) [best, least] = [place, far];
        }
        // There it goes on as it came.
        if (least > piece) for (let c = 0; c < 3; c++) goal[c] += (how.draw * (best[c] - places[3 * k + c])) / least;
      }
      neighbours?.near(all, x, y, z, (j, dx, dy, dz, gap) => {
        if (owners[j] === k || gap === 0) return;
        const by = (2 * (apart - gap)) / (apart * gap);
        goal[0] += by * dx;
        goal[1] += by * dy;
        goal[2] += by * dz;
      });
      turned(ways, k, goal);
      const next: Vec3 = [x + piece * ways[3 * k], y + piece * ways[3 * k + 1], z + piece * ways[3 * k + 2]];
      const kept = hold?.(next) ?? next;
      const [dx, dy, dz] = [kept[0] - x, kept[1] - y, kept[2] - z];
      const gone = hypot(dx, dy, dz);
      // Where there is no way on it ends.
      if (gone < 0.05 * piece) {
        steps[k] = step;
        continue;
      }
      ways.set([dx / gone, dy / gone, dz / gone], 3 * k);
      places.set(kept, 3 * k);
      laid[k].push(...kept);
      lay(k);
    }
  }
  return laid;
}

/** Turns a way towards a goal, no faster than is allowed. */
function turned(ways: Float64Array, k: number, goal: readonly number[]): void {
  const length = hypot(goal[0], goal[1], goal[2]);
  if (length < 1e-9) return;
  const [wx, wy, wz] = [ways[3 * k], ways[3 * k + 1], ways[3 * k + 2]];
  const along = (goal[0] * wx + goal[1] * wy + goal[2] * wz) / length;
  const across = [goal[0] / length - along * wx, goal[1] / length - along * wy, goal[2] / length - along * wz];
  const wide = hypot(across[0], across[1], across[2]);
  if (wide < 1e-9) return;
  const angle = min(NIMBLE, atan2(wide, along));
  const [c, s] = [cos(angle), sin(angle) / wide];
  const [x, y, z] = [wx * c + across[0] * s, wy * c + across[1] * s, wz * c + across[2] * s];
  const norm = sqrt(x * x + y * y + z * z);
  ways.set([x / norm, y / norm, z / norm], 3 * k);
}
