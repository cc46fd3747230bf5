import { withFrames } from './pathFrames';
import type { Copies, Form, Points } from '../geometry/form';
import type { Mesh } from '../geometry/mesh';
import type { Paths } from '../geometry/paths';
import type { Seats } from '../geometry/seats';
import { about, after, type Turn } from '../geometry/turns';
import type { Vec3 } from '../geometry/vec';

/** Turned about the origin, sized, then moved: all of it at once. */
export interface Movement {
  turn: Turn;
  size: number;
  move: Vec3;
}

/** The turn by angles about X first, then Y, then Z, degrees. */
export function turnOf(x: number, y: number, z: number): Turn {
  const [a, b, c] = [x, y, z].map((angle) => (angle * Math.PI) / 180);
  return after(about([0, 0, 1], c), after(about([0, 1, 0], b), about([1, 0, 0], a)));
}

/** Everything in a form moved: paths, skin, loose points, and copies with the places for them. */
export function movedForm(form: Form, movement: Movement): Form {
  const moved = mapForm(form, {
    paths: (paths) => turnedPaths(paths, movement),
    mesh: (mesh) => movedSkin(mesh, movement),
    points: (points) => movedPoints(points, movement),
    copies: (copies) => movedCopies(copies, movement),
  });
  return { ...moved, pitch: form.pitch === null ? null : form.pitch * movement.size };
}

/** What becomes of each kind of geometry; `copies` is asked for seats too. */
export interface FormMaps {
  paths: (paths: Paths) => Paths;
  mesh: (mesh: Mesh) => Mesh;
  points: (points: Points) => Points;
  copies: <C extends Copies | Seats>(copies: C) => C;
}

/** A form with everything that is there mapped, its extent as its paths. */
export const mapForm = (form: Form, { paths, mesh, points, copies }: FormMaps): Form => ({
  ...form,
  paths: form.paths && paths(form.paths),
  extent: form.extent && paths(form.extent),
  mesh: form.mesh && mesh(form.mesh),
  points: form.points && points(form.points),
  copies: form.copies && copies(form.copies),
  seats: form.seats && copies(form.seats),
});

/** The same form, with frames on its paths and on what they are cut from: what moved copies of it have too. */
export function framedForm(form: Form): Form {
  const framed = (paths: Paths): Paths =>
    paths.uncut ? { ...withFrames(paths), uncut: framed(paths.uncut) } : withFrames(paths);
  return { ...form, paths: form.paths && framed(form.paths), extent: form.extent && framed(form.extent) };
}

/** Paths with their frames, which turn as a rigid whole. */
function turnedPaths(paths: Paths, movement: Movement): Paths {
  const framed = withFrames(paths);
  const turnAlone = { ...movement, size: 1, move: [0, 0, 0] } satisfies Movement;
  const moved: Paths = {
    ...framed,
    positions: placed(paths.positions, movement),
    tangents: placed(framed.tangents, turnAlone),
    normals: placed(framed.normals, turnAlone),
    whole: paths.whole.map((length) => length * movement.size),
    cutFrom: paths.cutFrom.map((length) => length * movement.size),
  };
  if (paths.uncut) moved.uncut = turnedPaths(paths.uncut, movement);
  return moved;
}

/** Copies, or places for them, turned and sized about the origin and moved. */
export const movedCopies = <C extends Copies | Seats>(copies: C, movement: Movement): C => ({
  ...copies,
  positions: placed(copies.positions, movement),
  turns: turned(copies.turns, movement),
  sizes: copies.sizes.map((size) => size * movement.size),
});

const movedSkin = (mesh: Mesh, movement: Movement): Mesh => ({
  ...mesh,
  positions: placed(mesh.positions, movement),
  normals: placed(mesh.normals, { ...movement, size: 1, move: [0, 0, 0] }),
});

const movedPoints = (points: Points, movement: Movement): Points => ({
  ...points,
  positions: placed(points.positions, movement),
  turns: turned(points.turns, movement),
  size: points.size.map((size) => size * movement.size),
});

function placed(flat: Float32Array, { turn, size, move }: Movement): Float32Array {
  const out = new Float32Array(flat.length);
  const [x, y, z, w] = turn;
  const [moveX, moveY, moveZ] = move;
  // As `turnedBy`, number by number.
  for (let i = 0; i < flat.length; i += 3) {
    const px = flat[i];
    const py = flat[i + 1];
    const pz = flat[i + 2];
    const tx = 2 * (y * pz - z * py);
    const ty = 2 * (z * px - x * pz);
    const tz = 2 * (x * py - y * px);
    out[i] = size * (px + w * tx + y * tz - z * ty) + moveX;
    out[i + 1] = size * (py + w * ty + z * tx - x * tz) + moveY;
    out[i + 2] = size * (pz + w * tz + x * ty - y * tx) + moveZ;
  }
  return out;
}

function turned(turns: Float32Array, { turn }: Movement): Float32Array {
  const out = new Float32Array(turns.length);
  for (let i = 0; i < turns.length; i += 4)
    out.set(after(turn, [turns[i], turns[i + 1], turns[i + 2], turns[i + 3]]), i);
  return out;
}
