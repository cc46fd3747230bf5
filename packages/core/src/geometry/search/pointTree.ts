import { filled } from '../filled';

/** Points in a leaf. */
const LEAF = 8;

/**
 * A k-d tree over points (Bentley, Multidimensional binary search trees used for associative searching, 1975): each node
 * splits its points at the median of their longest side.
 */
export class PointTree {
  readonly #points: ArrayLike<number>;
  /** The points' numbers: every subtree's in one run, its median in the middle. */
  readonly #order: Uint32Array;
  /** Axis of the split at each median. */
  readonly #axes: Uint8Array;

  /** @param points xyz triples, metres */
  constructor(points: ArrayLike<number>) {
    const count = points.length / 3;
    this.#points = points;
    this.#order = filled(Uint32Array, count, (i) => i);
    this.#axes = new Uint8Array(count);
    this.#build(0, count);
  }

  #build(from: number, to: number): void {
    if (to - from <= LEAF) return;
    const low = [Infinity, Infinity, Infinity];
    const high = [-Infinity, -Infinity, -Infinity];
    for (let k = from; k < to; k++)
      for (let c = 0; c < 3; c++) {
        const x = this.#points[3 * this.#order[k] + c];
        if (x < low[c]) low[c] = x;
        if (x > high[c]) high[c] = x;
      }
    const sides = low.map((x, c) => high[c] - x);
    const axis = sides.indexOf(Math.max(...sides));
    // Ties in position go by number, so that the tree is the same on every machine.
    this.#order.subarray(from, to).sort((a, b) => this.#points[3 * a + axis] - this.#points[3 * b + axis] || a - b);
    const middle = (from + to) >> 1;
    this.#axes[middle] = axis;
    this.#build(from, middle);
    this.#build(middle + 1, to);
  }

  /**
   * The points nearest to one of them, itself left out.
   * @param longest metres; what lies further off is not found
   * @returns their numbers, the nearest first, and the lower number first where they are equally far
   */
  nearest(of: number, count: number, longest = Infinity): number[] {
    const p = this.#points;
    const [x, y, z] = [p[3 * of], p[3 * of + 1], p[3 * of + 2]];
    const found: number[] = [];
    const away: number[] = [];
    let bound = longest;
    const look = (k: number): void => {
      if (k === of) return;
      const [dx, dy, dz] = [p[3 * k] - x, p[3 * k + 1] - y, p[3 * k + 2] - z];
      const d = Math.sqrt(dx * dx + dy * dy + dz * dz);
      if (d > bound) return;
      let at = found.length;
      while (at > 0 && (away[at - 1] > d || (away[at - 1] === d && found[at - 1] > k))) at--;
      if (at >= count) return;
      found.splice(at, 0, k);
      away.splice(at, 0, d);
      if (found.length > count) {
        found.pop();
        away.pop();
      }
      if (found.length === count) bound = Math.min(longest, away[count - 1]);
    };
    if (count > 0) this.#visit(x, y, z, () => bound, look);
    return found;
  }

  /**
   * How far the nearest point is from a place, metres; Infinity where there are none.
   * @param enough what is nearer than this need not be told exactly: any distance below it is returned then
   */
  distanceTo(x: number, y: number, z: number, enough = 0): number {
    const p = this.#points;
    let best = Infinity;
    const look = (k: number): void => {
      const [dx, dy, dz] = [p[3 * k] - x, p[3 * k + 1] - y, p[3 * k + 2] - z];
      best = Math.min(best, dx * dx + dy * dy + dz * dz);
    };
    const least = enough * enough;
    // Nothing is looked for any more once it is near enough.
    this.#visit(x, y, z, () => (best <= least ? -1 : Math.sqrt(best)), look);
    return Math.sqrt(best);
  }

  /** The point nearest to a place, the lower number where two are equally far; −1 where there are none. */
  nearestTo(x: number, y: number, z: number): number {
    const p = this.#points;
    let [found, best] = [-1, Infinity];
    const look = (k: number): void => {
      const [dx, dy, dz] = [p[3 * k] - x, p[3 * k + 1] - y, p[3 * k + 2] - z];
      const d = dx * dx + dy * dy + dz * dz;
      if (d < best || (d === best && k < found)) [found, best] = [k, d];
    };
    this.#visit(x, y, z, () => Math.sqrt(best), look);
    return found;
  }

  /**
   * Looks at the points round a place, the nearer side of each split first.
   * @param bound how far the other side may be off to be looked at, metres; below 0 nothing more is
   */
  #visit(x: number, y: number, z: number, bound: () => number, look: (point: number) => void): void {
    const visit = (from: number, to: number): void => {
      if (to - from <= LEAF) {
        for (let k = from; k < to; k++) look(this.#order[k]);
        return;
      }
      const middle = (from + to) >> 1;
      const median = this.#order[middle];
      const axis = this.#axes[middle];
      const side = (axis === 0 ? x : axis === 1 ? y : z) - this.#points[3 * median + axis];
      if (side <= 0) visit(from, middle);
      else visit(middle + 1, to);
      look(median);
      if (Math.abs(side) > bound()) return;
      if (side <= 0) visit(middle + 1, to);
      else visit(from, middle);
    };
    visit(0, this.#order.length);
  }
}
