import { boxesMeet, orientedBox, type OrientedBox } from '../../geometry/meshPairs';
import { wholeMesh } from '../../geometry/copies';
import { type Mesh } from '../../geometry/mesh';
import { keptSeats, type Seats } from '../../geometry/seats';
import { type Turn } from '../../geometry/turns';
import { at } from '../../geometry/vec';
import { type StepContext } from '../declare';

/** The smallest share of its size that a copy is shrunk to before it is left out. */
const LEAST = 0.25;

/**
 * The seats whose items keep clear of those before them, by their boxes.
 * @param room kept between items, metres
 * @param shrinks what has no room until it fits, instead of leaving it out
 */
export async function cleared(seats: Seats, room: number, shrinks: boolean, context: StepContext): Promise<Seats> {
  const meshes: (Mesh | null)[] = [];
  for (const id of seats.growths) meshes.push(wholeMesh(await context.item(id)));
  const kept: number[] = [];
  const sizes = new Float32Array(seats.sizes);
  const grid = new BoxGrid();
  for (let k = 0; k < seats.ids.length; k++) {
    if (k % 64 === 0) await context.breathe();
    const mesh = meshes[seats.growth[k]];
    if (!mesh) continue;
    const free = (share: number): OrientedBox | null => {
      const box = boxOf(seats, k, mesh, share, room / 2);
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
  return keptSeats({ ...seats, sizes }, kept);
}

function boxOf(seats: Seats, k: number, mesh: Mesh, share: number, margin: number): OrientedBox {
  const [x, y, z] = at(seats.sizes, k);
  const turn = Array.from(seats.turns.subarray(4 * k, 4 * k + 4)) as unknown as Turn;
  return orientedBox({ mesh, position: at(seats.positions, k), turn, size: [x * share, y * share, z * share] }, margin);
}

/** Boxes in the cells of a grid as wide as the first of them. */
class BoxGrid {
  readonly #cells = new Map<string, OrientedBox[]>();
  #width = 0;

  add(box: OrientedBox): void {
    this.#width ||= 2 * Math.hypot(...box.half) || 1;
    for (const cell of this.#over(box)) {
      const there = this.#cells.get(cell);
      if (there) there.push(box);
      else this.#cells.set(cell, [box]);
    }
  }

  meets(box: OrientedBox): boolean {
    if (this.#width === 0) return false;
    for (const cell of this.#over(box))
      for (const other of this.#cells.get(cell) ?? []) if (boxesMeet(box, other)) return true;
    return false;
  }

  *#over({ middle, axes, half }: OrientedBox): Generator<string> {
    const ranges = [0, 1, 2].map((c) => {
      const reach = axes.reduce((sum, axis, k) => sum + Math.abs(axis[c]) * half[k], 0);
      return [Math.floor((middle[c] - reach) / this.#width), Math.floor((middle[c] + reach) / this.#width)];
    });
    for (let i = ranges[0][0]; i <= ranges[0][1]; i++)
      for (let j = ranges[1][0]; j <= ranges[1][1]; j++)
        for (let k = ranges[2][0]; k <= ranges[2][1]; k++) yield `${i},${j},${k}`;
  }
}
