const { floor, imul } = Math;

/** Cells stand a little aside: planes through the origin, of which there are many, would run along their borders. */
const ASKEW = 0.37;

/** A spatial hash of places that become more, to find those near another. */
export class PlacesGrid {
  #heads: Int32Array;
  #next = new Int32Array(64);
  #mask: number;
  readonly #per: number;
  /** Numbers of the places that `gather` found. */
  readonly found: number[] = [];

  /**
   * @param places xyz triples, metres, and how many there are so far: `add` tells of each that follows
   * @param cell side of the cubes, metres
   */
  constructor(
    private readonly places: { readonly positions: ArrayLike<number>; readonly count: number },
    cell: number,
  ) {
    this.#per = 1 / cell;
    let size = 64;
    while (size < 2 * places.count) size *= 2;
    this.#mask = size - 1;
    this.#heads = new Int32Array(size).fill(-1);
    for (let k = 0; k < places.count; k++) this.add(k);
  }

  add(k: number): void {
    if (k > this.#mask) {
      this.#mask = 2 * this.#mask + 1;
      this.#heads = new Int32Array(this.#mask + 1).fill(-1);
      for (let i = 0; i < k; i++) this.#put(i);
    }
    this.#put(k);
  }

  #put(k: number): void {
    if (k >= this.#next.length) {
      const next = new Int32Array(2 * k);
      next.set(this.#next);
      this.#next = next;
    }
    const { positions: p } = this.places;
    const per = this.#per;
    const slot = this.#slot(
      floor(p[3 * k] * per + ASKEW),
      floor(p[3 * k + 1] * per + ASKEW),
      floor(p[3 * k + 2] * per + ASKEW),
    );
    this.#next[k] = this.#heads[slot];
    this.#heads[slot] = k;
  }

  #slot(i: number, j: number, k: number): number {
    return (imul(i, 73856093) ^ imul(j, 19349663) ^ imul(k, 83492791)) & this.#mask;
  }

  /** Whether a place is nearer than `radius` to a point. */
  isNear(x: number, y: number, z: number, radius: number): boolean {
    const { positions: p } = this.places;
    const heads = this.#heads;
    const following = this.#next;
    const r2 = radius * radius;
    const per = this.#per;
    // Where there is one it is most often in the point's own cube.
    const own = this.#slot(floor(x * per + ASKEW), floor(y * per + ASKEW), floor(z * per + ASKEW));
    for (let n = heads[own]; n >= 0; n = following[n]) {
      const dx = p[3 * n] - x;
      const dy = p[3 * n + 1] - y;
      const dz = p[3 * n + 2] - z;
      if (dx * dx + dy * dy + dz * dz < r2) return true;
    }
    const i1 = floor((x + radius) * per + ASKEW);
    const j1 = floor((y + radius) * per + ASKEW);
    const k1 = floor((z + radius) * per + ASKEW);
    const j0 = floor((y - radius) * per + ASKEW);
    const k0 = floor((z - radius) * per + ASKEW);
    for (let i = floor((x - radius) * per + ASKEW); i <= i1; i++)
      for (let j = j0; j <= j1; j++)
        for (let k = k0; k <= k1; k++) {
          const slot = this.#slot(i, j, k);
          if (slot === own) continue;
          for (let n = heads[slot]; n >= 0; n = following[n]) {
            const dx = p[3 * n] - x;
            const dy = p[3 * n + 1] - y;
            const dz = p[3 * n + 2] - z;
            if (dx * dx + dy * dy + dz * dz < r2) return true;
          }
        }
    return false;
  }

  /** Finds all places nearer than `radius` to a point; cells that fall together may name one twice. @returns how many */
  gather(x: number, y: number, z: number, radius: number): number {
    const { positions: p } = this.places;
    const heads = this.#heads;
    const following = this.#next;
    const found = this.found;
    const r2 = radius * radius;
    const per = this.#per;
    const i1 = floor((x + radius) * per + ASKEW);
    const j1 = floor((y + radius) * per + ASKEW);
    const k1 = floor((z + radius) * per + ASKEW);
    const j0 = floor((y - radius) * per + ASKEW);
    const k0 = floor((z - radius) * per + ASKEW);
    let count = 0;
    for (let i = floor((x - radius) * per + ASKEW); i <= i1; i++)
      for (let j = j0; j <= j1; j++)
        for (let k = k0; k <= k1; k++)
          for (let n = heads[this.#slot(i, j, k)]; n >= 0; n = following[n]) {
            const dx = p[3 * n] - x;
            const dy = p[3 * n + 1] - y;
            const dz = p[3 * n + 2] - z;
            if (dx * dx + dy * dy + dz * dz < r2) found[count++] = n;
          }
    return count;
  }
}
