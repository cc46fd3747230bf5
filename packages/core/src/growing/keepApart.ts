import { Neighbours } from '../geometry/search/spatialHash';

const { sqrt } = Math;

/** So much further than they keep apart are pairs looked for, so that they need not be looked for again after each small move. */
const MARGIN = 0.3;

/**
 * Pushes points that come nearer than a distance apart, half each, and each by the mean of what pushes it: all at once, so that
 * it hangs on no order. Pairs that may meet are listed once and listed again when points have moved by half the margin (Verlet,
 * Computer "experiments" on classical fluids, Physical Review 159, 1967).
 */
export class KeepApart {
  readonly #neighbours: Neighbours;
  #moves = new Float64Array(0);
  #pushes = new Uint32Array(0);
  /** Pairs that may meet, two numbers each. */
  #pairs = new Uint32Array(1024);
  #count = 0;
  /** Where points were when pairs were listed. */
  #listed = new Float64Array(0);
  #near: (later: number, earlier: number) => boolean = () => false;
  /** Times that pairs have been listed. */
  lists = 0;

  constructor(readonly apart: number) {
    this.#neighbours = new Neighbours((1 + MARGIN) * apart);
  }

  /**
   * Begins with so many points: what was listed before is forgotten.
   * @param near whether two points belong next to each other, and may be as near as they are
   */
  begin(positions: Float64Array, n: number, near: (later: number, earlier: number) => boolean): void {
    this.#near = near;
    if (this.#pushes.length < n) {
      this.#moves = new Float64Array(6 * n);
      this.#pushes = new Uint32Array(2 * n);
      this.#listed = new Float64Array(6 * n);
    }
    this.#list(positions, n);
  }

  #list(positions: Float64Array, n: number): void {
    this.lists++;
    const neighbours = this.#neighbours;
    this.#listed.set(positions.subarray(0, 3 * n));
    neighbours.put(positions, n);
    const found = neighbours.pairs(positions, n);
    if (this.#pairs.length < 2 * found) this.#pairs = new Uint32Array(4 * found);
    const pairs = this.#pairs;
    let count = 0;
    for (let k = 0; k < found; k++) {
      const [i, j] = [neighbours.later[k], neighbours.earlier[k]];
      if (this.#near(i, j)) continue;
      pairs[count++] = i;
      pairs[count++] = j;
    }
    this.#count = count;
  }

  /** Whether a point has moved so far since pairs were listed that one of them may be missing. */
  #moved(positions: Float64Array, n: number): boolean {
    const far = (0.5 * MARGIN * this.apart) ** 2;
    const listed = this.#listed;
    for (let i = 0; i < 3 * n; i += 3) {
      const x = positions[i] - listed[i];
      const y = positions[i + 1] - listed[i + 1];
      const z = positions[i + 2] - listed[i + 2];
      if (x * x + y * y + z * z > far) return true;
    }
    return false;
  }

  /**
   * @param n as many points as it has begun with
   * @returns 3n, how far each is to go; overwritten by the next call
   */
  moves(positions: Float64Array, n: number): Float64Array {
    if (this.#moved(positions, n)) this.#list(positions, n);
    const { apart } = this;
    const [moves, pushes, pairs, count] = [this.#moves, this.#pushes, this.#pairs, this.#count];
    moves.fill(0, 0, 3 * n);
    pushes.fill(0, 0, n);
    for (let k = 0; k < count; k += 2) {
      const i = pairs[k];
      const j = pairs[k + 1];
      const x = positions[3 * i] - positions[3 * j];
      const y = positions[3 * i + 1] - positions[3 * j + 1];
      const z = positions[3 * i + 2] - positions[3 * j + 2];
      const square = x * x + y * y + z * z;
      if (square >= apart * apart || square === 0) continue;
      const gap = sqrt(square);
      const by = (0.5 * (apart - gap)) / gap;
      moves[3 * i] += by * x;
      moves[3 * i + 1] += by * y;
      moves[3 * i + 2] += by * z;
      moves[3 * j] -= by * x;
      moves[3 * j + 1] -= by * y;
      moves[3 * j + 2] -= by * z;
      pushes[i]++;
      pushes[j]++;
    }
    for (let i = 0; i < n; i++) if (pushes[i] > 2) for (let c = 0; c < 3; c++) moves[3 * i + c] *= 2 / pushes[i];
    for (let i = 0; i < 3 * n; i++) moves[i] *= 0.5;
    return moves;
  }
}
