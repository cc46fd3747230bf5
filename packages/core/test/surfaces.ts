import type { Mesh } from '../src/geometry/mesh';
import { at, cross, dot, sub } from '../src/geometry/vec';

/**
 * Edges without a neighbour or with one that runs the same way, and the Euler characteristic, by numbers alone: places that fall
 * together do not count as one.
 */
export function surfaceOf({ indices }: Mesh): { open: number; flipped: number; euler: number } {
  const edges = new Set<string>();
  let flipped = 0;
  for (let i = 0; i < indices.length; i += 3)
    for (let k = 0; k < 3; k++) {
      const way = `${indices[i + k]} ${indices[i + ((k + 1) % 3)]}`;
      if (edges.has(way)) flipped++;
      edges.add(way);
    }
  let open = 0;
  for (const way of edges) if (!edges.has(way.split(' ').reverse().join(' '))) open++;
  return { open, flipped, euler: new Set(indices).size - (edges.size + open) / 2 + indices.length / 3 };
}

/** Least cosine between faces and the normals of their corners. */
export function leastFacing({ positions, normals, indices }: Mesh): number {
  let worst = 1;
  for (let f = 0; f < indices.length; f += 3) {
    const [a, b, c] = [indices[f], indices[f + 1], indices[f + 2]];
    const face = cross(sub(at(positions, b), at(positions, a)), sub(at(positions, c), at(positions, a)));
    const size = Math.hypot(...face);
    if (size > 1e-9) for (const i of [a, b, c]) worst = Math.min(worst, dot(face, at(normals, i)) / size);
  }
  return worst;
}
