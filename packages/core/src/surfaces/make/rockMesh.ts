import type { YieldNow } from '../../yieldNow';
import { noise3 } from '../../fields/noise';
import { random } from '../../fields/random';
import { type Mesh, meshWith } from '../../geometry/mesh';
import { dot, unit, type Vec3 } from '../../geometry/vec';
import { followedNormals } from '../edit/updateNormals';
import { boxAround } from '../../geometry/box';

/** What a boulder is like. */
export interface Rock {
  /** Its box, metres. */
  width: number;
  height: number;
  depth: number;
  /** Squares along each side of the cube that its surface is laid out on. */
  pieces: number;
  /** Flat sides along which it has broken. */
  sides: number;
  /** 0 worn round, 1 sharp edges between its sides. */
  edges: number;
  /** Large bulges and hollows, as a share of its radius. */
  lumps: number;
  /** Fine relief, as a share of its radius. */
  rough: number;
  /** Size of the fine relief, as a share of its radius. */
  grain: number;
  /** Share of its height that is cut off level below. */
  base: number;
  seed: number;
}

/** Where what no side bounds ends, in radii. */
const OUTER = 1.25;
/** Large bulges, in radii. */
const LUMP = 0.9;

/**
 * A boulder on the ground: the body bounded by planes of chance, whose gauges are added by a p-norm, so that its edges go
 * from round to sharp and it stays convex (the sum of powers of superquadrics: Barr, Superquadrics and Angle-Preserving
 * Transformations, IEEE Computer Graphics and Applications 1, 1981); relief is added along the radius. Closed, in one
 * piece; more pieces show the same boulder more finely.
 */
export async function rock(r: Rock, yieldNow: YieldNow): Promise<Mesh> {
  const { directions, indices } = await cubeSphere(r.pieces, yieldNow);
  const n = directions.length / 3;
  await yieldNow();
  const radius = radiusOf(r);
  const positions = new Float32Array(3 * n);
  for (let i = 0; i < n; i++) {
    if (i % 512 === 511) await yieldNow();
    const [x, y, z] = [directions[3 * i], directions[3 * i + 1], directions[3 * i + 2]];
    const here = radius([x, y, z]);
    positions.set([x * here, y * here, z * here], 3 * i);
  }
  const shares = await fitted(positions, r, yieldNow);
  const flat = meshWith({
    positions,
    normals: directions,
    uvs: new Float32Array(2 * n),
    indices,
    u: shares,
  });
  return { ...flat, normals: await followedNormals(flat, positions, yieldNow) };
}

/** How far the surface is from the middle in a direction, before it is fitted to its box. */
function radiusOf({ sides, edges, lumps, rough, grain, seed }: Rock): (way: Vec3) => number {
  const planes = Array.from({ length: sides }, (_, k) => ({
    normal: spread(k, sides, seed),
    away: 0.72 + 0.28 * random(seed, k, 3),
  }));
  const power = 2 * 40 ** edges;
  const out = new Float64Array(1);
  const noise = (way: Vec3, size: number, detail: number, layer: number): number => {
    const shape = { detail, roughness: 0.55, seed: seed + layer, period: 0 };
    noise3(way[0] / size, way[1] / size, way[2] / size, 0, shape, out);
    return out[0];
  };
  return (way) => {
    let sum = OUTER ** -power;
    for (const { normal, away } of planes) {
      const facing = dot(way, normal);
      if (facing > 0) sum += (facing / away) ** power;
    }
    const bulge = lumps === 0 ? 0 : lumps * noise(way, LUMP, 2, 0);
    const relief = rough === 0 ? 0 : rough * noise(way, grain, 5, 1);
    return sum ** (-1 / power) * Math.exp(bulge + relief);
  };
}

/** The k-th of n directions, well spread over the sphere (Vogel's spiral on it), each then moved a little by chance. */
function spread(k: number, n: number, seed: number): Vec3 {
  const up = 1 - (2 * k + 1) / n;
  const out = Math.sqrt(1 - up * up);
  const turn = k * Math.PI * (3 - Math.sqrt(5)) + 2 * Math.PI * random(seed, 0, 4);
  const loose = 1.2 / Math.sqrt(n);
  const aside = (c: number): number => loose * (2 * random(seed, k, c) - 1);
  return unit([out * Math.cos(turn) + aside(0), up + aside(1), out * Math.sin(turn) + aside(2)]);
}

