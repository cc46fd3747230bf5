import { boxAround, sidesOf } from '../../geometry/box';

/** Vertices by where they are: for what looks at all that is near a place, over and over. */
export class VertexGrid {
  readonly #low: readonly [number, number, number];
  readonly #size: readonly [number, number, number];
  /** First of each cell's vertices in `#order`. */
  readonly #starts: Uint32Array;
  readonly #order: Uint32Array;
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
    const { low, high } = box;
    const widest = Math.max(0, ...sidesOf(box));
    // No more cells than can be held; the form itself is thin, so most of them are empty.
    this.#cell = Math.max(reach, widest / 96, 1e-9);
    this.#low = n === 0 ? [0, 0, 0] : low;
    const cells = (c: number): number => (n === 0 ? 1 : Math.floor((high[c] - low[c]) / this.#cell) + 1);
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
  }

  #along(x: number, c: 0 | 1 | 2): number {
    return Math.min(this.#size[c] - 1, Math.max(0, Math.floor((x - this.#low[c]) / this.#cell)));
  }

  #cellOf(x: number, y: number, z: number): number {
    return (this.#along(z, 2) * this.#size[1] + this.#along(y, 1)) * this.#size[0] + this.#along(x, 0);
  }

  /** Visits all vertices of the cells that a box touches: those inside it, and some beside it. */
  near(low: readonly number[], high: readonly number[], visit: (vertex: number) => void): void {
    const [x0, x1] = [this.#along(low[0], 0), this.#along(high[0], 0)];
    for (let z = this.#along(low[2], 2); z <= this.#along(high[2], 2); z++)
      for (let y = this.#along(low[1], 1); y <= this.#along(high[1], 1); y++) {
        const row = (z * this.#size[1] + y) * this.#size[0];
        for (let k = this.#starts[row + x0]; k < this.#starts[row + x1 + 1]; k++) visit(this.#order[k]);
      }
  }
}
