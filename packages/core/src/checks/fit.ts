import type { Copies } from '../geometry/form';
import { boxesMeet, clearanceOf, meshesCut, orientedBox, type OrientedBox, poseOf } from '../geometry/search/meshPairs';
import { at, sub, unit, type Vec3 } from '../geometry/vec';

/** Two copies beside each other on a path. */
export interface FitPair {
  /** Their places among the copies. */
  a: number;
  b: number;
  /** The gap between them, or below 0 how far they reach into each other, metres. */
  gap: number;
  /** Between them, metres. */
  place: Vec3;
}

/** Lets other work in, and throws when the check is no longer wanted. */
export type ShareYield = (share: number) => void | Promise<void>;

const between = (copies: Copies, a: number, b: number): Vec3 => {
  const [p, q] = [at(copies.positions, a), at(copies.positions, b)];
  return [(p[0] + q[0]) / 2, (p[1] + q[1]) / 2, (p[2] + q[2]) / 2];
};

/** How neighbours along each path go together, in the order of the paths. Copies that are in no row have none. */
export async function fitOf(copies: Copies, yieldNow: ShareYield = () => {}): Promise<FitPair[]> {
  const { rows } = copies;
  const pairs: FitPair[] = [];
  const n = copies.ids.length;
  const measure = (a: number, b: number): void => {
    const along = unit(sub(at(copies.positions, b), at(copies.positions, a)), [1, 0, 0]);
    const gap = clearanceOf(poseOf(copies, a), poseOf(copies, b), along);
    pairs.push({ a, b, gap, place: between(copies, a, b) });
  };
  let first = 0;
  for (let k = 0; k < n; k++) {
    await yieldNow(k / n);
    if (rows[k] === 0) continue;
    if (k === 0 || rows[k - 1] !== rows[k]) first = k;
    else measure(k - 1, k);
    // The last of a closed path stands beside the first.
    if (rows[k] % 2 === 0 && k > first + 1 && rows[k + 1] !== rows[k]) measure(k, first);
  }
  return pairs;
}

/** Two copies that cut into each other. */
export interface Clash {
  a: number;
  b: number;
  place: Vec3;
}

/**
 * All pairs of copies whose surfaces cut each other: candidates by sorting along an axis, then by oriented boxes, then
 * mesh against mesh.
 * @param most pairs after which it stops looking
 */
export async function clashesOf(
  copies: Copies,
  yieldNow: ShareYield = () => {},
  most = 10_000,
): Promise<{ pairs: Clash[]; complete: boolean }> {
  const n = copies.ids.length;
  const boxes: OrientedBox[] = Array.from({ length: n }, (_, k) => orientedBox(poseOf(copies, k)));
  const reach = boxes.map(({ axes, half }) =>
    [0, 1, 2].map((c) => axes.reduce((sum, axis, k) => sum + Math.abs(axis[c]) * half[k], 0)),
  );
  const low = boxes.map(({ middle }, k) => middle[0] - reach[k][0]);
  const order = Array.from({ length: n }, (_, k) => k).sort((i, j) => low[i] - low[j]);
  const pairs: Clash[] = [];
  let open: number[] = [];
  for (let step = 0; step < n; step++) {
    await yieldNow(step / n);
    const k = order[step];
    open = open.filter((i) => boxes[i].middle[0] + reach[i][0] >= low[k]);
    for (const i of open) {
      const far = [1, 2].some((c) => Math.abs(boxes[i].middle[c] - boxes[k].middle[c]) > reach[i][c] + reach[k][c]);
      if (far || !boxesMeet(boxes[i], boxes[k]) || !meshesCut(poseOf(copies, i), poseOf(copies, k))) continue;
      pairs.push({ a: Math.min(i, k), b: Math.max(i, k), place: between(copies, i, k) });
      if (pairs.length >= most) return { pairs, complete: false };
    }
    open.push(k);
  }
  return { pairs, complete: true };
}
