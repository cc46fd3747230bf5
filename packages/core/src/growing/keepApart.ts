import { Neighbours } from '../geometry/search/spatialHash';

const { sqrt } = Math;

/**
 * Pushes points that come nearer than a distance apart, half each, and each by the mean of what pushes it: all at once, so that
 * it hangs on no order.
 */
export class KeepApart {
  readonly #neighbours: Neighbours;
  #moves = new Float64Array(0);
  #pushes = new Uint32Array(0);

  constructor(readonly apart: number) {
    this.#neighbours = new Neighbours(apart);
  }

  /**
   * @param near whether two points belong next to each other, and may be as near as they are
   * @returns 3n, how far each is to go
   */
  moves(positions: Float64Array, n: number, near: (later: number, earlier: number) => boolean): Float64Array {
    if (this.#pushes.length < n) [this.#moves, this.#pushes] = [new Float64Array(6 * n), new Uint32Array(2 * n)];
    const [moves, pushes, neighbours] = [this.#moves.fill(0), this.#pushes.fill(0), this.#neighbours];
    neighbours.put(positions, n);
    const count = neighbours.pairs(positions, n);
    for (let k = 0; k < count; k++) {
      const [i, j] = [neighbours.later[k], neighbours.earlier[k]];
      if (near(i, j)) continue;
      const x = positions[3 * i] - positions[3 * j];
      const y = positions[3 * i + 1] - positions[3 * j + 1];
      const z = positions[3 * i + 2] - positions[3 * j + 2];
      const gap = sqrt(x * x + y * y + z * z);
      if (gap === 0) continue;
      const by = (0.5 * (this.apart - gap)) / gap;
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
