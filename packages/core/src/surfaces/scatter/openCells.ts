const { ceil, floor, max, min, sqrt } = Math;

/** Cells along each side: a row is the bits of one number. */
export const SIDE = 32;

/** A square block of cells in the plane of a face: which of them no disc covers yet. Rows lie along the face's first edge. */
export class OpenCells {
  readonly #rows = new Int32Array(SIDE);
  #left = 0;
  #low = 0;
  #size = 1;
  /** Numbers of the cells that were open when they were listed last: column + SIDE · row. */
  readonly listed = new Uint16Array(SIDE * SIDE);

  /**
   * Begins a block: open is what a triangle touches, with corners at (0, 0), (length, 0) and (cu, cv).
   * @param left where the block begins along the first edge, metres
   * @param low where it begins across it
   * @param size side of a cell
   * @returns whether any cell is open
   */
  begin(left: number, low: number, size: number, length: number, cu: number, cv: number): boolean {
    this.#left = left;
    this.#low = low;
    this.#size = size;
    let any = 0;
    for (let j = 0; j < SIDE; j++) {
      const from = max(0, low + j * size);
      const to = min(cv, low + (j + 1) * size);
      let bits = 0;
      if (from <= to) {
        const [a, b] = [from / cv, to / cv];
        const first = floor((min(cu * a, cu * b) - left) / size);
        const last = floor((length + max((cu - length) * a, (cu - length) * b) - left) / size);
        bits = run(max(0, first), min(SIDE - 1, last));
      }
      this.#rows[j] = bits;
      any |= bits;
    }
    return any !== 0;
  }

  /** Takes away the cells that lie within a disc. @param r2 square of its radius in the plane, none where not above 0 */
  cover(u: number, v: number, r2: number): void {
    if (!(r2 > 0)) return;
    const rows = this.#rows;
    const per = 1 / this.#size;
    const x = (u - this.#left) * per;
    const y = (v - this.#low) * per;
    const most = r2 * per * per;
    const reach = sqrt(most);
    const first = max(0, ceil(y - reach));
    const last = min(SIDE, floor(y + reach));
    if (first >= last || x + reach < 1 || x - reach > SIDE - 1) return;
    // Half the chord along each border of a row; a cell lies within the disc where its row's shorter one holds it.
    let half = most - (first - y) * (first - y);
    for (let j = first; j < last; j++) {
      const other = most - (j + 1 - y) * (j + 1 - y);
      const narrow = sqrt(max(0, min(half, other)));
      half = other;
      rows[j] &= ~run(max(0, ceil(x - narrow)), min(SIDE - 1, floor(x + narrow) - 1));
    }
  }

  /** Lists the cells that are open. @returns how many */
  list(): number {
    let count = 0;
    for (let j = 0; j < SIDE; j++)
      for (let bits = this.#rows[j]; bits !== 0; bits &= bits - 1)
        this.listed[count++] = SIDE * j + 31 - Math.clz32(bits & -bits);
    return count;
  }

  isOpen(cell: number): boolean {
    return (this.#rows[cell >> 5] & (1 << (cell & 31))) !== 0;
  }
}

/** The bits from one number to another, both included; none where the second comes first. */
const run = (first: number, last: number): number => (last < first ? 0 : (-1 >>> (31 - (last - first))) << first);
