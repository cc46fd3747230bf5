import { mapped } from '../../geometry/filled';
import { arcLengths } from '../../curves/arclength';
import type { Attribute } from '../../geometry/attributes';
import { type Mesh, meshWith } from '../../geometry/mesh';
import { FAR, type FramedPaths, NEAR, pathCount, type Paths } from '../../geometry/paths';
import type { Vec3 } from '../../geometry/vec';
import { cornerNormals } from './cornerNormals';
import type { Place } from './limbs';
import { sharedIndices } from '../sweep/sharedIndices';
import type { SweepHooks } from '../sweep/sweepTubes';

const { abs, cos, sin, max, min, round, PI } = Math;

/** Directions once round, at any angles. */
export interface Round {
  cos: Float64Array;
  sin: Float64Array;
}

/** Directions at these angles, radians. */
export const roundAt = (angles: Float64Array): Round => ({ cos: angles.map(cos), sin: angles.map(sin) });

/** A ring as it stands among the vertices. */
export interface Ring {
  first: number;
  /** How many vertices each column lacks before it, since none are made in the middle of a hole; null where none lack. */
  lacks: Uint8Array | null;
}

/** The vertex of a ring's column. */
export const vertexOf = ({ first, lacks }: Ring, column: number): number =>
  first + column - (lacks ? lacks[column] : 0);

/** How much of a skin there is. */
export interface Size {
  vertices: number;
  faces: number;
  rings: number;
}

/** The arrays of a skin of rings as they fill; a ring has as many columns as there are sides. */
export class SkinMaking {
  readonly #positions: Float32Array;
  readonly #uvs: Float32Array;
  readonly #indices: Uint32Array;
  /** A direction for vertices without a face of any size. */
  readonly #outwards: Float32Array;
  /** First vertex of each ring, between which points it lies, and how far. */
  readonly #first: Uint32Array;
  readonly #from: Uint32Array;
  readonly #to: Uint32Array;
  readonly #share: Float32Array;
  readonly #parts: number[] = [];
  readonly #ownerOf: Uint32Array;
  readonly #perTurn: number;
  #vertex = 0;
  #index = 0;
  #rings = 0;

  /** @param radius thickness at the base, metres: what the texture's scale goes by */
  constructor(
    private readonly paths: FramedPaths,
    readonly sides: number,
    { vertices, faces, rings }: Size,
    radius: number,
  ) {
    this.#positions = new Float32Array(3 * vertices);
    this.#outwards = new Float32Array(3 * vertices);
    this.#uvs = new Float32Array(2 * vertices);
    this.#indices = new Uint32Array(3 * faces);
    this.#first = new Uint32Array(rings + 1);
    this.#from = new Uint32Array(rings);
    this.#to = new Uint32Array(rings);
    this.#share = new Float32Array(rings);
    this.#ownerOf = new Uint32Array(paths.s.length);
    this.#perTurn = radius > 0 ? 1 / (2 * PI * radius) : 1;
    for (let p = 0; p < pathCount(paths); p++) this.#ownerOf.fill(p, paths.offsets[p], paths.offsets[p + 1]);
  }

