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
