import type { YieldNow } from '../../yieldNow';
import { movedPaths } from '../../curves/pathFrames';
import { type Place, placeIn } from '../../curves/elements';
import type { Attributed, Table } from '../../geometry/attributes';
import { boundsOf, COPIES, type Form, POINTS, type Points } from '../../geometry/form';
import { MESH, type Mesh } from '../../geometry/mesh';
import { measuredSlopes, movedMesh, type SlopedMove } from '../../geometry/moveMesh';
import { pathCount, PATHS, type Paths } from '../../geometry/paths';
import { SEATS } from '../../geometry/seats';
import { rejoin } from '../../geometry/tree';
import { at, type Vec3 } from '../../geometry/vec';
import type { StepContext } from '../declare';

/** So many points between two yields. */
const CHUNK = 512;

/** Moves every point of a form's paths by a function of its place, its number and where on which path it is; lets messages in now and then. */
export async function eachPathPoint(
  form: Form,
  context: StepContext,
  move: (place: Vec3, i: number, element: Readonly<Place>) => Vec3,
): Promise<Form> {
  return { ...form, paths: await pathsMoved(form.paths!, context, move) };
}

async function pathsMoved(
  paths: Paths,
  context: StepContext,
  move: (place: Vec3, i: number, element: Readonly<Place>) => Vec3,
): Promise<Paths> {
  const positions = new Float32Array(paths.positions.length);
  const count = pathCount(paths);
  const element = placeIn(PATHS, paths, 'point', count);
  for (let path = 0; path < count; path++) {
    element.id = paths.ids[path];
    element.index = path;
    for (let i = paths.offsets[path]; i < paths.offsets[path + 1]; i++) {
      if (i % CHUNK === 0) await context.yieldNow();
      element.u = paths.u[i];
      element.at = i;
      const place: Vec3 = [paths.positions[3 * i], paths.positions[3 * i + 1], paths.positions[3 * i + 2]];
      positions.set(move(place, i, element), 3 * i);
    }
  }
  // Branches stay at their joints whatever moves what they grow from, and turn with it.
  rejoin(paths, positions, (path, place) => {
    const first = paths.offsets[path];
    element.id = paths.ids[path];
    element.index = path;
    element.u = paths.u[first];
    element.at = first;
    return move(place, first, element);
  });
  return movedPaths(paths, positions, () => context.yieldNow());
}

type Move = (place: Vec3, element: Readonly<Place>) => Vec3;

/** The same, and how a place goes along with its own, as `SlopedMove`; `small` is a length that is nothing against the whole, metres. */
type Sloped = (place: Vec3, element: Readonly<Place>, slopes: Float64Array, small: number) => Vec3;

/**
 * Moves everything in a form: the points of its paths, the vertices of its mesh, loose points, and where copies stand.
 * @param sloped the same movement with its slopes, where they are known: else they are measured, which takes three times as long
 */
export async function eachPoint(form: Form, context: StepContext, move: Move, sloped?: Sloped): Promise<Form> {
  const alike = (place: Vec3, _: number, element: Readonly<Place>): Vec3 => move(place, element);
  const extent = form.extent && (await pathsMoved(form.extent, context, alike));
  const moved = { ...form, extent, paths: form.paths && (await pathsMoved(form.paths, context, alike)) };
  if (!form.mesh && !form.points && !form.copies && !form.seats) return moved;
  const yieldNow = (): Promise<void> => context.yieldNow();
  const mesh = form.mesh && (await meshMoved(form.mesh, form, move, sloped, yieldNow));
  const points = form.points && (await pointsMoved(form.points, move, yieldNow));
  const copies = form.copies && (await copiesMoved(COPIES, form.copies, () => 0, move, yieldNow));
  const { seats: old } = form;
  const seats = old && (await copiesMoved(SEATS, old, (k) => old.share[k], move, yieldNow, old.dice));
  return { ...moved, mesh, points, copies, seats };
}

async function meshMoved(
  mesh: Mesh,
  form: Form,
  move: Move,
  sloped: Sloped | undefined,
  yieldNow: YieldNow,
): Promise<Mesh> {
  await yieldNow();
  const bounds = boundsOf({ ...form, paths: null, points: null });
  // A skin of nothing stays one.
  if (!bounds) return mesh;
  const small = 2e-4 * Math.max(1e-4, ...[0, 1, 2].map((axis) => bounds.max[axis] - bounds.min[axis]));
  const parts = (mesh.parts?.length ?? 0) / 2;
  const element = placeIn(MESH, mesh, 'vertex', Math.max(1, parts));
  let part = -1;
  const moved = sloped ?? measuredSlopes(move);
  const moveVertex: SlopedMove = (place, i, slopes) => {
    while (mesh.parts && part + 1 < parts && i >= mesh.parts[2 * (part + 1)]) {
      element.index = ++part;
      element.id = mesh.parts[2 * part + 1];
    }
    element.u = mesh.u ? Math.min(1, mesh.u[i]) : 0;
    element.at = i;
    return moved(place, element, slopes, small);
  };
  return movedMesh(mesh, moveVertex, yieldNow);
}

async function pointsMoved(points: Points, move: Move, yieldNow: YieldNow): Promise<Points> {
  // Each loose point is one of its own, where paths have one for all their points.
  const element = placeIn(POINTS, points, 'point', points.ids.length);
  const positions = new Float32Array(points.positions.length);
  for (let i = 0; i < points.ids.length; i++) {
    if (i % CHUNK === 0) await yieldNow();
    element.at = element.index = i;
    element.id = points.dice[i];
    element.u = points.share[i];
    positions.set(move(at(points.positions, i), element), 3 * i);
  }
  return { ...points, positions };
}

/** Copies, or places for them, with each where its origin is moved to. */
async function copiesMoved<T extends Table, C extends Attributed<T> & { positions: Float32Array; ids: Uint32Array }>(
  table: T,
  copies: C,
  share: (k: number) => number,
  move: Move,
  yieldNow: YieldNow,
  dice = copies.ids,
): Promise<C> {
  const element = placeIn(table, copies, 'copy', copies.ids.length);
  const positions = new Float32Array(copies.positions.length);
  for (let k = 0; k < copies.ids.length; k++) {
    if (k % CHUNK === 0) await yieldNow();
    element.at = element.index = k;
    element.id = dice[k];
    element.u = share(k);
    positions.set(move(at(copies.positions, k), element), 3 * k);
  }
  return { ...copies, positions };
}
