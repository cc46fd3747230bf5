import type { YieldNow } from '../../yieldNow';
import { mapped } from '../../geometry/filled';
import type { Mesh } from '../../geometry/mesh';
import { topologyInTime } from '../../geometry/topology/topology';

const { sqrt } = Math;

/** So many faces between two yields. */
const CHUNK = 8192;

/**
 * Mean curvature at each vertex, one over metres, above 0 where the surface bulges towards its outer side: the length of the
 * discrete Laplacian by cotangents over mixed areas (Meyer, Desbrun, Schröder, Barr, Discrete differential-geometry operators
 * for triangulated 2-manifolds, 2003, sections 3.3 and 3.5). At open rims, which have none, it is 0.
 */
export async function meanCurvatures(mesh: Mesh, yieldNow: YieldNow = () => Promise.resolve()): Promise<Float32Array> {
  const topology = await topologyInTime(mesh, yieldNow);
  const edges = await topology.findEdges(yieldNow);
  const { corners } = topology;
  const { of, first } = topology.weld;
  const count = first.length;
  const sums: Sums = { laplace: new Float64Array(3 * count), areas: new Float64Array(count) };
  for (let from = 0; from < corners.length; from += 3 * CHUNK) {
    await yieldNow();
    addFaces(mesh, corners, first, from, Math.min(corners.length, from + 3 * CHUNK), sums);
  }
  await yieldNow();
  const outward = new Float64Array(3 * count);
  for (let vertex = 0; vertex < of.length; vertex++)
    for (let axis = 0; axis < 3; axis++) outward[3 * of[vertex] + axis] += mesh.normals[3 * vertex + axis];
  const rim = new Uint8Array(count);
  for (let e = 0; e < edges.count; e++)
    if (edges.there[e] + edges.back[e] !== 2) rim[edges.ends[2 * e]] = rim[edges.ends[2 * e + 1]] = 1;
  await yieldNow();
  const { laplace, areas } = sums;
  const curvatures = new Float64Array(count);
  for (let i = 0; i < count; i++) {
    if (rim[i] || !(areas[i] > 0)) continue;
    const x = laplace[3 * i];
    const y = laplace[3 * i + 1];
    const z = laplace[3 * i + 2];
    const side = x * outward[3 * i] + y * outward[3 * i + 1] + z * outward[3 * i + 2] < 0 ? -1 : 1;
    curvatures[i] = (side * sqrt(x * x + y * y + z * z)) / (2 * areas[i]);
  }
  return mapped(Float32Array, of, (place) => curvatures[place]);
}

/** At each place: the Laplacian of its position times its area, three numbers, and that area. */
interface Sums {
  laplace: Float64Array;
  areas: Float64Array;
}

/** Adds what the faces of the corners `from` up to `end` give to the places at them. */
function addFaces(
  { positions: p }: Mesh,
  corners: Uint32Array,
  first: Uint32Array,
  from: number,
  end: number,
  { laplace, areas }: Sums,
): void {
  const cots = new Float64Array(3);
  for (let c = from; c < end; c += 3) {
    let obtuse = -1;
    let area = 0;
    for (let k = 0; k < 3; k++) {
      const o = 3 * first[corners[c + k]];
      const a = 3 * first[corners[c + (k === 2 ? 0 : k + 1)]];
      const b = 3 * first[corners[c + (k === 0 ? 2 : k - 1)]];
      const ux = p[a] - p[o];
      const uy = p[a + 1] - p[o + 1];
      const uz = p[a + 2] - p[o + 2];
      const vx = p[b] - p[o];
      const vy = p[b + 1] - p[o + 1];
      const vz = p[b + 2] - p[o + 2];
      if (k === 0) area = sqrt((uy * vz - uz * vy) ** 2 + (uz * vx - ux * vz) ** 2 + (ux * vy - uy * vx) ** 2) / 2;
      cots[k] = (ux * vx + uy * vy + uz * vz) / (2 * area);
      if (cots[k] < 0) obtuse = k;
    }
    if (!(area > 0)) continue;
    for (let k = 0; k < 3; k++) {
      const i = corners[c + (k === 2 ? 0 : k + 1)];
      const j = corners[c + (k === 0 ? 2 : k - 1)];
      const x = p[3 * first[i]] - p[3 * first[j]];
      const y = p[3 * first[i] + 1] - p[3 * first[j] + 1];
      const z = p[3 * first[i] + 2] - p[3 * first[j] + 2];
      const half = cots[k] / 2;
      laplace[3 * i] += half * x;
      laplace[3 * i + 1] += half * y;
      laplace[3 * i + 2] += half * z;
      laplace[3 * j] -= half * x;
      laplace[3 * j + 1] -= half * y;
      laplace[3 * j + 2] -= half * z;
      if (obtuse < 0) {
        const part = (cots[k] * (x * x + y * y + z * z)) / 8;
        areas[i] += part;
        areas[j] += part;
      } else areas[corners[c + k]] += k === obtuse ? area / 2 : area / 4;
    }
  }
}
