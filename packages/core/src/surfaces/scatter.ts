import { hash } from '../fields/random';
import { type Mesh } from '../geometry/mesh';
import { type SurfacePlaces } from '../geometry/surfacePlaces';

type Breathe = () => Promise<void>;

/** How likely a place is to be taken, 0..1, by its face and the weights of the face's corners there. */
export type Density = (face: number, w0: number, w1: number, w2: number) => number;

/** Work between two breaths: a few milliseconds. */
const CHUNK = 4096;

/** Numbers 0 ≤ x < 1 of one element, drawn one after another. */
const fraction = (number: number): number => number / 4294967296;

/** Another number of the same element (finaliser of MurmurHash3, as in `hash`). */
function stirred(h: number): number {
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return (h ^ (h >>> 16)) >>> 0;
}

/** Places drawn on a mesh evenly by area, in flat arrays that grow. */
class Places {
  count = 0;
  faces: Uint32Array;
  weights: Float32Array;
  positions: Float64Array;

  constructor(room = 64) {
    this.faces = new Uint32Array(room);
    this.weights = new Float32Array(3 * room);
    this.positions = new Float64Array(3 * room);
  }

  add(face: number, w0: number, w1: number, w2: number, x: number, y: number, z: number): void {
    const k = this.count++;
    if (k === this.faces.length) {
      this.faces = larger(this.faces, new Uint32Array(2 * k));
      this.weights = larger(this.weights, new Float32Array(6 * k));
      this.positions = larger(this.positions, new Float64Array(6 * k));
    }
    this.faces[k] = face;
    this.weights[3 * k] = w0;
    this.weights[3 * k + 1] = w1;
    this.weights[3 * k + 2] = w2;
    this.positions[3 * k] = x;
    this.positions[3 * k + 1] = y;
    this.positions[3 * k + 2] = z;
  }

  first(count: number): SurfacePlaces {
    const n = Math.min(count, this.count);
    return { faces: this.faces.slice(0, n), weights: this.weights.slice(0, 3 * n) };
  }
}

function larger<A extends Uint32Array | Float32Array | Float64Array>(from: A, to: A): A {
  to.set(from);
  return to;
}

/** Faces of a mesh, to be drawn by their area: a table of sums with a guide into it (Chen, Asau, On generating random variates from an empirical distribution, AIIE Transactions 6, 1974). */
class Faces {
  /** Area of all faces times the most that their density comes to, square metres. */
  readonly area: number;
  readonly #sums: Float64Array;
  readonly #guide: Uint32Array;
  readonly #most: Float32Array | null;
  /** The dart that was thrown last. */
  face = 0;
  w0 = 0;
  w1 = 0;
  w2 = 0;
  x = 0;
  y = 0;
  z = 0;

  constructor(
    readonly mesh: Mesh,
    density: Density | null,
  ) {
    const { positions: p, indices } = mesh;
    const n = indices.length / 3;
    const sums = new Float64Array(n);
    this.#most = density && new Float32Array(n);
    let sum = 0;
    for (let f = 0; f < n; f++) {
      const [a, b, c] = [3 * indices[3 * f], 3 * indices[3 * f + 1], 3 * indices[3 * f + 2]];
      const [ux, uy, uz] = [p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]];
      const [vx, vy, vz] = [p[c] - p[a], p[c + 1] - p[a + 1], p[c + 2] - p[a + 2]];
      const [nx, ny, nz] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
      const most = density ? mostOn(density, f, n) : 1;
      if (this.#most) this.#most[f] = most;
      sum += (Math.sqrt(nx * nx + ny * ny + nz * nz) / 2) * most;
      sums[f] = sum;
    }
    this.area = sum;
    this.#sums = sums;
    this.#guide = new Uint32Array(n);
    for (let g = 0, f = 0; g < n; g++) {
      while (f < n - 1 && sums[f] <= (sum * g) / n) f++;
      this.#guide[g] = f;
    }
  }

  /** The most that the density comes to on the face of the last dart. */
  get most(): number {
    return this.#most ? this.#most[this.face] : 1;
  }

