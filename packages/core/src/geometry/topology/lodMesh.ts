import type { Mesh } from '../mesh';
import { at, cross, sub, unit } from '../vec';
import { type Box, boxAround, sidesOf } from '../box';

const { floor, sqrt } = Math;

/** What drawing needs of a mesh. */
export type Drawable = Pick<Mesh, 'positions' | 'normals' | 'indices' | 'colors' | 'glow'> & {
  uvs: Float32Array | null;
};

/** Cells along the longest side that are tried, finest first. */
const DIVISIONS = [32, 24, 16, 12, 8, 6, 5, 4, 3, 2];

/**
 * A stand-in for a mesh with few enough vertices and faces, for drawing many copies quickly: vertices in one cell of a
 * grid become one in their middle, faces that keep three corners stay (Rossignac, Borrel: Multi-resolution 3D
 * approximations for rendering complex scenes, in Modeling in Computer Graphics, 1993).
 * @param load the most vertices and faces together
 * @returns the mesh itself where it is light enough; null where no grid leaves so few with a shape to them
 */
export function makeLod(mesh: Drawable, load: number): Drawable | null {
  if ((mesh.positions.length + mesh.indices.length) / 3 <= load) return mesh;
  const box = boxAround(mesh.positions);
  const side = Math.max(...sidesOf(box));
  if (!(side > 0)) return null;
  // A surface cut into d cells a side has about as many of them as the square of d.
  const most = 2 * sqrt(load);
  const clusters = new Clusters(mesh);
  for (const divisions of DIVISIONS) {
    if (divisions > most) continue;
    const count = clusters.cut(box.low, side / divisions, divisions, load);
    if (count === null) continue;
    const faces = clusters.faces();
    if (faces === 0) return null;
    if (count + faces <= load) return stretched(clusters.drawable(), box);
  }
  return null;
}

/** Middles lie inside what they stand for: drawn out again to its box, along every side that is left. */
function stretched(light: Drawable, box: Box): Drawable {
  const own = boxAround(light.positions);
  const [sides, wanted] = [sidesOf(own), sidesOf(box)];
  const factors = sides.map((side, c) => (side > 0.1 * wanted[c] ? wanted[c] / side : 1));
  return { ...light, positions: light.positions.map((x, i) => box.low[i % 3] + (x - own.low[i % 3]) * factors[i % 3]) };
}

/** The vertices of a mesh by the cells of a grid that they lie in, and the faces that are left between these. */
class Clusters {
  readonly #n: number;
  /** The cluster of each vertex. */
  readonly #of: Uint32Array;
  #count = 0;
  /** Corners of the faces that keep three clusters, each face once, from its lowest corner on. */
  readonly #corners: Uint32Array;
  #faces = 0;

  constructor(private readonly mesh: Drawable) {
    this.#n = mesh.positions.length / 3;
    this.#of = new Uint32Array(this.#n);
    this.#corners = new Uint32Array(mesh.indices.length);
  }

  /** Cuts into cells. @returns how many hold a vertex; null as soon as there are more than `most` */
  cut(low: readonly number[], cell: number, divisions: number, most: number): number | null {
    const { positions } = this.mesh;
    const [x0, y0, z0] = low;
    const row = divisions + 1;
    const clusters = new Int32Array(row ** 3).fill(-1);
    let count = 0;
    for (let i = 0; i < this.#n; i++) {
      const x = floor((positions[3 * i] - x0) / cell);
      const y = floor((positions[3 * i + 1] - y0) / cell);
      const z = floor((positions[3 * i + 2] - z0) / cell);
      const slot = x + row * (y + row * z);
      if (clusters[slot] < 0) {
        if (count === most) return null;
        clusters[slot] = count++;
      }
      this.#of[i] = clusters[slot];
    }
    return (this.#count = count);
  }

  /** Finds the faces that are left. @returns how many */
  faces(): number {
    const { indices } = this.mesh;
    const of = this.#of;
    const n = this.#count;
    const known = new Set<number>();
    let write = 0;
    for (let f = 0; f < indices.length; f += 3) {
      let a = of[indices[f]];
      let b = of[indices[f + 1]];
      let c = of[indices[f + 2]];
      if (a === b || b === c || c === a) continue;
      if (b < a && b < c) [a, b, c] = [b, c, a];
      else if (c < a) [a, b, c] = [c, a, b];
      const name = (a * n + b) * n + c;
      if (known.has(name)) continue;
      known.add(name);
      this.#corners[write++] = a;
      this.#corners[write++] = b;
      this.#corners[write++] = c;
    }
    return (this.#faces = write / 3);
  }

  drawable(): Drawable {
    const { positions, normals, colors, glow, uvs } = this.mesh;
    const counts = new Float32Array(this.#count);
    for (let i = 0; i < this.#n; i++) counts[this.#of[i]]++;
    const mean = (values: Float32Array, width: number): Float32Array => {
      const out = new Float32Array(width * this.#count);
      for (let i = 0; i < this.#n; i++)
        for (let c = 0, to = width * this.#of[i]; c < width; c++) out[to + c] += values[width * i + c];
      for (let k = 0; k < out.length; k++) out[k] /= counts[floor(k / width)];
      return out;
    };
    const light: Drawable = {
      positions: mean(positions, 3),
      normals: mean(normals, 3),
      indices: this.#corners.slice(0, 3 * this.#faces),
      colors: colors && mean(colors, 3),
      glow: glow && mean(glow, 1),
      uvs: uvs && mean(uvs, 2),
    };
    straighten(light);
    return light;
  }
}

/** Gives normals length 1. Opposite sides that have fallen together leave no direction: there it is that of a face. */
function straighten({ positions, normals, indices }: Drawable): void {
  const short = (i: number): boolean => normals[3 * i] ** 2 + normals[3 * i + 1] ** 2 + normals[3 * i + 2] ** 2 < 1e-4;
  for (let f = 0; f < indices.length; f += 3) {
    if (!short(indices[f]) && !short(indices[f + 1]) && !short(indices[f + 2])) continue;
    const a = at(positions, indices[f]);
    const flat = unit(cross(sub(at(positions, indices[f + 1]), a), sub(at(positions, indices[f + 2]), a)));
    for (let k = f; k < f + 3; k++) if (short(indices[k])) normals.set(flat, 3 * indices[k]);
  }
  for (let i = 0; i < normals.length; i += 3) {
    const length = sqrt(normals[i] ** 2 + normals[i + 1] ** 2 + normals[i + 2] ** 2);
    for (let c = i; length > 0 && c < i + 3; c++) normals[c] /= length;
  }
}
