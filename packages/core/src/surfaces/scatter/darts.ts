import { hash } from '../../fields/random';
import type { Mesh } from '../../geometry/mesh';
import type { SurfacePlaces } from '../../geometry/topology/surfacePlaces';
import { faceNormal } from '../../geometry/topology/faceNormal';

const { floor, max, min, sqrt } = Math;

/** How likely a place is to be taken, 0..1, by its face and the weights of the face's corners there. */
export interface Density {
  (face: number, w0: number, w1: number, w2: number): number;
  /** Whether faces have values of their own: a corner has one for each. */
  jumps?: boolean;
}

/** Numbers 0 ≤ x < 1 of one element, drawn one after another. */
export const fraction = (number: number): number => number / 4294967296;

/** Another number of the same element (finaliser of MurmurHash3, as in `hash`). */
export function shuffle(h: number): number {
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return (h ^ (h >>> 16)) >>> 0;
}

/** Places drawn on a mesh evenly by area, in flat arrays that grow. */
export class Places {
  count = 0;
  faces = new Uint32Array(64);
  weights = new Float32Array(3 * 64);
  positions = new Float64Array(3 * 64);

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
    const n = min(count, this.count);
    return { faces: this.faces.slice(0, n), weights: this.weights.slice(0, 3 * n) };
  }
}

function larger<A extends Uint32Array | Float32Array | Float64Array>(from: A, to: A): A {
  to.set(from);
  return to;
}

/** So many faces are measured between two yields: at each the density is asked for a few times. */
const PIECE = 8192;

/** Faces of a mesh, to be drawn by their area: a table of sums with a guide into it (Chen, Asau, On generating random variates from an empirical distribution, AIIE Transactions 6, 1974). */
export class Faces {
  /** Area of all faces times the most that their density comes to, square metres; of those that are measured. */
  area = 0;
  /** How many are. */
  #measured = 0;
  readonly #sums: Float64Array;
  readonly #guide: Uint32Array;
  readonly #most: Float32Array | null;
  readonly #density: Density | null;
  /** Densities at vertices, once asked for; none where faces have values of their own. */
  readonly #atVertices: Float64Array | null;
  /** The dart that was thrown last. */
  face = 0;
  w0 = 0;
  w1 = 0;
  w2 = 0;
  /** Where it is, once located. */
  x = 0;
  y = 0;
  z = 0;

  constructor(
    readonly mesh: Mesh,
    density: Density | null,
  ) {
    const n = mesh.indices.length / 3;
    this.#sums = new Float64Array(n);
    this.#guide = new Uint32Array(n);
    this.#density = density;
    this.#atVertices = density && !density.jumps ? new Float64Array(mesh.positions.length / 3).fill(NaN) : null;
    this.#most = density && new Float32Array(n);
  }

  /** Measures all faces: nothing can be thrown before. What is broken off is gone on with. */
  async measure(yieldNow: () => Promise<void>): Promise<void> {
    const n = this.#sums.length;
    if (this.#measured === n) return;
    for (let end = this.#measured; end < n;) {
      await yieldNow();
      this.#measure((end = Math.min(n, end + PIECE)), n);
    }
    const sums = this.#sums;
    for (let g = 0, f = 0; g < n; g++) {
      while (f < n - 1 && sums[f] <= (this.area * g) / n) f++;
      this.#guide[g] = f;
    }
  }

  /** Measures the faces up to number `end` of n. */
  #measure(end: number, n: number): void {
    const { positions: p, indices } = this.mesh;
    const density = this.#density;
    const normal = new Float64Array(3);
    let sum = this.area;
    for (let f = this.#measured; f < end; f++) {
      const most = density ? this.#mostOn(density, f, n) : 1;
      if (this.#most) this.#most[f] = most;
      sum += (faceNormal(p, indices, f, normal) / 2) * most;
      this.#sums[f] = sum;
    }
    this.area = sum;
    this.#measured = end;
  }

  /** The most that the density comes to on a face. */
  mostOn(face: number): number {
    return this.#most ? this.#most[face] : 1;
  }

  /** The density at a corner, 0..2, of a face: most are corners of six, and are asked for once. */
  densityAt(face: number, corner: number): number {
    const density = this.#density;
    if (!density) return 1;
    const known = this.#atVertices;
    if (!known) return density(face, Number(corner === 0), Number(corner === 1), Number(corner === 2));
    const vertex = this.mesh.indices[3 * face + corner];
    let value = known[vertex];
    if (value !== value) {
      value = density(face, Number(corner === 0), Number(corner === 1), Number(corner === 2));
      known[vertex] = value;
    }
    return value;
  }

  /** The most that a density comes to on a face: where there is none no darts are thrown. Large faces are looked at more closely. */
  #mostOn(density: Density, face: number, faces: number): number {
    const n = faces < 5000 ? 8 : 2;
    let most = max(this.densityAt(face, 0), this.densityAt(face, 1), this.densityAt(face, 2));
    for (let i = 0; i < n; i++)
      for (let j = 0; i + j <= n; j++)
        if ((i > 0 || j > 0) && (i > 0 || j < n)) most = max(most, density(face, i / n, j / n, (n - i - j) / n));
    return most;
  }

  /** Throws a dart evenly by area (Turk, Generating random points in triangles, Graphics Gems, 1990). */
  throw(seed: number, k: number, round: number): void {
    const number = hash(seed, k, round);
    const share = fraction(number);
    const sums = this.#sums;
    const n = sums.length;
    const drawn = share * this.area;
    let f = this.#guide[floor(share * n)];
    while (f < n - 1 && sums[f] <= drawn) f++;
    const root = sqrt(fraction(shuffle(number ^ 0x3c6ef372)));
    const t = fraction(shuffle(number ^ 0x1b873593));
    this.face = f;
    this.w0 = 1 - root;
    this.w1 = root * (1 - t);
    this.w2 = root * t;
  }

  at(face: number, w0: number, w1: number, w2: number): void {
    this.face = face;
    this.w0 = w0;
    this.w1 = w1;
    this.w2 = w2;
    this.locate();
  }

  /** Says where in space the dart is. */
  locate(): void {
    const { face, w0, w1, w2 } = this;
    const { positions: p, indices } = this.mesh;
    const a = 3 * indices[3 * face];
    const b = 3 * indices[3 * face + 1];
    const c = 3 * indices[3 * face + 2];
    this.x = w0 * p[a] + w1 * p[b] + w2 * p[c];
    this.y = w0 * p[a + 1] + w1 * p[b + 1] + w2 * p[c + 1];
    this.z = w0 * p[a + 2] + w1 * p[b + 2] + w2 * p[c + 2];
  }
}
