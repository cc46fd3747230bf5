const { floor, imul, sqrt } = Math;

/**
 * Points by cells, for finding those within a distance again and again: a table by hash of the cell, in flat arrays that are used
 * again (Teschner and others, Optimized spatial hashing for collision detection of deformable objects, 2003).
 */
export class Neighbours {
  #starts = new Uint32Array(1);
  #order = new Uint32Array(0);
  #cells = new Uint32Array(0);
  #mask = 0;
  /** Cell of each point, in three numbers. */
  #places = new Int32Array(0);
  later = new Uint32Array(1024);
  earlier = new Uint32Array(1024);

  constructor(readonly reach: number) {}

  /** Puts n points in. */
  put(positions: Float64Array, n: number): void {
    let size = 16;
    while (size < 2 * n) size *= 2;
    if (this.#starts.length !== size + 1) this.#starts = new Uint32Array(size + 1);
    else this.#starts.fill(0);
    if (this.#order.length < n) {
      [this.#order, this.#cells] = [new Uint32Array(2 * n), new Uint32Array(2 * n)];
      this.#places = new Int32Array(6 * n);
    }
    this.#mask = size - 1;
    const [starts, cells, order, places] = [this.#starts, this.#cells, this.#order, this.#places];
    for (let i = 0; i < n; i++) {
      for (let c = 3 * i; c < 3 * i + 3; c++) places[c] = floor(positions[c] / this.reach);
      cells[i] = this.#cell(places[3 * i], places[3 * i + 1], places[3 * i + 2]);
      starts[cells[i]]++;
    }
    for (let c = 1; c <= size; c++) starts[c] += starts[c - 1];
    // From the last to the first: within a cell they stay in order, and starts come to be where they say.
    for (let i = n - 1; i >= 0; i--) order[--starts[cells[i]]] = i;
  }

  #cell(x: number, y: number, z: number): number {
    return (imul(x, 73856093) ^ imul(y, 19349663) ^ imul(z, 83492791)) & this.#mask;
  }

  /**
   * Finds every pair nearer than the reach, once each, in an order that hangs on the numbers alone.
   * @returns how many there are: those of `later` and `earlier`, the first of the greater number
   */
  pairs(positions: Float64Array, n: number): number {
    const { reach } = this;
    const [starts, order, places] = [this.#starts, this.#order, this.#places];
    let found = 0;
    for (let i = 0; i < n; i++) {
      const px = positions[3 * i];
      const py = positions[3 * i + 1];
      const pz = positions[3 * i + 2];
      for (let x = places[3 * i] - 1; x <= places[3 * i] + 1; x++)
        for (let y = places[3 * i + 1] - 1; y <= places[3 * i + 1] + 1; y++)
          for (let z = places[3 * i + 2] - 1; z <= places[3 * i + 2] + 1; z++) {
            const cell = this.#cell(x, y, z);
            for (let at = starts[cell]; at < starts[cell + 1]; at++) {
              const j = order[at];
              if (j >= i) break;
              // Cells far from one another may share a place in the table.
              if (places[3 * j] !== x || places[3 * j + 1] !== y || places[3 * j + 2] !== z) continue;
              const dx = px - positions[3 * j];
              const dy = py - positions[3 * j + 1];
              const dz = pz - positions[3 * j + 2];
              if (dx * dx + dy * dy + dz * dz >= reach * reach) continue;
              if (found === this.later.length) this.#widen();
              this.later[found] = i;
              this.earlier[found++] = j;
            }
          }
    }
    return found;
  }

  /** Calls for every point nearer than the reach to a place, with the way from it to the place. */
  near(
    positions: Float64Array,
    x: number,
    y: number,
    z: number,
    call: (j: number, dx: number, dy: number, dz: number, gap: number) => void,
  ): void {
    const { reach } = this;
    const [starts, order, places] = [this.#starts, this.#order, this.#places];
    const [cx, cy, cz] = [floor(x / reach), floor(y / reach), floor(z / reach)];
    for (let i = cx - 1; i <= cx + 1; i++)
      for (let k = cy - 1; k <= cy + 1; k++)
        for (let l = cz - 1; l <= cz + 1; l++) {
          const cell = this.#cell(i, k, l);
          for (let at = starts[cell]; at < starts[cell + 1]; at++) {
            const j = order[at];
            if (places[3 * j] !== i || places[3 * j + 1] !== k || places[3 * j + 2] !== l) continue;
            const [dx, dy, dz] = [x - positions[3 * j], y - positions[3 * j + 1], z - positions[3 * j + 2]];
            const gap = sqrt(dx * dx + dy * dy + dz * dz);
            if (gap < reach) call(j, dx, dy, dz, gap);
          }
        }
  }

  /** Calls for every point nearer than the reach to one of them, itself too. */
  around(positions: Float64Array, i: number, call: (j: number) => void): void {
    this.near(positions, positions[3 * i], positions[3 * i + 1], positions[3 * i + 2], call);
  }

  #widen(): void {
    for (const name of ['later', 'earlier'] as const) {
      const wider = new Uint32Array(2 * this[name].length);
      wider.set(this[name]);
      this[name] = wider;
    }
  }
}

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
