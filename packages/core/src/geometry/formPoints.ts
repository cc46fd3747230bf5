import { wholeMesh } from './copies';
import type { Form } from './form';
import { poseOf } from './search/meshPairs';
import { turnedBy } from './turns';
import type { Vec3 } from './vec';

/** Vertices past which copies are judged by their places and axes alone. */
const MANY = 400_000;

/** The points that a form is judged by: the vertices of its mesh and of its copies, else its paths' points. */
export function pointsOf(form: Form | null): Float32Array {
  if (!form) return new Float32Array();
  const { mesh, copies, paths } = form;
  if (!copies) return mesh?.positions ?? paths?.positions ?? new Float32Array();
  const vertices = copies.item.reduce((sum, i) => sum + copies.items[i].mesh.positions.length / 3, 0);
  if (vertices <= MANY) return wholeMesh(form)?.positions ?? new Float32Array();
  const points = new Float32Array(12 * copies.ids.length);
  for (let k = 0; k < copies.ids.length; k++) {
    const { position, turn, size } = poseOf(copies, k);
    const ends: Vec3[] = [
      [0, 0, 0],
      [size[0], 0, 0],
      [0, size[1], 0],
      [0, 0, size[2]],
    ];
    ends.forEach((end, i) => {
      const [x, y, z] = turnedBy(turn, end);
      points.set([position[0] + x, position[1] + y, position[2] + z], 12 * k + 3 * i);
    });
  }
  return points;
}
