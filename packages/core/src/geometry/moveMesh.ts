import { type Mesh } from './mesh';
import { at, byAxis, cross, dot, scale, sub, unit, type Vec3 } from './vec';

/**
 * A mesh with every vertex moved. Normals turn as the surface does, by the inverse transpose of the movement's
 * derivative there, so that hard edges stay hard and soft ones soft.
 * @param move where a place goes; `i` is the vertex
 * @param small length over which the movement is differentiated, metres
 */
export function movedMesh(mesh: Mesh, move: (place: Vec3, i: number) => Vec3, small: number): Mesh {
  const n = mesh.positions.length / 3;
  const positions = new Float32Array(3 * n);
  const normals = new Float32Array(3 * n);
  const derivative = (place: Vec3, moved: Vec3, i: number, axis: 0 | 1 | 2): Vec3 => {
    const step: [number, number, number] = [place[0], place[1], place[2]];
    step[axis] += small;
    return scale(sub(move(step, i), moved), 1 / small);
  };
  for (let i = 0; i < n; i++) {
    const place = at(mesh.positions, i);
    const moved = move(place, i);
    positions.set(moved, 3 * i);
    const [a, b, c] = ([0, 1, 2] as const).map((axis) => derivative(place, moved, i, axis));
    const normal = at(mesh.normals, i);
    // Cofactors of the derivative: its inverse transpose times its determinant.
    const [u, v, w] = [cross(b, c), cross(c, a), cross(a, b)];
    const turned: Vec3 = byAxis((k) => normal[0] * u[k] + normal[1] * v[k] + normal[2] * w[k]);
    // A movement that mirrors turns the cofactors over; faces turn over with it, so normals must not.
    normals.set(unit(scale(turned, dot(a, u) < 0 ? -1 : 1), normal), 3 * i);
  }
  return { ...mesh, positions, normals };
}
