import { boundsOf, emptyForm } from '../geometry/form';
import { treeInTime } from '../geometry/search/meshTree';
import { insideOf, nearestPlace } from '../geometry/search/nearest';
import type { Mesh } from '../geometry/mesh';
import { byAxis, distance, type Vec3 } from '../geometry/vec';

const { ceil, floor, hypot, max, min } = Math;

/** Cells along the longest side. */
const CELLS = 24;

/**
 * Keeps places within a closed form: signed distances to its skin are measured once on a grid, and between its points they are
 * mixed (trilinear), so that a place can be asked for again and again at next to no cost.
 */
export class Within {
  readonly #low: Vec3;
  readonly #size: number;
  readonly #dims: readonly [number, number, number];
  /** Metres, below 0 inside. */
  readonly #values: Float32Array;

  private constructor(low: Vec3, size: number, dims: readonly [number, number, number], values: Float32Array) {
    [this.#low, this.#size, this.#dims, this.#values] = [low, size, dims, values];
  }

  static async of(mesh: Mesh, yieldNow: () => Promise<void>): Promise<Within> {
    await treeInTime(mesh, yieldNow);
    const { min: low, max: high } = boundsOf({ ...emptyForm(), mesh })!;
    const size = max(1e-9, ...low.map((from, c) => high[c] - from)) / CELLS;
    const dims = low.map((from, c) => ceil((high[c] - from) / size) + 3) as [number, number, number];
    const begin = byAxis((c) => low[c] - size);
    const values = new Float32Array(dims[0] * dims[1] * dims[2]);
    let n = 0;
    for (let z = 0; z < dims[2]; z++)
      for (let y = 0; y < dims[1]; y++) {
        await yieldNow();
        for (let x = 0; x < dims[0]; x++) {
          const place: Vec3 = [begin[0] + size * x, begin[1] + size * y, begin[2] + size * z];
          const away = distance(nearestPlace(mesh, place)?.position ?? place, place);
          const before = x > 0 ? values[n - 1] : 0;
          // Where the skin is further away than the next place, that lies on the same side.
          const inside = max(away, before, -before) > size && x > 0 ? before < 0 : insideOf(mesh, place);
          values[n++] = inside ? -away : away;
        }
      }
    return new Within(begin, size, dims, values);
  }

  /** How deep a place lies inside, metres, as the grid has it; below 0 outside. */
  depth(x: number, y: number, z: number): number {
    return -this.#at(x, y, z);
  }

  /** Depths that are less than this may be wrong in their sign, metres. */
  get unsure(): number {
    return 1.8 * this.#size;
  }

  /** The greatest depth on the grid, metres. */
  get deepest(): number {
    return -this.#values.reduce((least, value) => min(least, value), 0);
  }

  /** Brings a point of an array back inside, if it is not at least so deep. */
  keep(positions: Float64Array, i: number, deep: number): void {
    // Twice, since the way in bends.
    for (let again = 0; again < 2; again++) {
      const [x, y, z] = [positions[3 * i], positions[3 * i + 1], positions[3 * i + 2]];
      const here = this.#at(x, y, z);
      if (here <= -deep) return;
      const e = 0.5 * this.#size;
      const gx = this.#at(x + e, y, z) - this.#at(x - e, y, z);
      const gy = this.#at(x, y + e, z) - this.#at(x, y - e, z);
      const gz = this.#at(x, y, z + e) - this.#at(x, y, z - e);
      const by = (here + deep) / (hypot(gx, gy, gz) || 1);
      positions[3 * i] -= by * gx;
      positions[3 * i + 1] -= by * gy;
      positions[3 * i + 2] -= by * gz;
    }
  }

  #at(x: number, y: number, z: number): number {
    const [nx, ny, nz] = this.#dims;
    const values = this.#values;
    const u = min(nx - 1.001, max(0, (x - this.#low[0]) / this.#size));
    const v = min(ny - 1.001, max(0, (y - this.#low[1]) / this.#size));
    const w = min(nz - 1.001, max(0, (z - this.#low[2]) / this.#size));
    const [i, j, k] = [floor(u), floor(v), floor(w)];
    const [a, b, c] = [u - i, v - j, w - k];
    let sum = 0;
    for (let corner = 0; corner < 8; corner++) {
      const [dx, dy, dz] = [corner & 1, (corner >> 1) & 1, corner >> 2];
      sum += (dx ? a : 1 - a) * (dy ? b : 1 - b) * (dz ? c : 1 - c) * values[i + dx + nx * (j + dy + ny * (k + dz))];
    }
    return sum;
  }
}
