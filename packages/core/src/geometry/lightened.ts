import { type Mesh } from './mesh';
import { at, cross, sub, unit } from './vec';

/** What drawing needs of a mesh. */
export type Drawable = Pick<Mesh, 'positions' | 'normals' | 'indices' | 'colors' | 'glow'>;

/** Cells along the longest side that are tried, finest first. */
const DIVISIONS = [32, 24, 16, 12, 8, 6, 5, 4, 3, 2];

/**
 * A stand-in for a mesh with few enough vertices and faces, for drawing many copies quickly: vertices in one cell of a
 * grid become one in their middle, faces that keep three corners stay (Rossignac, Borrel: Multi-resolution 3D
 * approximations for rendering complex scenes, in Modeling in Computer Graphics, 1993).
 * @param load the most vertices and faces together
 * @returns the mesh itself where it is light enough; null where no grid leaves so few with a shape to them
 */
export function lightened(mesh: Drawable, load: number): Drawable | null {
  if ((mesh.positions.length + mesh.indices.length) / 3 <= load) return mesh;
  const box = boxOf(mesh.positions);
  const side = Math.max(...box.sides);
  if (!(side > 0)) return null;
  // A surface cut into d cells a side has about as many of them as the square of d.
  const most = 2 * Math.sqrt(load);
  for (const divisions of DIVISIONS) {
    if (divisions > most) continue;
    const light = clustered(mesh, box.low, side / divisions);
    const [vertices, faces] = [light.positions.length / 3, light.indices.length / 3];
    if (faces === 0) return null;
    if (vertices + faces <= load) return stretched(light, box);
  }
  return null;
}

interface Box {
  low: number[];
  sides: number[];
}

function boxOf(positions: Float32Array): Box {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < positions.length; i++) {
    low[i % 3] = Math.min(low[i % 3], positions[i]);
    high[i % 3] = Math.max(high[i % 3], positions[i]);
  }
  return { low, sides: high.map((value, c) => value - low[c]) };
}

/** Middles lie inside what they stand for: drawn out again to its box, along every side that is left. */
function stretched(light: Drawable, box: Box): Drawable {
  const { low, sides } = boxOf(light.positions);
  const factors = sides.map((side, c) => (side > 0.1 * box.sides[c] ? box.sides[c] / side : 1));
  return { ...light, positions: light.positions.map((x, i) => box.low[i % 3] + (x - low[i % 3]) * factors[i % 3]) };
}

function clustered({ positions, normals, indices, colors, glow }: Drawable, low: number[], cell: number): Drawable {
  const n = positions.length / 3;
  const of = new Uint32Array(n);
  const cells = new Map<number, number>();
  for (let i = 0; i < n; i++) {
    const [x, y, z] = [0, 1, 2].map((c) => Math.floor((positions[3 * i + c] - low[c]) / cell));
    const key = x + 64 * (y + 64 * z);
    let cluster = cells.get(key);
    if (cluster === undefined) cells.set(key, (cluster = cells.size));
    of[i] = cluster;
  }
  const counts = new Float32Array(cells.size);
  for (const cluster of of) counts[cluster]++;
  const mean = (values: Float32Array, width: number): Float32Array => {
    const out = new Float32Array(width * cells.size);
    for (let i = 0; i < n; i++)
      for (let c = 0; c < width; c++) out[width * of[i] + c] += values[width * i + c] / counts[of[i]];
    return out;
  };
  const kept: number[] = [];
  const known = new Set<string>();
  for (let f = 0; f < indices.length; f += 3) {
    const [a, b, c] = [of[indices[f]], of[indices[f + 1]], of[indices[f + 2]]];
    if (a === b || b === c || c === a) continue;
    const least = Math.min(a, b, c);
    const turned = least === a ? [a, b, c] : least === b ? [b, c, a] : [c, a, b];
    const name = turned.join();
    if (known.has(name)) continue;
    known.add(name);
    kept.push(...turned);
  }
  const light: Drawable = {
    positions: mean(positions, 3),
    normals: mean(normals, 3),
    indices: Uint32Array.from(kept),
    colors: colors && mean(colors, 3),
    glow: glow && mean(glow, 1),
  };
  const { positions: places, normals: ways } = light;
  const short = (i: number): boolean => Math.hypot(...ways.subarray(3 * i, 3 * i + 3)) < 1e-2;
  // Opposite sides that fall together leave no direction: there it is that of a face.
  for (let f = 0; f < kept.length; f += 3) {
    const [a, b, c] = kept.slice(f, f + 3);
    const flat = cross(sub(at(places, b), at(places, a)), sub(at(places, c), at(places, a)));
    for (const i of [a, b, c]) if (short(i)) ways.set(unit(flat), 3 * i);
  }
  for (let i = 0; i < cells.size; i++) ways.set(unit(at(ways, i)), 3 * i);
  return light;
}
