import type { YieldNow } from '../../yieldNow';
import { hash } from '../../fields/random';
import type { Mesh } from '../../geometry/mesh';
import type { SurfacePlaces } from '../../geometry/topology/surfacePlaces';
import { type Density, Faces, fraction, Places } from './darts';
import { Gaps, roomAt } from './fillGaps';
import { PlacesGrid } from '../../geometry/search/placesGrid';

/** Work between two yields: a few milliseconds. */
const CHUNK = 4096;
/** Faces that are filled between two yields: each may take as long as several darts. */
const FACES = 1024;

/** Darts that are thrown for one place before it is left out: as thin as a density gets. */
const TRIES = 256;

/**
 * Places at random, evenly by area times density. Each hangs on its own number alone: more of them move none.
 * @returns as many as asked for, or fewer where next to nothing has any density
 */
export async function scatteredAtRandom(
  mesh: Mesh,
  count: number,
  seed: number,
  density: Density | null,
  yieldNow: YieldNow,
): Promise<SurfacePlaces> {
  const places = { faces: new Uint32Array(count), weights: new Float32Array(3 * count) };
  const faces = new Faces(mesh, density);
  await faces.measure(yieldNow);
  let found = 0;
  for (let k = 0; k < count && faces.area > 0; k++) {
    if (k % CHUNK === CHUNK - 1) await yieldNow();
    for (let round = 0; round < TRIES; round++) {
      faces.throw(seed, k, round);
      const { face, w0, w1, w2 } = faces;
      if (density && fraction(hash(seed, k, round, 4)) * faces.mostOn(face) >= density(face, w0, w1, w2)) continue;
      places.faces[found] = face;
      places.weights[3 * found] = w0;
      places.weights[3 * found + 1] = w1;
      places.weights[3 * found + 2] = w2;
      found++;
      break;
    }
  }
  return { faces: places.faces.subarray(0, found), weights: places.weights.subarray(0, 3 * found) };
}

/** Darts that are thrown for each place before next to nothing is said to have any density: many times what it takes. */
const PATIENCE = 300;

/** Darts a level, for each square of its radius that the mesh has: where nothing else follows, and where gaps are filled. */
const DARTS = 4;
const FEW_DARTS = 1;

/**
 * Blue noise by darts with a radius that shrinks level by level (McCool, Fiume, Hierarchical Poisson disk sampling
 * distributions, Graphics Interface 1992): every first part of the places is well spread, and more of them move none.
 */
export class BlueNoise {
  readonly #places = new Places();
  readonly #faces: Faces;
  #level = 0;
  #thrown = 0;
  #radius = 0;
  /** The distance at which there is no room for another. */
  #full: number | null = null;

  constructor(
    mesh: Mesh,
    private readonly seed: number,
    private readonly density: Density | null,
  ) {
    this.#faces = new Faces(mesh, density);
  }

  /** The first so many places; fewer where next to nothing has any density. */
  async first(count: number, yieldNow: YieldNow): Promise<SurfacePlaces> {
    await this.#faces.measure(yieldNow);
    if (this.#level === 0) this.#radius = Math.sqrt(this.#faces.area);
    while (this.#places.count < count && this.#faces.area > 0 && this.#thrown < PATIENCE * (count + 1000)) {
      await this.#throw(DARTS, this.#radius, this.#level++, yieldNow);
      this.#radius *= 2 ** (-1 / 6);
    }
    return this.#places.first(count);
  }

  /**
   * Places no two of which are nearer than a distance, with no room left for another: what is not covered by their discs is
   * filled until nothing is left.
   */
  async apart(spacing: number, yieldNow: YieldNow): Promise<SurfacePlaces> {
    await this.#faces.measure(yieldNow);
    if (!(this.#faces.area > 0)) return this.#places.first(0);
    if (this.#full === spacing) return this.#places.first(Infinity);
    const levels = Math.max(0, Math.ceil(2 * Math.log2(Math.sqrt(this.#faces.area) / spacing)));
    for (let level = levels; level >= 0; level--)
      await this.#throw(FEW_DARTS, spacing * 2 ** (level / 2), levels - level, yieldNow);
    await this.#fill(spacing, yieldNow);
    this.#full = spacing;
    return this.#places.first(Infinity);
  }

  /** Darts of one level. */
  async #throw(each: number, radius: number, level: number, yieldNow: YieldNow): Promise<void> {
    const faces = this.#faces;
    const grid = new PlacesGrid(this.#places, 2 * radius);
    const darts = Math.ceil((each * faces.area) / (radius * radius));
    this.#thrown += darts;
    for (let k = 0; k < darts; k++) {
      if (k % CHUNK === CHUNK - 1) await yieldNow();
      faces.throw(this.seed, k, level);
      faces.locate();
      this.#take(grid, radius);
    }
  }

  /** Takes the dart that was thrown last where it has room. */
  #take(grid: PlacesGrid, radius: number): boolean {
    const { face, w0, w1, w2, x, y, z } = this.#faces;
    const factor = roomAt(this.density, face, w0, w1, w2);
    if (factor === 0 || grid.isNear(x, y, z, radius * factor)) return false;
    this.#places.add(face, w0, w1, w2, x, y, z);
    grid.add(this.#places.count - 1);
    return true;
  }

  /** Fills what room is left, faces in an order of chance, so that none leaves its mark. */
  async #fill(radius: number, yieldNow: YieldNow): Promise<void> {
    const gaps = new Gaps(
      this.#faces,
      this.#places,
      new PlacesGrid(this.#places, 3 * radius),
      radius,
      this.density,
      this.seed,
    );
    const n = this.#faces.mesh.indices.length / 3;
    const step = stepThrough(n, this.seed);
    let face = n > 0 ? hash(this.seed, n, 8) % n : 0;
    for (let f = 0; f < n; f++) {
      if (f % FACES === FACES - 1) await yieldNow();
      const large = gaps.fill(face, yieldNow);
      if (large) await large;
      face = (face + step) % n;
    }
  }
}

/** A step of chance through n numbers that comes to all of them: it has no divisor in common with n. */
function stepThrough(n: number, seed: number): number {
  if (n < 2) return 0;
  const common = (a: number, b: number): number => (b === 0 ? a : common(b, a % b));
  let step = 1 + (hash(seed, n, 7) % (n - 1));
  while (common(step, n) !== 1) step = step === n - 1 ? 1 : step + 1;
  return step;
}
