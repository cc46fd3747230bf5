import { filled, mapped } from '../geometry/filled';
import { picked } from '../geometry/carrier';
import { faceMiddles, facesFrom, knowsFaces } from '../geometry/faceAttributes';
import { faceCount, MESH, type Mesh } from '../geometry/mesh';
import { nearestPlace } from '../geometry/nearest';
import { at } from '../geometry/vec';
import { withoutFins } from './fins';

/**
 * A mesh of fewer faces that lies nowhere further from it than a bound, by meshoptimizer (Garland and Heckbert, Surface
 * simplification using quadric error metrics, SIGGRAPH 97).
 * @param bound metres
 */
export async function reduced(mesh: Mesh, bound: number): Promise<Mesh> {
  const { MeshoptSimplifier } = await import('meshoptimizer/simplifier');
  await MeshoptSimplifier.ready;
  const [simple] = MeshoptSimplifier.simplify(mesh.indices, mesh.positions, 3, 3, bound, ['ErrorAbsolute']);
  const indices = withoutFins(simple);
  const used = new Int32Array(mesh.positions.length / 3).fill(-1);
  const kept: number[] = [];
  const out = mapped(Uint32Array, indices, (i) => {
    if (used[i] < 0) {
      used[i] = kept.length;
      kept.push(i);
    }
    return used[i];
  });
  const made: Mesh = { ...mesh, ...picked(MESH, mesh, 'vertex', kept), indices: out, parts: null, level: null };
  return knowsFaces(mesh) ? facesFrom(made, nearestFaces(mesh, made)) : made;
}

/** For each face of a mesh, the face of another that is nearest to its middle. */
function nearestFaces(of: Mesh, made: Mesh): Uint32Array {
  const middles = faceMiddles(made);
  return filled(Uint32Array, faceCount(made), (f) => nearestPlace(of, at(middles, f))!.face);
}
