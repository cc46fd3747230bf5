import { type Mesh } from '../geometry/mesh';
import { MESH } from '../geometry/mesh';
import { picked } from '../geometry/attributes';
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
  const out = Uint32Array.from(indices, (i) => {
    if (used[i] < 0) {
      used[i] = kept.length;
      kept.push(i);
    }
    return used[i];
  });
  return { ...mesh, ...picked(MESH, mesh, 'vertex', kept), indices: out, parts: null, level: null };
}