/** Stretches a body to its box and stands it on the ground, level below. @returns how high in it each vertex is, 0..1 */
async function fitted(
  positions: Float32Array,
  { width, height, depth, base }: Rock,
  yieldNow: YieldNow,
): Promise<Float32Array> {
  await yieldNow();
  const { low: under, high: over } = boxAround(positions);
  // Drawn in towards the middle, which stays above: nothing folds.
  const floor = Math.min(0.05 * under[1], under[1] + base * (over[1] - under[1]));
  for (let i = 0; i < positions.length; i += 3) {
    const inwards = Math.min(1, floor / Math.min(floor, positions[i + 1]));
    for (let c = 0; c < 3; c++) positions[i + c] *= inwards;
  }
  await yieldNow();
  const { low, high } = boxAround(positions);
  await yieldNow();
  const size = [width, height, depth];
  const shares = new Float32Array(positions.length / 3);
  for (let i = 0; i < positions.length; i++) {
    const c = i % 3;
    const share = (positions[i] - low[c]) / (high[c] - low[c]);
    if (c === 1) shares[Math.floor(i / 3)] = share;
    positions[i] = size[c] * (c === 1 ? share : share - 0.5);
  }
  await yieldNow();
  return shares;
}

/** So many rows of squares between two yields. */
const ROWS = 16;

/** The surface of a cube in squares, blown up to a sphere evenly by angle; every vertex stands once. */
async function cubeSphere(
  pieces: number,
  yieldNow: YieldNow,
): Promise<{ directions: Float32Array; indices: Uint32Array }> {
  // What stands on two sides or three is kept on the first of them.
  const row = pieces + 1;
  const kept = new Int32Array(6 * row * row).fill(-1);
  const directions = new Float32Array(3 * (6 * pieces * pieces + 2));
  let made = 0;
  const indices = new Uint32Array(36 * pieces * pieces);
  const bent = (k: number): number => Math.tan(((2 * k) / pieces - 1) * (Math.PI / 4));
  const cell = new Uint32Array(3);
  const corner = (axis: number, side: number, i: number, j: number): number => {
    cell[axis] = side;
    cell[axis === 2 ? 0 : axis + 1] = i;
    cell[axis === 0 ? 2 : axis - 1] = j;
    let on = 0;
    while (cell[on] > 0 && cell[on] < pieces) on++;
    const face = 2 * on + (cell[on] === 0 ? 0 : 1);
    const slot = (face * row + cell[on === 2 ? 0 : on + 1]) * row + cell[on === 0 ? 2 : on - 1];
    if (kept[slot] >= 0) return kept[slot];
    kept[slot] = made;
    directions.set(unit([bent(cell[0]), bent(cell[1]), bent(cell[2])]), 3 * made);
    return made++;
  };
  let write = 0;
  for (let axis = 0; axis < 3; axis++)
    for (const side of [0, pieces])
      for (let i = 0; i < pieces; i++) {
        if (i % ROWS === 0) await yieldNow();
        for (let j = 0; j < pieces; j++) {
          // On the side of 0 the squares lie the other way about, so that they look outwards too.
          const a = corner(axis, side, i, j);
          const b = side ? corner(axis, side, i + 1, j) : corner(axis, side, i, j + 1);
          const c = side ? corner(axis, side, i, j + 1) : corner(axis, side, i + 1, j);
          const d = corner(axis, side, i + 1, j + 1);
          // Halved now one way, now the other: no edge runs with the squares.
          const halved = (i + j) % 2 === 1;
          indices[write] = a;
          indices[write + 1] = b;
          indices[write + 2] = halved ? c : d;
          indices[write + 3] = halved ? b : a;
          indices[write + 4] = d;
          indices[write + 5] = c;
          write += 6;
        }
      }
  return { directions, indices };
}
