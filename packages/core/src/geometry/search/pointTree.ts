import { filled } from '../filled';
import type { Vec3 } from '../vec';

/** Points in a leaf. */
const LEAF = 8;

/**
 * A k-d tree over points (Bentley, Multidimensional binary search trees used for associative searching, 1975): each node
 * splits its points at the median of their longest side.
 */
export class PointTree {
  readonly #points: readonly Vec3[];
  /** The points' numbers: every subtree's in one run, its median in the middle. */
  readonly #order: Uint32Array;
  /** Axis of the split at each median. */
  readonly #axes: Uint8Array;

  /** @param points metres */
  constructor(points: readonly Vec3[]) {
    this.#points = points;
    this.#order = filled(Uint32Array, points.length, (i) => i);
    this.#axes = new Uint8Array(points.length);
    this.#build(0, points.length);
  }

  #build(from: number, to: number): void {
    if (to - from <= LEAF) return;
    const low = [Infinity, Infinity, Infinity];
    const high = [-Infinity, -Infinity, -Infinity];
    for (let k = from; k < to; k++)
      for (let c = 0; c < 3; c++) {
        const x = this.#points[this.#order[k]][c];
        if (x < low[c]) low[c] = x;
        if (x > high[c]) high[c] = x;
      }
    const sides = low.map((x, c) => high[c] - x);
    const axis = sides.indexOf(Math.max(...sides));
    // Ties in position go by number, so that the tree is the same on every machine.
    this.#order.subarray(from, to).sort((a, b) => this.#points[a][axis] - this.#points[b][axis] || a - b);
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
    const [x, y, z] = this.#points[of];
    const found: number[] = [];
    const away: number[] = [];
    let bound = longest;
    const look = (k: number): void => {
      if (k === of) return;
      const p = this.#points[k];
      const [dx, dy, dz] = [p[0] - x, p[1] - y, p[2] - z];
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
    const visit = (from: number, to: number): void => {
      if (to - from <= LEAF) {
        for (let k = from; k < to; k++) look(this.#order[k]);
        return;
      }
      const middle = (from + to) >> 1;
      const median = this.#order[middle];
      const axis = this.#axes[middle];
      const side = (axis === 0 ? x : axis === 1 ? y : z) - this.#points[median][axis];
      if (side <= 0) visit(from, middle);
      else visit(middle + 1, to);
      look(median);
      if (Math.abs(side) > bound) return;
      if (side <= 0) visit(middle + 1, to);
      else visit(from, middle);
    };
    if (count > 0) visit(0, this.#order.length);
    return found;
  }
}
