/** Distances that are lowered, and the places whose turn it is: a binary heap in which each place stands once. */
export class Wave {
  readonly distances: Float64Array;
  /** Whose wave came to each place. */
  readonly origins: Int32Array;
  readonly #heap: Int32Array;
  /** Where in the heap a place stands, −1 for nowhere. */
  readonly #where: Int32Array;
  #size = 0;

  constructor(count: number) {
    this.distances = new Float64Array(count).fill(Infinity);
    this.origins = new Int32Array(count);
    this.#heap = new Int32Array(count);
    this.#where = new Int32Array(count).fill(-1);
  }

  /** Sets a shorter distance. */
  lower(place: number, distance: number, origin: number): void {
    if (!(distance < this.distances[place])) return;
    this.distances[place] = distance;
    this.origins[place] = origin;
    let at = this.#where[place];
    if (at < 0) at = this.#size++;
    const heap = this.#heap;
    const where = this.#where;
    const d = this.distances;
    while (at > 0) {
      const up = (at - 1) >> 1;
      if (d[heap[up]] <= distance) break;
      heap[at] = heap[up];
      where[heap[at]] = at;
      at = up;
    }
    heap[at] = place;
    where[place] = at;
  }

  /** The nearest place whose turn it is; −1 when there is none. */
  next(): number {
    if (this.#size === 0) return -1;
    const heap = this.#heap;
    const where = this.#where;
    const d = this.distances;
    const first = heap[0];
    where[first] = -1;
    const last = heap[--this.#size];
    if (this.#size === 0) return first;
    let at = 0;
    for (;;) {
      let down = 2 * at + 1;
      if (down >= this.#size) break;
      if (down + 1 < this.#size && d[heap[down + 1]] < d[heap[down]]) down++;
      if (d[heap[down]] >= d[last]) break;
      heap[at] = heap[down];
      where[heap[at]] = at;
      at = down;
    }
    heap[at] = last;
    where[last] = at;
    return first;
  }
}
