import { movedPaths, withFrames } from '../../curves/pathFrames';
import { type Attributed, columnNamed, type Table } from '../../geometry/attributes';
import { type Form, type Points, POINTS } from '../../geometry/form';
import { linearRgb } from '../../geometry/gradient';
import { type Mesh, vertexCount } from '../../geometry/mesh';
import { vertexValues } from '../../geometry/meshAttributes';
import { pointValues } from '../../geometry/pathAttributes';
import { type Paths, pointCount } from '../../geometry/paths';
import { rejoin } from '../../geometry/tree';
import { about, after, turnAt, turnedBy } from '../../geometry/turns';
import { add, at, byAxis, cross, perpendicular, scale, type Vec3 } from '../../geometry/vec';
import { followedNormals } from '../../surfaces/edit/updateNormals';
import type { StepContext } from '../declare';
import type { FalloffParams } from './falloff';
import type { Weighed } from './falloffActs';

type Weights = (places: Weighed) => Promise<Float32Array>;

/** The vertices of a skin, as what has weight. */
export const verticesOf = (mesh: Mesh): Weighed => ({
  count: vertexCount(mesh),
  positions: mesh.positions,
  age: mesh.age,
  share: mesh.u,
  values: (attribute) => vertexValues(mesh, attribute),
});

/** The points of paths, as what has weight. */
export const pointsOfPaths = (paths: Paths): Weighed => ({
  count: pointCount(paths),
  positions: paths.positions,
  age: paths.age,
  share: paths.u,
  values: (attribute) => pointValues(paths, attribute),
});

/** Loose points, as what has weight. */
export const pointPlaces = (points: Points): Weighed => ({
  ...points,
  count: points.ids.length,
  values: oneOf(POINTS, points),
});

/** Attributes of one number an element, by name. */
export const oneOf =
  <T extends Table>(table: T, from: Attributed<T>): Weighed['values'] =>
  (name) => {
    const column = columnNamed(table, from, name);
    return column?.type.width === 1 ? column.values : null;
  };

/** Which kinds of geometry each change acts on, where there are no copies. */
const ACTS: Readonly<Record<string, readonly ('paths' | 'mesh' | 'points')[]>> = {
  move: ['paths', 'mesh', 'points'],
  size: ['paths', 'points'],
  turn: ['points'],
  color: ['mesh'],
};

/** Paths, skins and points changed by their weights; what a change does not act on is told. */
export async function changedForm(form: Form, p: FalloffParams, weigh: Weights, context: StepContext): Promise<Form> {
  const acts = ACTS[p.drives] ?? [];
  if (!acts.some((kind) => form[kind])) {
    context.tell(
      'There is nothing here that it changes.',
      'Choose another under Changes, or put Falloff behind a step that places copies.',
    );
    return form;
  }
  const { paths, mesh, points } = form;
  return {
    ...form,
    paths:
      paths && acts.includes('paths')
        ? await changedPaths(paths, p, await weigh(pointsOfPaths(paths)), context)
        : paths,
    mesh: mesh && acts.includes('mesh') ? await changedMesh(mesh, p, await weigh(verticesOf(mesh)), context) : mesh,
    points: points && acts.includes('points') ? changedPoints(points, p, await weigh(pointPlaces(points))) : points,
  };
}

async function changedPaths(
  paths: Paths,
  p: FalloffParams,
  weight: Float32Array,
  context: StepContext,
): Promise<Paths> {
  if (p.drives === 'size') {
    const size = paths.size.map((own, i) => own * (1 + (p.factor - 1) * weight[i]));
    // The uncut paths have other thicknesses now.
    return { ...paths, size, uncut: paths.uncut && null };
  }
  const framed = withFrames(paths);
  const positions = paths.positions.slice();
  const by: Vec3 = [p.moveX, p.moveY, p.moveZ];
  for (let i = 0; i < weight.length; i++) {
    const [x, y, z] = p.frame === 'own' ? inFrame(by, at(framed.normals, i), at(framed.tangents, i)) : by;
    positions[3 * i] += x * weight[i];
    positions[3 * i + 1] += y * weight[i];
    positions[3 * i + 2] += z * weight[i];
  }
  rejoin(paths, positions);
  return movedPaths(paths, positions, () => context.yieldNow());
}

async function changedMesh(mesh: Mesh, p: FalloffParams, weight: Float32Array, context: StepContext): Promise<Mesh> {
  if (p.drives === 'color') {
    const color = linearRgb(p.color);
    const colors = new Float32Array(3 * weight.length);
    for (let i = 0; i < colors.length; i++)
      colors[i] = (mesh.colors?.[i] ?? 1) * (1 + (color[i % 3] - 1) * weight[Math.floor(i / 3)]);
    return { ...mesh, colors };
  }
  const positions = mesh.positions.slice();
  const by: Vec3 = [p.moveX, p.moveY, p.moveZ];
  for (let i = 0; i < weight.length; i++) {
    const normal = at(mesh.normals, i);
    const [x, y, z] = p.frame === 'own' ? inFrame(by, perpendicular(normal), normal) : by;
    positions[3 * i] += x * weight[i];
    positions[3 * i + 1] += y * weight[i];
    positions[3 * i + 2] += z * weight[i];
  }
  return { ...mesh, positions, normals: await followedNormals(mesh, positions, () => context.yieldNow()) };
}

function changedPoints(points: Points, p: FalloffParams, weight: Float32Array): Points {
  if (p.drives === 'size')
    return { ...points, size: points.size.map((own, i) => own * (1 + (p.factor - 1) * weight[i])) };
  if (p.drives === 'turn') {
    const turns = points.turns.slice();
    const rad = Math.PI / 180;
    for (let i = 0; i < weight.length; i++) {
      const [x, y, z] = [p.spinX, p.spinY, p.spinZ].map((angle) => angle * weight[i] * rad);
      const spin = after(about([0, 1, 0], y), after(about([1, 0, 0], x), about([0, 0, 1], z)));
      turns.set(after(turnAt(points.turns, i), spin), 4 * i);
    }
    return { ...points, turns };
  }
  const positions = points.positions.slice();
  const by: Vec3 = [p.moveX, p.moveY, p.moveZ];
  for (let i = 0; i < weight.length; i++) {
    const moved = p.frame === 'own' ? turnedBy(turnAt(points.turns, i), by) : by;
    for (let c = 0; c < 3; c++) positions[3 * i + c] += moved[c] * weight[i];
  }
  return { ...points, positions };
}

/** A move along axes of its own: x along one direction, y along another that is square to it, z across. */
const inFrame = (by: Vec3, x: Vec3, y: Vec3): Vec3 =>
  add(
    byAxis((c) => by[0] * x[c] + by[1] * y[c]),
    scale(cross(x, y), by[2]),
  );
