import { boxAround, sidesOf } from '../box';

/** Cells that a grid may have. */
const MOST_CELLS = 1_000_000;

/** Points that stay where they are by the cells of a grid over their box, in flat arrays: to look around in over and over. */
export class CellGrid {
  readonly #low: readonly [number, number, number];
  readonly #size: readonly [number, number, number];
  /** First of each cell's points in `#order`. */
  readonly #starts: Uint32Array;
  readonly #order: Uint32Array;
  /** Past the last of each cell's points that have not been forgotten. */
  readonly #ends: Uint32Array;
  readonly #cell: number;

  /**
   * @param positions 3n, metres
   * @param reach about how far will be looked from a place, metres
   */
  constructor(
    readonly positions: ArrayLike<number>,
    reach: number,
  ) {
    const n = positions.length / 3;
    const box = boxAround(positions);
    const { low } = box;
    this.#low = n === 0 ? [0, 0, 0] : low;
    const sides = n === 0 ? [0, 0, 0] : sidesOf(box);
    let cell = Math.max(reach, 1e-9);
    const cells = (c: 0 | 1 | 2): number => Math.floor(sides[c] / cell) + 1;
    while (cells(0) * cells(1) * cells(2) > MOST_CELLS) cell *= 1.25;
    this.#cell = cell;
    this.#size = [cells(0), cells(1), cells(2)];
    const count = this.#size[0] * this.#size[1] * this.#size[2];
    this.#starts = new Uint32Array(count + 1);
    const of = new Uint32Array(n);
    for (let i = 0; i < n; i++) {
      const at = this.#cellOf(positions[3 * i], positions[3 * i + 1], positions[3 * i + 2]);
      of[i] = at;
      this.#starts[at + 1]++;
    }
    for (let k = 0; k < count; k++) this.#starts[k + 1] += this.#starts[k];
    this.#order = new Uint32Array(n);
    const next = this.#starts.slice(0, count);
    for (let i = 0; i < n; i++) this.#order[next[of[i]]++] = i;
    this.#ends = this.#starts.slice(1);
  }

  #along(x: number, c: 0 | 1 | 2): number {
    return Math.min(this.#size[c] - 1, Math.max(0, Math.floor((x - this.#low[c]) / this.#cell)));
  }

  #cellOf(x: number, y: number, z: number): number {
    return (this.#along(z, 2) * this.#size[1] + this.#along(y, 1)) * this.#size[0] + this.#along(x, 0);
  }

  /**
   * Visits all points of the cells that a box touches: those inside it, and some beside it.
   * @param there by point; those with 0 are forgotten for good
   */
  near(low: readonly number[], high: readonly number[], visit: (point: number) => void, there?: Uint8Array): void {
    const [x0, x1] = [this.#along(low[0], 0), this.#along(high[0], 0)];
    const [order, ends] = [this.#order, this.#ends];
    for (let z = this.#along(low[2], 2); z <= this.#along(high[2], 2); z++)
      for (let y = this.#along(low[1], 1); y <= this.#along(high[1], 1); y++) {
        const row = (z * this.#size[1] + y) * this.#size[0];
        for (let cell = row + x0; cell <= row + x1; cell++)
          for (let k = this.#starts[cell]; k < ends[cell]; k++) {
            const point = order[k];
            if (!there || there[point]) visit(point);
            else order[k--] = order[--ends[cell]];
          }
      }
  }
}
