import type { YieldNow } from '../../yieldNow';
import { filled } from '../../geometry/filled';
import { noise3 } from '../../fields/noise';
import { type Mesh, meshWith } from '../../geometry/mesh';
import { followedNormals } from '../edit/updateNormals';
import { smoothstep } from '../../fields/smoothstep';

/** What ground is like. */
export interface Terrain {
  /** From side to side, metres. */
  width: number;
  depth: number;
  /** Squares along the longer side. */
  pieces: number;
  /** From the lowest to the highest place, about, metres. */
  relief: number;
  /** From one hill to the next, about, metres. */
  size: number;
  /** 0 round hills, 1 sharp ridges. */
  ridges: number;
  /** Layers of noise. */
  detail: number;
  /** Strength of each finer layer against the one before. */
  roughness: number;
  /** Share of the half width over which it runs out to level ground. */
  rim: number;
  seed: number;
}

/**
 * Ground with hills: gradient noise in layers, or ridges of it, the finer ones stronger on the heights than in the valleys
 * (Musgrave's ridged multifractal: Ebert and others, Texturing and Modeling, 2003, chapter 16). Its rim lies level at 0.
 */
export async function terrain(t: Terrain, yieldNow: YieldNow): Promise<Mesh> {
  const step = Math.max(t.width, t.depth) / t.pieces;
  const [columns, rows] = [t.width, t.depth].map((side) => Math.max(1, Math.round(side / step)));
  const n = (columns + 1) * (rows + 1);
  const [positions, uvs, normals] = [new Float32Array(3 * n), new Float32Array(2 * n), new Float32Array(3 * n)];
  const heights = heightsOf(t);
  for (let row = 0, i = 0; row <= rows; row++) {
    await yieldNow();
    const v = row / rows;
    const z = (0.5 - v) * t.depth;
    for (let column = 0; column <= columns; column++, i++) {
      const u = column / columns;
      const x = (u - 0.5) * t.width;
      positions[3 * i] = x;
      positions[3 * i + 1] = heights(x, z);
      positions[3 * i + 2] = z;
      normals[3 * i + 1] = 1;
      uvs[2 * i] = u;
      uvs[2 * i + 1] = v;
    }
  }
  const indices = new Uint32Array(6 * columns * rows);
  for (let row = 0, write = 0; row < rows; row++) {
    if (row % 64 === 0) await yieldNow();
    for (let column = 0; column < columns; column++, write += 6) {
      const a = row * (columns + 1) + column;
      const c = a + columns + 1;
      // Halved now one way, now the other: no ridge runs with the squares.
      const halved = (row + column) % 2 === 1;
      indices[write] = a;
      indices[write + 1] = a + 1;
      indices[write + 2] = halved ? c : c + 1;
      indices[write + 3] = halved ? a + 1 : a;
      indices[write + 4] = c + 1;
      indices[write + 5] = c;
    }
  }
  await yieldNow();
  const low = Math.min(0, ...chunkedExtremes(positions, Math.min));
  const high = Math.max(1e-9, ...chunkedExtremes(positions, Math.max));
  const u = filled(Float32Array, n, (i) => (positions[3 * i + 1] - low) / (high - low));
  const flat = meshWith({ positions, normals, uvs, indices, u });
  return { ...flat, normals: await followedNormals(flat, positions, yieldNow) };
}

/** The least or greatest height, in an array of one. */
function chunkedExtremes(positions: Float32Array, of: (a: number, b: number) => number): number[] {
  let found = positions[1];
  for (let i = 4; i < positions.length; i += 3) found = of(found, positions[i]);
  return [found];
}

function heightsOf({
  width,
  depth,
  relief,
  size,
  ridges,
  detail,
  roughness,
  rim,
  seed,
}: Terrain): (x: number, z: number) => number {
  const out = new Float64Array(1);
  const layer = { detail: 1, roughness: 0.5, seed, period: 0 };
  return (x, z) => {
    let [sum, most, gain, fine, weight] = [0, 0, 1, 1 / size, 1];
    for (let k = 0; k < detail; k++) {
      noise3(x * fine, 0.37 + 7.1 * k, z * fine, 0, layer, out);
      const soft = 0.5 + out[0];
      const sharp = (1 - Math.min(1, 2 * Math.abs(out[0]))) ** 2;
      const here = soft + (sharp - soft) * ridges;
      sum += gain * weight * here;
      most += gain;
      weight = 1 - ridges + ridges * Math.min(1, Math.max(0, 1.6 * here));
      gain *= roughness;
      fine *= 2.03;
    }
    return relief * calm(x, z, width, depth, rim) * (sum / most - 0.25);
  };
}

/** 1 within, falling to 0 at the rim, smooth. */
function calm(x: number, z: number, width: number, depth: number, rim: number): number {
  if (rim === 0) return 1;
  const out = Math.hypot((2 * x) / width, (2 * z) / depth);
  return smoothstep((1 - out) / rim);
}