  /** Throws a dart evenly by area (Turk, Generating random points in triangles, Graphics Gems, 1990). */
  throw(seed: number, k: number, round: number): void {
    const number = hash(seed, k, round);
    const share = fraction(number);
    const sums = this.#sums;
    const n = sums.length;
    const drawn = share * this.area;
    let f = this.#guide[Math.floor(share * n)];
    while (f < n - 1 && sums[f] <= drawn) f++;
    const root = Math.sqrt(fraction(stirred(number ^ 0x3c6ef372)));
    const t = fraction(stirred(number ^ 0x1b873593));
    this.at(f, 1 - root, root * (1 - t), root * t);
  }

  at(face: number, w0: number, w1: number, w2: number): void {
    const { positions: p, indices } = this.mesh;
    const [a, b, c] = [3 * indices[3 * face], 3 * indices[3 * face + 1], 3 * indices[3 * face + 2]];
    this.face = face;
    this.w0 = w0;
    this.w1 = w1;
    this.w2 = w2;
    this.x = w0 * p[a] + w1 * p[b] + w2 * p[c];
    this.y = w0 * p[a + 1] + w1 * p[b + 1] + w2 * p[c + 1];
    this.z = w0 * p[a + 2] + w1 * p[b + 2] + w2 * p[c + 2];
  }
}

/** The most that a density comes to on a face: where there is none no darts are thrown. Large faces are looked at more closely. */
function mostOn(density: Density, face: number, faces: number): number {
  const n = faces < 5000 ? 8 : 2;
  let most = 0;
  for (let i = 0; i <= n; i++)
    for (let j = 0; i + j <= n; j++) most = Math.max(most, density(face, i / n, j / n, (n - i - j) / n));
  return most;
}

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
  breathe: Breathe,
): Promise<SurfacePlaces> {
  const places = new Places(Math.max(1, count));
  const faces = new Faces(mesh, density);
  if (!(faces.area > 0)) return places.first(0);
  for (let k = 0; k < count; k++) {
    if (k % CHUNK === CHUNK - 1) await breathe();
    for (let round = 0; round < TRIES; round++) {
      faces.throw(seed, k, round);
      const { face, w0, w1, w2 } = faces;
      if (density && fraction(hash(seed, k, round, 4)) * faces.most >= density(face, w0, w1, w2)) continue;
      places.add(face, w0, w1, w2, faces.x, faces.y, faces.z);
      break;
    }
  }
  return places.first(count);
}

const EMPTY = new Float64Array(0);

/** Cells stand a little aside: planes through the origin, of which there are many, would run along their borders. */
const ASKEW = 0.37;

/** Places by the cubes that they lie in, to find those near another. */
class Grid {
  #heads: Int32Array;
  #next = new Int32Array(64);
  #mask: number;

  constructor(
    private readonly places: Places,
    readonly cell: number,
  ) {
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
    const per = 1 / this.cell;
    const slot = this.#slot(
      Math.floor(p[3 * k] * per + ASKEW),
      Math.floor(p[3 * k + 1] * per + ASKEW),
      Math.floor(p[3 * k + 2] * per + ASKEW),
    );
    this.#next[k] = this.#heads[slot];
    this.#heads[slot] = k;
  }

  #slot(i: number, j: number, k: number): number {
    return (Math.imul(i, 73856093) ^ Math.imul(j, 19349663) ^ Math.imul(k, 83492791)) & this.#mask;
  }

  /** Whether a place is nearer than `radius` to a point. */
  isNear(x: number, y: number, z: number, radius: number): boolean {
    return this.holds(x, y, z, radius, EMPTY, 0);
  }

  /** Whether one place nearer than `radius` to a point is nearer than that to all of so many other points too. */
  holds(x: number, y: number, z: number, radius: number, others: Float64Array, count: number): boolean {
    const { positions: p } = this.places;
    const r2 = radius * radius;
    const per = 1 / this.cell;
    const i1 = Math.floor((x + radius) * per + ASKEW);
    const j1 = Math.floor((y + radius) * per + ASKEW);
    const k1 = Math.floor((z + radius) * per + ASKEW);
    const j0 = Math.floor((y - radius) * per + ASKEW);
    const k0 = Math.floor((z - radius) * per + ASKEW);
    for (let i = Math.floor((x - radius) * per + ASKEW); i <= i1; i++)
      for (let j = j0; j <= j1; j++)
        for (let k = k0; k <= k1; k++)
          next: for (let n = this.#heads[this.#slot(i, j, k)]; n >= 0; n = this.#next[n]) {
            const px = p[3 * n];
            const py = p[3 * n + 1];
            const pz = p[3 * n + 2];
            if ((px - x) * (px - x) + (py - y) * (py - y) + (pz - z) * (pz - z) >= r2) continue;
            for (let o = 0; o < 3 * count; o += 3) {
              const dx = px - others[o];
              const dy = py - others[o + 1];
              const dz = pz - others[o + 2];
              if (dx * dx + dy * dy + dz * dz >= r2) continue next;
            }
            return true;
          }
    return false;
  }
}

