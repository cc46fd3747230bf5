import { movedPaths } from '../../curves/pathFrames';
import { boundsOf, type Form } from '../../geometry/form';
import { type Mesh } from '../../geometry/mesh';
import { movedMesh } from '../../geometry/moveMesh';
import { pathCount } from '../../geometry/paths';
import { type Vec3 } from '../../geometry/vec';
import { type Element } from '../../scene/vary';
import { type StepContext } from '../declare';

const CHUNK = 8192;

/** What a deforming step moves: it takes any of these, and all that are there. */
export const MOVABLE = ['paths', 'mesh', 'points'] as const;

/** Moves every point of a form's paths by a function of its place, its number and where on which path it is; lets messages in now and then. */
export async function eachPathPoint(
  form: Form,
  context: StepContext,
  move: (place: Vec3, i: number, element: Readonly<Element>) => Vec3,
): Promise<Form> {
  const paths = form.paths!;
  const positions = new Float32Array(paths.positions.length);
  const count = pathCount(paths);
  const element: Element = { id: 0, index: 0, count, u: 0 };
  for (let path = 0; path < count; path++) {
    element.id = paths.ids[path];
    element.index = path;
    for (let i = paths.offsets[path]; i < paths.offsets[path + 1]; i++) {
      if (i % CHUNK === 0) await context.breathe();
      element.u = paths.u[i];
      const place: Vec3 = [paths.positions[3 * i], paths.positions[3 * i + 1], paths.positions[3 * i + 2]];
      positions.set(move(place, i, element), 3 * i);
    }
  }
  return { ...form, paths: movedPaths(paths, positions) };
}

/** Moves everything in a form: the points of its paths, the vertices of its mesh, loose points. */
export async function eachPoint(
  form: Form,
  context: StepContext,
  move: (place: Vec3, element: Readonly<Element>) => Vec3,
): Promise<Form> {
  const moved = form.paths ? await eachPathPoint(form, context, (place, _, element) => move(place, element)) : form;
  if (!form.mesh && !form.points) return moved;
  await context.breathe();
  const alone: Element = { id: 0, index: 0, count: 1, u: 0 };
  const mesh = form.mesh && meshMoved(form.mesh, form, move);
  const points = form.points && {
    ...form.points,
    positions: eachTriple(form.points.positions, (place) => move(place, alone)),
  };
  return { ...moved, mesh, points };
}

function meshMoved(mesh: Mesh, form: Form, move: (place: Vec3, element: Readonly<Element>) => Vec3): Mesh {
  const bounds = boundsOf({ ...form, paths: null, points: null });
  // A skin of nothing stays one.
  if (!bounds) return mesh;
  const small = 2e-4 * Math.max(1e-4, ...[0, 1, 2].map((axis) => bounds.max[axis] - bounds.min[axis]));
  const parts = (mesh.parts?.length ?? 0) / 2;
  const element: Element = { id: 0, index: 0, count: Math.max(1, parts), u: 0 };
  let part = -1;
  return movedMesh(
    mesh,
    (place, i) => {
      while (mesh.parts && part + 1 < parts && i >= mesh.parts[2 * (part + 1)]) {
        element.index = ++part;
        element.id = mesh.parts[2 * part + 1];
      }
      element.u = mesh.u ? Math.min(1, mesh.u[i]) : 0;
      return move(place, element);
    },
    small,
  );
}

function eachTriple(flat: Float32Array, move: (place: Vec3) => Vec3): Float32Array {
  const out = new Float32Array(flat.length);
  for (let i = 0; i < flat.length; i += 3) out.set(move([flat[i], flat[i + 1], flat[i + 2]]), i);
  return out;
}
