import { mapped } from '../../geometry/filled';
import { boxesMeet, type OrientedBox, standingBox } from '../../geometry/search/meshPairs';
import { keptSeats, type Seats } from '../../geometry/seats';
import { turnAt } from '../../geometry/turns';
import { at, type Corners, norm, sub } from '../../geometry/vec';
import type { StepContext } from '../declare';

/** The smallest share of its size that a copy is shrunk to before it is left out. */
const LEAST = 0.25;

/**
 * The seats whose items keep clear of those before them, by their boxes.
 * @param room kept between items, metres
 * @param shrinks what has no room until it fits, instead of leaving it out
 * @param largest whether the largest come first, instead of each in its order
 */
export async function runClearance(
  seats: Seats,
  room: number,
  shrinks: boolean,
  largest: boolean,
  context: StepContext,
): Promise<Seats> {
  const rooms: (Corners | null)[] = [];
  for (const id of seats.growths) rooms.push(await context.room(id));
  const kept: number[] = [];
  const sizes = new Float32Array(seats.sizes);
  const grid = new BoxGrid(usualWidth(seats, rooms, room / 2));
  const order = largest ? largestFirst(seats, rooms) : seats.ids.keys();
  let tried = 0;
  for (const k of order) {
    if (tried++ % 4 === 0) await context.yieldNow();
    const own = rooms[seats.growth[k]];
    if (!own) continue;
    const free = (share: number): OrientedBox | null => {
      const box = boxOf(seats, k, own, share, room / 2);
      return grid.meets(box) ? null : box;
    };
    let share = 1;
    let box = free(1);
    if (!box && shrinks) {
      let [low, high] = [0, 1];
      for (let round = 0; round < 12; round++) {
        const middle = (low + high) / 2;
        if (free(middle)) low = middle;
        else high = middle;
      }
      share = low;
      box = share >= LEAST ? free(share) : null;
    }
    if (!box) continue;
    grid.add(box);
    kept.push(k);
    for (let c = 0; c < 3; c++) sizes[3 * k + c] *= share;
  }
  if (largest) kept.sort((a, b) => a - b);
  return keptSeats({ ...seats, sizes }, kept);
}

/** Seats by the size of their boxes; of equal ones those that come first in their order. */
function largestFirst(seats: Seats, rooms: readonly (Corners | null)[]): number[] {
  const widths = boxWidths(seats, rooms);
  return Array.from(seats.ids.keys()).sort((a, b) => widths[b] - widths[a] || a - b);
}

function boxOf(seats: Seats, k: number, own: Corners, share: number, margin: number): OrientedBox {
  const [x, y, z] = at(seats.sizes, k);
  const [position, turn] = [at(seats.positions, k), turnAt(seats.turns, k)];
  return standingBox(own, { position, turn, size: [x * share, y * share, z * share] }, margin);
}

/** A box that would lie in more cells than this is kept apart, and tried by every other. */
const MOST_CELLS = 64;

/** Boxes in the cells of a grid. */
class BoxGrid {
  readonly #cells = new Map<number, OrientedBox[]>();
  /** Boxes much larger than a cell: there are few of them, since cells are as wide as boxes mostly are. */
  readonly #large: OrientedBox[] = [];
  /** Cells at the last box asked about: what has no room is asked about again and again. */
  readonly #over: number[] = [];

  /** @param width of a cell, metres: about that of the boxes */
  constructor(private readonly width: number) {}

  add(box: OrientedBox): void {
    if (!this.#find(box)) this.#large.push(box);
    for (const cell of this.#over) {
      const there = this.#cells.get(cell);
      if (there) there.push(box);
      else this.#cells.set(cell, [box]);
    }
  }

  meets(box: OrientedBox): boolean {
    for (const other of this.#large) if (boxesMeet(box, other)) return true;
    if (this.#find(box)) {
      for (const cell of this.#over)
        for (const other of this.#cells.get(cell) ?? []) if (boxesMeet(box, other)) return true;
      return false;
    }
    for (const there of this.#cells.values()) for (const other of there) if (boxesMeet(box, other)) return true;
    return false;
  }

  /** Finds the cells that a box lies in; false, and none, where there are too many. */
  #find({ middle, axes, half }: OrientedBox): boolean {
    this.#over.length = 0;
    const [low, high]: number[][] = [[], []];
    let cells = 1;
    for (let c = 0; c < 3; c++) {
      let reach = 0;
      for (let k = 0; k < 3; k++) reach += Math.abs(axes[k][c]) * half[k];
      low.push(Math.floor((middle[c] - reach) / this.width));
      high.push(Math.floor((middle[c] + reach) / this.width));
      cells *= high[c] - low[c] + 1;
    }
    if (!(cells <= MOST_CELLS)) return false;
    for (let i = low[0]; i <= high[0]; i++)
      for (let j = low[1]; j <= high[1]; j++)
        for (let k = low[2]; k <= high[2]; k++)
          // Two cells of one hash are one cell: then a few boxes more are tried.
          this.#over.push((Math.imul(i, 73856093) ^ Math.imul(j, 19349663) ^ Math.imul(k, 83492791)) | 0);
    return true;
  }
}

/** How wide the boxes of seats are, metres; 0 for what shows nothing. */
function boxWidths(seats: Seats, rooms: readonly (Corners | null)[]): Float64Array {
  const widths = rooms.map((own) => own && sub(own.max, own.min));
  return mapped(Float64Array, seats.ids, (_, k) => {
    const width = widths[seats.growth[k]];
    const [x, y, z] = at(seats.sizes, k);
    return width ? norm(width[0] * x, width[1] * y, width[2] * z) : 0;
  });
}

/** About how wide the boxes of seats are, over all of them that show anything. */
function usualWidth(seats: Seats, rooms: readonly (Corners | null)[], margin: number): number {
  let [sum, count] = [0, 0];
  boxWidths(seats, rooms).forEach((width, k) => {
    if (!rooms[seats.growth[k]]) return;
    sum += width;
    count++;
  });
  return Math.max(1e-6, count > 0 ? sum / count + 2 * margin : 1);
}
