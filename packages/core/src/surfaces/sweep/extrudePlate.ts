import { mapped } from '../../geometry/filled';
import { type Mesh, meshWith } from '../../geometry/mesh';
import { cross, type Vec3 } from '../../geometry/vec';
import type { Region } from '../../outline/region';
import { regionProfile } from './sweepProfile';

/** A plane in space: where its own origin lies, and its two axes. */
export interface Plane {
  origin: Vec3;
  x: Vec3;
  y: Vec3;
}

/** Regions with their holes as a solid of a depth, half of it on each side of their plane. */
export function plateOf(regions: readonly Region[], depth: number, hard: boolean, { origin, x, y }: Plane): Mesh {
  const profile = regionProfile(regions, hard);
  const z = cross(x, y);
  const n = profile.x.length;
  const [positions, normals, uvs]: number[][] = [[], [], []];
  const place = (u: number, v: number, w: number): void =>
    void positions.push(...[0, 1, 2].map((c) => origin[c] + u * x[c] + v * y[c] + w * z[c]));
  const way = (u: number, v: number, w: number): void =>
    void normals.push(...[0, 1, 2].map((c) => u * x[c] + v * y[c] + w * z[c]));
  const column = (j: number): [number, number] => [profile.x[j], profile.y[j]];
  // Both faces, then both rims of the walls.
  for (const [side, wall] of [
    [1, false],
    [-1, false],
    [1, true],
    [-1, true],
  ] as const)
    for (let j = 0; j < n; j++) {
      const [u, v] = column(j);
      place(u, v, (side * depth) / 2);
      if (wall) way(profile.nx[j], profile.ny[j], 0);
      else way(0, 0, side);
      uvs.push(...(wall ? [profile.share[j] * profile.round, (side * depth) / 2] : [u, v]));
    }
  const indices: number[] = [];
  for (let t = 0; t < profile.cap.length; t += 3) {
    const [a, b, c] = profile.cap.subarray(t, t + 3);
    indices.push(a, b, c, n + a, n + c, n + b);
  }
  for (let j = 1; j < n; j++) {
    if (!profile.joined[j]) continue;
    const [a, b, c, d] = [2 * n + j - 1, 2 * n + j, 3 * n + j - 1, 3 * n + j];
    indices.push(c, d, b, c, b, a);
  }
  const heights = positions.filter((_, i) => i % 3 === 1);
  const [low, high] = heights.reduce(([a, b], h) => [Math.min(a, h), Math.max(b, h)], [Infinity, -Infinity]);
  return meshWith({
    positions: Float32Array.from(positions),
    normals: Float32Array.from(normals),
    uvs: Float32Array.from(uvs),
    indices: Uint32Array.from(indices),
    u: mapped(Float32Array, heights, (h) => (high > low ? (h - low) / (high - low) : 0)),
  });
}