/** Room that a place of a density needs, against one of full density; 0 where none may be. */
const roomFactor = (density: number): number => (density >= 1 ? 1 : density > 1e-4 ? 1 / Math.sqrt(density) : 0);
/** The thinnest density that has room of its own: thinner ones have as much, so that what lies near is soon found. */
const THINNEST = 4;

/** Darts that are thrown for each place before next to nothing is said to have any density: many times what it takes. */
const PATIENCE = 300;

/** Darts a level, for each square of its radius that the mesh has. */
const DARTS = 4;

/**
 * Blue noise by darts with a radius that shrinks level by level (McCool, Fiume, Hierarchical Poisson disk sampling
 * distributions, Graphics Interface 1992): every first part of the places is well spread, and more of them move none.
 */
export class BlueNoise {
  readonly #places = new Places();
  readonly #faces: Faces;
  #level = 0;
  #thrown = 0;
  #radius: number;

  constructor(
    mesh: Mesh,
    private readonly seed: number,
    private readonly density: Density | null,
  ) {
    this.#faces = new Faces(mesh, density);
    this.#radius = Math.sqrt(this.#faces.area);
  }

  /** The first so many places; fewer where next to nothing has any density. */
  async first(count: number, breathe: Breathe): Promise<SurfacePlaces> {
    while (this.#places.count < count && this.#faces.area > 0 && this.#thrown < PATIENCE * (count + 1000)) {
      await this.#throw(this.#radius, this.#level++, breathe);
      this.#radius *= 2 ** (-1 / 6);
    }
    return this.#places.first(count);
  }

