const { floor, imul, sqrt } = Math;

/** Half of the cells round one: of each two on opposite sides the later one. */
const FORWARD = [-1, 0, 1].flatMap((x) =>
  [-1, 0, 1].flatMap((y) => [-1, 0, 1].flatMap((z) => (9 * x + 3 * y + z > 0 ? [[x, y, z] as const] : []))),
);

const sameCell = (places: Int32Array, a: number, b: number): boolean =>
  places[3 * a] === places[3 * b] && places[3 * a + 1] === places[3 * b + 1] && places[3 * a + 2] === places[3 * b + 2];

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
  /** Points of a cell, and of one beside it. */
  readonly #own: number[] = [];
  readonly #others: number[] = [];
  #found = 0;
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
   * Finds every pair nearer than the reach, once each, in an order that hangs on the numbers alone: cell by cell, within it and with
   * half of the cells around it, which look at it in turn no more.
   * @returns how many there are: those of `later` and `earlier`, the first of the greater number
   */
  pairs(positions: Float64Array, n: number): number {
    const [starts, order, places, cells] = [this.#starts, this.#order, this.#places, this.#cells];
    this.#found = 0;
    for (let k = 0; k < n; k++) {
      const i = order[k];
      // Cells far from one another may share a place in the table; each is done with its first point.
      const first = starts[cells[i]];
      if (this.#hasBefore(i, first, k)) continue;
      const [x, y, z] = [places[3 * i], places[3 * i + 1], places[3 * i + 2]];
      const own = this.#gather(this.#own, x, y, z);
      for (let a = 1; a < own; a++) this.#meet(positions, this.#own[a], this.#own, a);
      for (const [dx, dy, dz] of FORWARD) {
        const others = this.#gather(this.#others, x + dx, y + dy, z + dz);
        for (let a = 0; a < own && others > 0; a++) this.#meet(positions, this.#own[a], this.#others, others);
      }
    }
    return this.#found;
  }

  /** Whether a point of the same cell as i stands in the list from one place up to another. */
  #hasBefore(i: number, from: number, end: number): boolean {
    const [order, places] = [this.#order, this.#places];
    for (let at = from; at < end; at++) if (sameCell(places, order[at], i)) return true;
    return false;
  }

  /** Puts the points of a cell into a list; gives how many there are. */
  #gather(into: number[], x: number, y: number, z: number): number {
    const [starts, order, places] = [this.#starts, this.#order, this.#places];
    const cell = this.#cell(x, y, z);
    let count = 0;
    for (let at = starts[cell]; at < starts[cell + 1]; at++) {
      const j = order[at];
      if (places[3 * j] === x && places[3 * j + 1] === y && places[3 * j + 2] === z) into[count++] = j;
    }
    return count;
  }

  /** Notes the pairs of a point with the first of a list. */
  #meet(positions: Float64Array, i: number, list: readonly number[], count: number): void {
    const { reach } = this;
    const px = positions[3 * i];
    const py = positions[3 * i + 1];
    const pz = positions[3 * i + 2];
    for (let k = 0; k < count; k++) {
      const j = list[k];
      const dx = px - positions[3 * j];
      const dy = py - positions[3 * j + 1];
      const dz = pz - positions[3 * j + 2];
      if (dx * dx + dy * dy + dz * dz >= reach * reach) continue;
      if (this.#found === this.later.length) this.#widen();
      this.later[this.#found] = i > j ? i : j;
      this.earlier[this.#found++] = i > j ? j : i;
    }
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
