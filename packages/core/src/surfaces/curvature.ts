import { filled, mapped } from '../geometry/filled';
import type { Mesh } from '../geometry/mesh';
import { topologyOf } from '../geometry/topology';
import { at, cross, dot, norm, sub } from '../geometry/vec';

/**
 * Mean curvature at each vertex, one over metres, above 0 where the surface bulges towards its outer side: the length of the
 * discrete Laplacian by cotangents over mixed areas (Meyer, Desbrun, Schröder, Barr, Discrete differential-geometry operators
 * for triangulated 2-manifolds, 2003, sections 3.3 and 3.5). At open rims, which have none, it is 0.
 */
export function meanCurvatures(mesh: Mesh): Float32Array {
  const { weld, corners, edges } = topologyOf(mesh);
  const { of, first } = weld;
  const count = first.length;
  const laplace = new Float64Array(3 * count);
  const areas = new Float64Array(count);
  const outward = new Float64Array(3 * count);
  for (let c = 0; c < corners.length; c += 3) {
    const own = [corners[c], corners[c + 1], corners[c + 2]];
    const p = own.map((place) => at(mesh.positions, first[place]));
    const area = norm(...cross(sub(p[1], p[0]), sub(p[2], p[0]))) / 2;
    if (!(area > 0)) continue;
    const cots = [0, 1, 2].map((k) => {
      const [u, v] = [sub(p[(k + 1) % 3], p[k]), sub(p[(k + 2) % 3], p[k])];
      return dot(u, v) / (2 * area);
    });
    const obtuse = cots.findIndex((cot) => cot < 0);
    for (let k = 0; k < 3; k++) {
      const [i, j] = [own[(k + 1) % 3], own[(k + 2) % 3]];
      const way = sub(p[(k + 1) % 3], p[(k + 2) % 3]);
      const square = dot(way, way);
      for (let axis = 0; axis < 3; axis++) {
        laplace[3 * i + axis] += (cots[k] / 2) * way[axis];
        laplace[3 * j + axis] -= (cots[k] / 2) * way[axis];
      }
      if (obtuse < 0) {
        areas[i] += (cots[k] * square) / 8;
        areas[j] += (cots[k] * square) / 8;
      }
    }
    if (obtuse >= 0) own.forEach((place, k) => (areas[place] += k === obtuse ? area / 2 : area / 4));
  }
  of.forEach((place, vertex) => {
    for (let axis = 0; axis < 3; axis++) outward[3 * place + axis] += mesh.normals[3 * vertex + axis];
  });
  const rim = new Uint8Array(count);
  for (let e = 0; e < edges.count; e++)
    if (edges.there[e] + edges.back[e] !== 2) rim[edges.ends[2 * e]] = rim[edges.ends[2 * e + 1]] = 1;
  const curvatures = filled(Float64Array, count, (i) => {
    if (rim[i] || !(areas[i] > 0)) return 0;
    const [x, y, z] = at(laplace, i);
    const side = dot([x, y, z], at(outward, i)) < 0 ? -1 : 1;
    return (side * norm(x, y, z)) / (2 * areas[i]);
  });
  return mapped(Float32Array, of, (place) => curvatures[place]);
}