  /** What follows is of this point's path. */
  begin(point: number): void {
    const path = this.#ownerOf[point];
    if (this.#parts.at(-1) !== path) this.#parts.push(this.#vertex, path);
  }

  /**
   * A circle about a place.
   * @param hole 1 for columns without a vertex, in the middle of a hole
   */
  ring(place: Place, directions: Round, arc: number, hole: Uint8Array | null = null): Ring {
    const { position, normal, side, radius } = place;
    const [px, py, pz] = position;
    const [nx, ny, nz] = normal;
    const [bx, by, bz] = side;
    const positions = this.#positions;
    const outwards = this.#outwards;
    const lacks = hole && new Uint8Array(this.sides);
    let lacking = 0;
    for (let k = 0, w = 3 * this.#vertex; k < this.sides; k++) {
      if (lacks) lacks[k] = lacking;
      if (hole?.[k]) {
        lacking++;
        continue;
      }
      const c = directions.cos[k];
      const s = directions.sin[k];
      const x = nx * c + bx * s;
      const y = ny * c + by * s;
      const z = nz * c + bz * s;
      positions[w] = px + radius * x;
      positions[w + 1] = py + radius * y;
      positions[w + 2] = pz + radius * z;
      outwards[w] = x;
      outwards[w + 1] = y;
      outwards[w + 2] = z;
      w += 3;
    }
    return { first: this.#close(place, this.sides - lacking, arc, hole), lacks };
  }

  /** A ring of places of their own. */
  places(places: readonly Vec3[], like: Place, arc: number, outwards: Vec3): Ring {
    const positions = this.#positions;
    const ways = this.#outwards;
    for (let k = 0, w = 3 * this.#vertex; k < places.length; k++, w += 3) {
      const place = places[k];
      positions[w] = place[0];
      positions[w + 1] = place[1];
      positions[w + 2] = place[2];
      ways[w] = outwards[0];
      ways[w + 1] = outwards[1];
      ways[w + 2] = outwards[2];
    }
    return { first: this.#close(like, this.sides, arc), lacks: null };
  }

  /** A single vertex, where a limb ends. */
  pole(place: Place, way: 1 | -1, arc: number): number {
    this.#positions.set(place.position, 3 * this.#vertex);
    this.#outwards.set(
      place.tangent.map((along) => way * along),
      3 * this.#vertex,
    );
    return this.#close(place, 1, arc);
  }

  #close({ from, to, share }: Place, count: number, arc: number, hole: Uint8Array | null = null): number {
    const first = this.#vertex;
    for (let k = 0, column = 0; k < count; k++, column++) {
      while (hole?.[column]) column++;
      // There and back: no seam has to be cut where it comes round.
      this.#uvs[2 * (first + k)] = 1 - abs((2 * column) / this.sides - 1);
      this.#uvs[2 * (first + k) + 1] = arc * this.#perTurn;
    }
    this.#from[this.#rings] = from;
    this.#to[this.#rings] = to;
    this.#share[this.#rings++] = share;
    this.#vertex += count;
    this.#first[this.#rings] = this.#vertex;
    return first;
  }

  /**
   * Faces from a ring to the next.
   * @param open 1 for columns that are left open, where something comes out
   */
  strip(below: Ring, above: Ring, open: Uint8Array | null = null): void {
    const { sides } = this;
    const indices = this.#indices;
    let write = this.#index;
    for (let k = 0; k < sides; k++) {
      if (open?.[k]) continue;
      const next = k + 1 < sides ? k + 1 : 0;
      const b = vertexOf(below, next);
      const c = vertexOf(above, k);
      indices[write] = vertexOf(below, k);
      indices[write + 1] = b;
      indices[write + 2] = c;
      indices[write + 3] = b;
      indices[write + 4] = vertexOf(above, next);
      indices[write + 5] = c;
      write += 6;
    }
    this.#index = write;
  }

  /** Faces from the edge of a hole to a ring. */
  rim(edge: readonly number[], { first }: Ring): void {
    for (let k = 0; k < this.sides; k++) {
      const next = (k + 1) % this.sides;
      this.#face(edge[k], edge[next], first + k);
      this.#face(edge[next], first + next, first + k);
    }
  }

  /** Faces between a ring and a single vertex beyond it, or at the base before it. */
  fan({ first }: Ring, pole: number, way: 1 | -1): void {
    for (let k = 0; k < this.sides; k++) {
      const next = (k + 1) % this.sides;
      if (way > 0) this.#face(first + k, first + next, pole);
      else this.#face(pole, first + next, first + k);
    }
  }

  #face(a: number, b: number, c: number): void {
    this.#indices[this.#index++] = a;
    this.#indices[this.#index++] = b;
    this.#indices[this.#index++] = c;
  }

  async mesh({ yieldNow, tips }: SweepHooks): Promise<Mesh> {
    const { paths } = this;
    const owners = this.#parts.filter((_, k) => k % 2 === 1);
    const named = Object.entries(paths.named).map(([name, attribute]): [string, Attribute] => {
      const { values, width, blend, domain } = attribute;
      return domain === 'path'
        ? [name, { ...attribute, values: picked(values, width, owners) }]
        : [name, { ...attribute, domain: 'vertex', values: this.#mixed(values, width, blend === 'nearest') }];
    });
    return meshWith({
      positions: this.#positions,
      normals: await cornerNormals(this.#positions, this.#indices, this.#outwards, yieldNow),
      uvs: this.#uvs,
      u: this.#mixed(paths.u, 1),
      tip: tips === false ? null : this.#mixed(behindTips(paths), 1),
      age: paths.age && this.#mixed(paths.age, 1),
      level: paths.level && picked(paths.level, 1, owners),
      indices: sharedIndices(this.#indices),
      parts: mapped(Uint32Array, this.#parts, (entry, k) => (k % 2 === 1 ? paths.ids[entry] : entry)),
      named: Object.fromEntries(named),
    });
  }

  /** What points know, at the vertices of the rings between them. */
  #mixed(values: Float32Array, width: number, nearest = false): Float32Array {
    const out = new Float32Array(width * this.#vertex);
    for (let ring = 0; ring < this.#rings; ring++) {
      const t = nearest ? round(this.#share[ring]) : this.#share[ring];
      for (let c = 0; c < width; c++) {
        const a = values[width * this.#from[ring] + c];
        const b = values[width * this.#to[ring] + c];
        // Endless ones stay so.
        const value = a === b ? a : a + (b - a) * t;
        for (let v = this.#first[ring]; v < this.#first[ring + 1]; v++) out[width * v + c] = value;
      }
    }
    return out;
  }
}

function picked(values: Float32Array, width: number, sources: readonly number[]): Float32Array {
  const out = new Float32Array(width * sources.length);
  sources.forEach((source, k) => out.set(values.subarray(width * source, width * (source + 1)), width * k));
  return out;
}

/** Distance of each point behind the growing ends of its path, metres. */
function behindTips(paths: Paths): Float32Array {
  const { offsets, fronts } = paths;
  const out = new Float32Array(paths.s.length);
  for (let p = 0; p < pathCount(paths); p++) {
    const [a, b] = [offsets[p], offsets[p + 1]];
    const arcs = arcLengths(paths.positions, a, b, paths.closed[p] === 1);
    const length = arcs.length > 0 ? arcs[arcs.length - 1] : 0;
    for (let i = a; i < b; i++) {
      const far = fronts[p] & FAR ? length - arcs[i - a] : Infinity;
      const near = fronts[p] & NEAR ? arcs[i - a] : Infinity;
      out[i] = max(0, min(far, near));
    }
  }
  return out;
}
