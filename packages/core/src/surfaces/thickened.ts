import { faceNormal } from '../geometry/faceNormal';
import { facesFrom } from '../geometry/faceAttributes';
import { mapped } from '../geometry/filled';
import type { Mesh } from '../geometry/mesh';
import { topologyInTime } from '../geometry/topology';
import { scale, type Vec3 } from '../geometry/vec';
import { type Breathe, CHUNK, cornerAngle, pickedMesh, withSoftNormals } from './softNormals';

/**
 * A mesh made thick: both its faces, moved apart along the normals, and rims where it is open. Closed meshes become
 * shells.
 * @param thick metres
 * @param side where the new face lies: 0 half on each side, 1 outside, −1 inside
 */
export async function thickened(
  mesh: Mesh,
  thick: number,
  side: -1 | 0 | 1,
  breathe: Breathe = () => Promise.resolve(),
): Promise<Mesh> {
  const topology = await topologyInTime(mesh, breathe);
  const edges = await topology.findEdges(breathe);
  const { corners } = topology;
  const { first } = topology.weld;
  const m = first.length;
  const sums = new Float64Array(9 * m);
  /** The first vertex at each corner. */
  const places = mapped(Uint32Array, corners, (corner) => first[corner]);
  await breathe();
  const { positions } = mesh;
  const normal = new Float64Array(3);
  for (let i = 0; i < corners.length; i += 3) {
    if (i % (3 * CHUNK) === 0) await breathe();
    faceNormal(positions, places, i / 3, normal);
    const a = 3 * places[i];
    const b = 3 * places[i + 1];
    const c = 3 * places[i + 2];
    addPlane(sums, 9 * corners[i], normal, cornerAngle(positions, a, b, c));
    addPlane(sums, 9 * corners[i + 1], normal, cornerAngle(positions, b, c, a));
    addPlane(sums, 9 * corners[i + 2], normal, cornerAngle(positions, c, a, b));
  }
  const [outer, inner] = [((side + 1) / 2) * thick, ((side - 1) / 2) * thick];
  const both = new Uint32Array(2 * m);
  both.set(first);
  both.set(first, m);
  const made = pickedMesh(mesh, both);
  for (let i = 0; i < m; i++) {
    if (i % CHUNK === 0) await breathe();
    const way = stoodOff(sums, i);
    for (let c = 0; c < 3; c++) {
      const place = positions[3 * first[i] + c];
      made.positions[3 * i + c] = place + way[c] * outer;
      made.positions[3 * (m + i) + c] = place + way[c] * inner;
    }
  }
  await breathe();
  // Both faces, and rims where nothing runs back along an edge.
  const isRim = (i: number, p: number, q: number): boolean =>
    (p < q ? edges.back[edges.of[i]] : edges.there[edges.of[i]]) === 0;
  let rims = 0;
  for (let i = 0; i < corners.length; i++) if (isRim(i, corners[i], corners[i % 3 === 2 ? i - 2 : i + 1])) rims++;
  const count = (2 * corners.length) / 3 + 2 * rims;
  const indices = new Uint32Array(3 * count);
  const sources = new Uint32Array(count);
  let write = 0;
  const face = (from: number, a: number, b: number, c: number): void => {
    sources[write / 3] = from;
    indices[write++] = a;
    indices[write++] = b;
    indices[write++] = c;
  };
  for (let i = 0; i < corners.length; i += 3) {
    if (i % (3 * CHUNK) === 0) await breathe();
    const f = i / 3;
    const a = corners[i];
    const b = corners[i + 1];
    const c = corners[i + 2];
    face(f, a, b, c);
    face(f, m + a, m + c, m + b);
    for (let k = 0; k < 3; k++) {
      const p = corners[i + k];
      const q = k === 2 ? a : corners[i + k + 1];
      if (!isRim(i + k, p, q)) continue;
      face(f, q, p, m + p);
      face(f, q, m + p, m + q);
    }
  }
  made.indices = indices;
  return withSoftNormals(facesFrom(made, sources), Math.PI / 4, breathe);
}

/** Adds a face that leans on a corner to the sums of that. */
function addPlane(sums: Float64Array, to: number, normal: Float64Array, w: number): void {
  const x = normal[0];
  const y = normal[1];
  const z = normal[2];
  sums[to] += w * x * x;
  sums[to + 1] += w * x * y;
  sums[to + 2] += w * x * z;
  sums[to + 3] += w * y * y;
  sums[to + 4] += w * y * z;
  sums[to + 5] += w * z * z;
  sums[to + 6] += w * x;
  sums[to + 7] += w * y;
  sums[to + 8] += w * z;
}

/** What holds a corner back along ways in which its faces do not lean: next to nothing, but enough to divide by. */
const HOLD = 1e-7;
/** A corner goes no further than so many thicknesses: sharp points do not run off. */
const FURTHEST = 1 / 0.35;

/**
 * Where a corner goes so that all its faces come to stand off by one, as nearly as can be: least squares, weighed by their
 * angles there (the normal equations of a plane distance each, as in Garland, Heckbert, Surface simplification using quadric
 * error metrics, SIGGRAPH 1997).
 * @param sums nine a corner: of w n nᵀ (xx, xy, xz, yy, yz, zz) and of w n over the faces' unit normals n and weights w
 */
function stoodOff(sums: Float64Array, corner: number): Vec3 {
  const at = 9 * corner;
  const [xy, xz, yz] = [sums[at + 1], sums[at + 2], sums[at + 4]];
  const [x, y, z] = [sums[at + 6], sums[at + 7], sums[at + 8]];
  const hold = HOLD * (sums[at] + sums[at + 3] + sums[at + 5]);
  if (!(hold > 0)) return [0, 0, 0];
  const [a, b, c] = [sums[at] + hold, sums[at + 3] + hold, sums[at + 5] + hold];
  // The inverse of the symmetric matrix by its cofactors, times the sum of normals.
  const [p, q, r] = [b * c - yz * yz, xz * yz - xy * c, xy * yz - xz * b];
  const k = (1 + HOLD) / (a * p + xy * q + xz * r);
  const way: Vec3 = [
    k * (p * x + q * y + r * z),
    k * (q * x + (a * c - xz * xz) * y + (xy * xz - a * yz) * z),
    k * (r * x + (xy * xz - a * yz) * y + (a * b - xy * xy) * z),
  ];
  const far = Math.sqrt(way[0] * way[0] + way[1] * way[1] + way[2] * way[2]);
  return far > FURTHEST ? scale(way, FURTHEST / far) : way;
}
