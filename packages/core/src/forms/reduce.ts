import type { YieldNow } from '../yieldNow';
import { filled, mapped } from '../geometry/filled';
import { pickColumns } from '../geometry/carrier';
import { faceMiddles, facesFrom, knowsFaces } from '../geometry/topology/faceAttributes';
import { faceCount, MESH, type Mesh } from '../geometry/mesh';
import { nearestPlace } from '../geometry/search/nearest';
import { topologyOf } from '../geometry/topology/topology';
import { at, byAxis, distance, type Vec3 } from '../geometry/vec';
import { withoutFins } from './fins';
import { CHUNK } from './rawForm';

/** Shares of the bound that are given to the simplifier in turn: its own estimate falls short of the true distance. */
const TRIES = [1, 0.7, 0.5, 0.35, 0.25, 0.15, 0.08, 0.04];

/** Samples along the edge of a face, at most. */
const MOST_SAMPLES = 24;

/**
 * A mesh of fewer faces that lies nowhere further from it than a bound, nor it from that, and has no more edges of three and more
 * faces; by meshoptimizer (Garland and Heckbert, Surface simplification using quadric error metrics, SIGGRAPH 97). Distances are
 * measured from all vertices and from samples of all faces, both ways.
 * @param bound metres
 * @returns the mesh itself where no fewer faces keep to the bound
 */
export async function reduceMesh(
  mesh: Mesh,
  bound: number,
  yieldNow: YieldNow = () => Promise.resolve(),
): Promise<Mesh> {
  const { MeshoptSimplifier } = await import('meshoptimizer/simplifier');
  await MeshoptSimplifier.ready;
  const branching = branchingEdges(mesh);
  for (const share of TRIES) {
    const [simple] = MeshoptSimplifier.simplify(mesh.indices, mesh.positions, 3, 3, share * bound, ['ErrorAbsolute']);
    const made = withIndices(mesh, withoutFins(simple));
    await yieldNow();
    if (made.indices.length === 0 || branchingEdges(made) > branching) continue;
    if (!(await within(made, mesh, bound, yieldNow)) || !(await within(mesh, made, bound, yieldNow))) continue;
    return knowsFaces(mesh) ? facesFrom(made, nearestFaces(mesh, made)) : made;
  }
  return mesh;
}

/** The mesh with some of its faces' corners only, and the vertices that these need. */
function withIndices(mesh: Mesh, indices: Uint32Array): Mesh {
  const used = new Int32Array(mesh.positions.length / 3).fill(-1);
  const kept: number[] = [];
  const out = mapped(Uint32Array, indices, (i) => {
    if (used[i] < 0) {
      used[i] = kept.length;
      kept.push(i);
    }
    return used[i];
  });
  return { ...mesh, ...pickColumns(MESH, mesh, 'vertex', kept), indices: out, parts: null, level: null };
}

/** Edges at which more than two faces meet. */
function branchingEdges(mesh: Mesh): number {
  const { count, there, back } = topologyOf(mesh).edges;
  let found = 0;
  for (let e = 0; e < count; e++) if (there[e] + back[e] > 2) found++;
  return found;
}

/** Whether no sample of a mesh is further from another one than a bound. */
async function within(mesh: Mesh, other: Mesh, bound: number, yieldNow: YieldNow): Promise<boolean> {
  const near = (point: Vec3): boolean => nearestPlace(other, point)!.distance <= bound;
  const { positions, indices } = mesh;
  for (let i = 0; i < positions.length / 3; i++) {
    if (i % (CHUNK / 16) === 0) await yieldNow();
    if (!near(at(positions, i))) return false;
  }
  const step = meanEdge(other);
  for (let f = 0, work = 0; f < indices.length; f += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => at(positions, indices[f + k]));
    const longest = Math.max(distance(a, b), distance(b, c), distance(c, a));
    const n = Math.min(MOST_SAMPLES, Math.max(2, Math.ceil(longest / step)));
    for (let u = 0; u <= n; u++)
      for (let v = 0; u + v <= n; v++) {
        const w = n - u - v;
        if (!near(byAxis((k) => (u * a[k] + v * b[k] + w * c[k]) / n))) return false;
      }
    work += n * n;
    if (work > CHUNK / 16) {
      work = 0;
      await yieldNow();
    }
  }
  return true;
}

/** Mean length of the faces' edges, metres. */
function meanEdge({ positions, indices }: Mesh): number {
  let sum = 0;
  for (let f = 0; f < indices.length; f += 3)
    for (let k = 0; k < 3; k++)
      sum += distance(at(positions, indices[f + k]), at(positions, indices[f + ((k + 1) % 3)]));
  return sum / Math.max(1, indices.length);
}

/** For each face of a mesh, the face of another that is nearest to its middle. */
function nearestFaces(of: Mesh, made: Mesh): Uint32Array {
  const middles = faceMiddles(made);
  return filled(Uint32Array, faceCount(made), (f) => nearestPlace(of, at(middles, f))!.face);
}