  /**
   * Places no two of which are nearer than a distance, with no room left for another: what is not covered by their discs is
   * split and tried until nothing is left (White, Cline, Egbert, Poisson disk point sets by hierarchical dart throwing,
   * IEEE Symposium on Interactive Ray Tracing 2007).
   */
  async apart(spacing: number, breathe: Breathe): Promise<SurfacePlaces> {
    if (!(this.#faces.area > 0)) return this.#places.first(0);
    const levels = Math.max(0, Math.ceil(4 * Math.log2(Math.sqrt(this.#faces.area) / spacing)));
    for (let level = levels; level > 0; level -= 2)
      await this.#throw(spacing * 2 ** (level / 4), levels - level, breathe);
    await this.#fill(spacing, breathe);
    return this.#places.first(Infinity);
  }

  /** Darts of one level. */
  async #throw(radius: number, level: number, breathe: Breathe): Promise<void> {
    const faces = this.#faces;
    const grid = new Grid(this.#places, 2 * radius);
    const darts = Math.ceil((DARTS * faces.area) / (radius * radius));
    this.#thrown += darts;
    for (let k = 0; k < darts; k++) {
      if (k % CHUNK === CHUNK - 1) await breathe();
      faces.throw(this.seed, k, level);
      this.#take(grid, radius);
    }
  }

  /** Takes the dart that was thrown last where it has room. */
  #take(grid: Grid, radius: number): boolean {
    const { face, w0, w1, w2, x, y, z } = this.#faces;
    const factor = this.density ? Math.min(THINNEST, roomFactor(this.density(face, w0, w1, w2))) : 1;
    if (factor === 0 || grid.isNear(x, y, z, radius * factor)) return false;
    this.#places.add(face, w0, w1, w2, x, y, z);
    grid.add(this.#places.count - 1);
    return true;
  }

  async #fill(radius: number, breathe: Breathe): Promise<void> {
    const faces = this.#faces;
    const { positions: p, indices } = faces.mesh;
    const grid = new Grid(this.#places, 2 * radius);
    const n = indices.length / 3;
    // Parts of a face by their corners' weights and their size, ten numbers each, the next one to be tried on top.
    const open = new Float64Array(10 * 128);
    let tried = 0;
    for (let f = 0; f < n; f++) {
      // Faces in an order of chance, so that none leaves its mark.
      const face = shuffled(f, n, this.seed);
      const [a, b, c] = [3 * indices[3 * face], 3 * indices[3 * face + 1], 3 * indices[3 * face + 2]];
      const side = (i: number, j: number): number => Math.hypot(p[i] - p[j], p[i + 1] - p[j + 1], p[i + 2] - p[j + 2]);
      open.set([1, 0, 0, 0, 1, 0, 0, 0, 1, Math.max(side(a, b), side(b, c), side(c, a))]);
      for (let top = 1; top > 0;) {
        if (tried++ % CHUNK === CHUNK - 1) await breathe();
        top = this.#try(face, open, top - 1, grid, radius, tried);
      }
    }
  }

  /** Tries the part on top once; what of it is still open is split. @returns how many parts there are then */
  #try(face: number, open: Float64Array, top: number, grid: Grid, radius: number, tried: number): number {
    const faces = this.#faces;
    const part = 10 * top;
    if (this.#isFull(face, open, part, grid, radius)) return top;
    const size = open[part + 9];
    const small = size < radius / 32;
    let s = 1 / 3;
    let t = 1 / 3;
    if (!small) {
      const root = Math.sqrt(fraction(hash(this.seed, tried, 5)));
      t = root * fraction(hash(this.seed, tried, 6));
      s = 1 - root;
    }
    const u = 1 - s - t;
    faces.at(
      face,
      s * open[part] + u * open[part + 3] + t * open[part + 6],
      s * open[part + 1] + u * open[part + 4] + t * open[part + 7],
      s * open[part + 2] + u * open[part + 5] + t * open[part + 8],
    );
    const took = this.#take(grid, radius);
    if (small || (took && this.#isFull(face, open, part, grid, radius))) return top;
    // Three at the corners, one between their middles.
    for (let at = part; at < part + 3; at++) {
      const a = open[at];
      const b = open[at + 3];
      const d = open[at + 6];
      const ab = (a + b) / 2;
      const bd = (b + d) / 2;
      const da = (d + a) / 2;
      open[at] = ab;
      open[at + 3] = bd;
      open[at + 6] = da;
      open[at + 10] = a;
      open[at + 13] = ab;
      open[at + 16] = da;
      open[at + 20] = b;
      open[at + 23] = bd;
      open[at + 26] = ab;
      open[at + 30] = d;
      open[at + 33] = da;
      open[at + 36] = bd;
    }
    for (let k = 0; k < 4; k++) open[part + 10 * k + 9] = size / 2;
    return top + 4;
  }

  /** Whether no place of a part has room: one disc holds all of it, or nothing may stand there. */
  #isFull(face: number, open: Float64Array, part: number, grid: Grid, radius: number): boolean {
    const faces = this.#faces;
    const corners = this.#corners;
    let least = this.density ? Infinity : 1;
    for (let k = 0; k < 3; k++) {
      const at = part + 3 * k;
      faces.at(face, open[at], open[at + 1], open[at + 2]);
      corners[3 * k] = faces.x;
      corners[3 * k + 1] = faces.y;
      corners[3 * k + 2] = faces.z;
      if (this.density) {
        const factor = roomFactor(this.density(face, open[at], open[at + 1], open[at + 2]));
        if (factor > 0) least = Math.min(least, factor, THINNEST);
      }
    }
    if (least === Infinity) {
      // Where it may nowhere stand at the corners, smaller parts are looked at only down to the size of a disc.
      if (open[part + 9] < radius) return true;
      least = 1;
    }
    // A disc that holds all corners is no further from the first than its radius.
    return grid.holds(corners[0], corners[1], corners[2], radius * least, corners, 3);
  }
  readonly #corners = new Float64Array(9);
}

/** The k-th of n numbers in an order of chance: a step that has no divisor in common with n, from a start of chance. */
function shuffled(k: number, n: number, seed: number): number {
  if (n < 2) return 0;
  let step = 1 + (hash(seed, n, 7) % (n - 1));
  const common = (a: number, b: number): number => (b === 0 ? a : common(b, a % b));
  while (common(step, n) !== 1) step = step === n - 1 ? 1 : step + 1;
  return (k * step + (hash(seed, n, 8) % n)) % n;
}
