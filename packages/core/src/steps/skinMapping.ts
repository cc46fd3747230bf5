import type { Mesh } from '../geometry/mesh';

/**
 * Where each vertex of a skin lies in a picture that covers it once: 0..1 around it, and 0..1 along it. Along a path that is the rest
 * coordinate: the picture stays where it is while the path grows.
 */
export function skinMapping({ uvs, u }: Mesh): (vertex: number) => readonly [number, number] {
  const [low, high] = [
    [Infinity, Infinity],
    [-Infinity, -Infinity],
  ];
  for (let i = 0; i < uvs.length; i++) {
    low[i & 1] = Math.min(low[i & 1], uvs[i]);
    high[i & 1] = Math.max(high[i & 1], uvs[i]);
  }
  const share = (value: number, way: 0 | 1): number =>
    high[way] > low[way] ? (value - low[way]) / (high[way] - low[way]) : 0;
  return (vertex) => [share(uvs[2 * vertex], 0), u ? u[vertex] : share(uvs[2 * vertex + 1], 1)];
}
