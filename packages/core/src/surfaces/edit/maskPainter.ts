import { smoothstep } from '../../fields/smoothstep';
import type { BrushStroke, Stroke } from '../../geometry/maskStroke';
import { CellGrid } from '../../geometry/search/cellGrid';

/** What is painted on. */
export interface PaintedSurface {
  /** 3n, metres. */
  positions: ArrayLike<number>;
  /** 3n unit vectors. */
  normals: ArrayLike<number>;
  indices: ArrayLike<number>;
}

/** Where a stroke passes: a place, which way the form looks there, and the pressure 0..1. */
export interface Dab {
  place: readonly number[];
  normal: readonly number[];
  pressure: number;
}

/** What looks away from the brush by more than a right angle is less and less reached, by twice that not at all: the far side of what is thin. */
const AWAY = -0.5;
/** Share of the radius over which soften takes the mean. */
const BLUR = 0.35;
/** Grids kept: brushes change their size. */
const GRIDS = 4;

/**
 * A mask 0..1 on the vertices of a form while strokes go over it. What a stroke does at a vertex hangs on its place, not on
 * its number (and where it softens, on means over areas), so that a form of more or fewer faces gets the same mask. The page
 * paints with it while the pen is down, and evaluation afterwards: they agree.
 */
export class Painter {
  readonly values: Float32Array;
  readonly #grids = new Map<number, CellGrid>();
  /** How much of the stroke at hand each vertex has got. */
  readonly #weights: Float32Array;
  /** Values before the stroke at hand, and means of them where that softens; of vertices that it has touched. */
  readonly #before: Float32Array;
  readonly #means: Float32Array;
  #touched: number[] = [];
  #stroke: Omit<BrushStroke, 'points' | 'frame'> | null = null;
  #areas: Float32Array | null = null;

  /** @param before what the mask is at first; nothing where it is left out */
  constructor(
    readonly surface: PaintedSurface,
    before?: ArrayLike<number>,
  ) {
    const n = surface.positions.length / 3;
    this.values = before ? Float32Array.from(before) : new Float32Array(n);
    this.#weights = new Float32Array(n);
    this.#before = new Float32Array(n);
    this.#means = new Float32Array(n);
  }

  /** Fills or inverts the whole of it. */
  whole(does: Exclude<Stroke, BrushStroke>['does']): void {
    const { values } = this;
    if (does === 'fill') values.fill(1);
    else for (let i = 0; i < values.length; i++) values[i] = 1 - values[i];
  }

  /** Puts the brush down. */
  begin(stroke: Omit<BrushStroke, 'points' | 'frame'>): void {
    for (const i of this.#touched) this.#weights[i] = 0;
    this.#touched = [];
    this.#stroke = stroke;
    // Made now, so that the first touch costs no more than the others.
    this.#gridFor(stroke.radius);
    if (stroke.does === 'soften') this.#areas ??= vertexAreas(this.surface);
  }

  /**
   * Draws the brush from one place to another, straight.
   * @returns the vertices whose value has changed
   */
  draw(from: Dab, to: Dab): number[] {
    const changed = this.#weigh(from, to);
    for (const i of changed) this.values[i] = this.#valueOf(i);
    return changed;
  }

  #gridFor(radius: number): CellGrid {
    let grid = this.#grids.get(radius);
    if (!grid) {
      if (this.#grids.size >= GRIDS) this.#grids.clear();
      this.#grids.set(radius, (grid = new CellGrid(this.surface.positions, radius)));
    }
    return grid;
  }

  /** Raises the weights of what lies about a straight piece of the stroke; those that it raised. */
  #weigh(from: Dab, to: Dab): number[] {
    const { radius, soft } = this.#stroke!;
    const { positions, normals } = this.surface;
    const [a, b] = [from.place, to.place];
    const way = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
    const square = way[0] ** 2 + way[1] ** 2 + way[2] ** 2;
    const low = a.map((x, c) => Math.min(x, b[c]) - radius);
    const high = a.map((x, c) => Math.max(x, b[c]) + radius);
    const raised: number[] = [];
    this.#gridFor(radius).near(low, high, (i) => {
      const [x, y, z] = [positions[3 * i] - a[0], positions[3 * i + 1] - a[1], positions[3 * i + 2] - a[2]];
      const t = square > 0 ? Math.min(1, Math.max(0, (x * way[0] + y * way[1] + z * way[2]) / square)) : 0;
      const away = Math.sqrt((x - t * way[0]) ** 2 + (y - t * way[1]) ** 2 + (z - t * way[2]) ** 2) / radius;
      if (away >= 1) return;
      let facing = 0;
      for (let c = 0; c < 3; c++) facing += normals[3 * i + c] * (from.normal[c] + t * (to.normal[c] - from.normal[c]));
      const fade = soft > 0 ? smoothstep((1 - away) / soft) : 1;
      const pressure = from.pressure + t * (to.pressure - from.pressure);
      const weight = fade * pressure * smoothstep((facing - AWAY) / -AWAY);
      if (weight <= this.#weights[i]) return;
      if (this.#weights[i] === 0) this.#touch(i);
      this.#weights[i] = weight;
      raised.push(i);
    });
    return raised;
  }

  #touch(i: number): void {
    this.#touched.push(i);
    this.#before[i] = this.values[i];
    if (this.#stroke!.does === 'soften') this.#means[i] = NaN;
  }

  #valueOf(i: number): number {
    const { does, strength } = this.#stroke!;
    const before = this.#before[i];
    if (does === 'soften' && Number.isNaN(this.#means[i])) this.#means[i] = this.#meanAbout(i);
    const goal = does === 'paint' ? 1 : does === 'erase' ? 0 : this.#means[i];
    return before + strength * this.#weights[i] * (goal - before);
  }

  /** Mean of the mask about a vertex, by area, as it was before the stroke. */
  #meanAbout(i: number): number {
    const { positions } = this.surface;
    const { radius } = this.#stroke!;
    const reach = BLUR * radius;
    const [x, y, z] = [positions[3 * i], positions[3 * i + 1], positions[3 * i + 2]];
    let sum = 0;
    let weights = 0;
    this.#gridFor(radius).near([x - reach, y - reach, z - reach], [x + reach, y + reach, z + reach], (k) => {
      const away =
        ((positions[3 * k] - x) ** 2 + (positions[3 * k + 1] - y) ** 2 + (positions[3 * k + 2] - z) ** 2) / reach ** 2;
      if (away >= 1) return;
      const weight = this.#areas![k] * (1 - away) ** 2;
      sum += weight * (this.#weights[k] > 0 ? this.#before[k] : this.values[k]);
      weights += weight;
    });
    return weights > 0 ? sum / weights : this.#before[i];
  }
}

/** A third of the area of all faces at each vertex, square metres. */
function vertexAreas({ positions: p, indices }: PaintedSurface): Float32Array {
  const areas = new Float32Array(p.length / 3);
  for (let f = 0; f < indices.length; f += 3) {
    const [a, b, c] = [3 * indices[f], 3 * indices[f + 1], 3 * indices[f + 2]];
    const [ux, uy, uz] = [p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]];
    const [vx, vy, vz] = [p[c] - p[a], p[c + 1] - p[a + 1], p[c + 2] - p[a + 2]];
    const area = Math.hypot(uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx) / 6;
    areas[a / 3] += area;
    areas[b / 3] += area;
    areas[c / 3] += area;
  }
  return areas;
}
