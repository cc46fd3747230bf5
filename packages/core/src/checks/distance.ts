import { PointTree } from '../geometry/search/pointTree';

/**
 * How far two sets of points are from each other at most: the Hausdorff distance, each point against the nearest of the
 * other set. A form that has turned onto itself by its own symmetry has distance 0, whatever its points are called.
 * @param a,b xyz triples, metres
 * @returns metres; 0 for two empty sets, Infinity when only one is empty
 */
export function setDistance(a: Float32Array, b: Float32Array): number {
  if (a.length === 0 || b.length === 0) return a.length === b.length ? 0 : Infinity;
  if (a.length === b.length) {
    // Point by point is an upper bound, and nearly always the answer.
    let worst = 0;
    for (let i = 0; i < a.length; i += 3) worst = Math.max(worst, squared(a, i, b, i));
    if (worst < 1e-12) return Math.sqrt(worst);
  }
  return Math.max(oneWay(a, new PointTree(b)), oneWay(b, new PointTree(a)));
}

function oneWay(from: Float32Array, tree: PointTree): number {
  let worst = 0;
  for (let i = 0; i < from.length; i += 3)
    worst = Math.max(worst, tree.distanceTo(from[i], from[i + 1], from[i + 2], worst));
  return worst;
}

function squared(a: Float32Array, i: number, b: Float32Array, j: number): number {
  const x = a[i] - b[j];
  const y = a[i + 1] - b[j + 1];
  const z = a[i + 2] - b[j + 2];
  return x * x + y * y + z * z;
}
