import type { Form } from '../geometry/form';
import type { Mesh } from '../geometry/mesh';
import type { Paths } from '../geometry/paths';
import { about, after, type Turn } from '../geometry/turns';
import { dot, type Vec3 } from '../geometry/vec';
import { mapForm } from './moveForm';
import { withFrames } from './pathFrames';

/** A plane through a point, with its unit normal. */
export interface MirrorPlane {
  origin: Vec3;
  normal: Vec3;
}

/** Distance of each place from a plane, above 0 on the side of its normal. @param flat xyz triples, metres */
export function distancesFrom({ origin, normal }: MirrorPlane, flat: Float32Array): Float32Array {
  const out = new Float32Array(flat.length / 3);
  const [x, y, z] = normal;
  const shift = dot(origin, normal);
  for (let i = 0; i < out.length; i++) out[i] = flat[3 * i] * x + flat[3 * i + 1] * y + flat[3 * i + 2] * z - shift;
  return out;
}

/**
 * A form as a mirror shows it. Paths have their frames mirrored, skins face outwards again. Copies stand and look as in the mirror,
 * but an item is turned, not mirrored: its own right stays its right.
 */
export const mirroredForm = (form: Form, plane: MirrorPlane): Form => {
  const placed = <T extends { positions: Float32Array; turns: Float32Array }>(of: T): T => ({
    ...of,
    positions: mirroredPlaces(of.positions, plane),
    turns: mirroredTurns(of.turns, plane.normal),
  });
  return mapForm(form, {
    paths: (paths) => mirroredPaths(paths, plane),
    mesh: (mesh) => mirroredMesh(mesh, plane),
    points: placed,
    copies: placed,
  });
};

function mirroredPaths(paths: Paths, plane: MirrorPlane): Paths {
  const framed = withFrames(paths);
  const mirrored: Paths = {
    ...framed,
    positions: mirroredPlaces(paths.positions, plane),
    tangents: mirroredWays(framed.tangents, plane.normal),
    normals: mirroredWays(framed.normals, plane.normal),
    // What winds to the right winds to the left.
    lean: paths.lean?.map((angle) => -angle) ?? null,
  };
  if (paths.uncut) mirrored.uncut = mirroredPaths(paths.uncut, plane);
  return mirrored;
}

function mirroredMesh(mesh: Mesh, plane: MirrorPlane): Mesh {
  const indices = new Uint32Array(mesh.indices.length);
  for (let f = 0; f < indices.length; f += 3) {
    indices[f] = mesh.indices[f];
    indices[f + 1] = mesh.indices[f + 2];
    indices[f + 2] = mesh.indices[f + 1];
  }
  return {
    ...mesh,
    indices,
    positions: mirroredPlaces(mesh.positions, plane),
    normals: mirroredWays(mesh.normals, plane.normal),
  };
}

function mirroredPlaces(flat: Float32Array, plane: MirrorPlane): Float32Array {
  const [x, y, z] = plane.normal;
  const away = distancesFrom(plane, flat);
  const out = new Float32Array(flat.length);
  for (let i = 0; i < away.length; i++) {
    const back = 2 * away[i];
    // What lies in the plane stays exactly where it is.
    out[3 * i] = flat[3 * i] - back * x;
    out[3 * i + 1] = flat[3 * i + 1] - back * y;
    out[3 * i + 2] = flat[3 * i + 2] - back * z;
  }
  return out;
}

const mirroredWays = (flat: Float32Array, normal: Vec3): Float32Array =>
  mirroredPlaces(flat, { origin: [0, 0, 0], normal });

/**
 * Turns in a mirror M: M R Mₓ, where Mₓ mirrors the item's own X axis, is a turn again. What is symmetric about its own YZ plane looks as
 * in the mirror.
 */
function mirroredTurns(turns: Float32Array, normal: Vec3): Float32Array {
  const out = new Float32Array(turns.length);
  // M Mₓ is a turn: by twice the angle from X to the normal.
  const axis: Vec3 = [0, -normal[2], normal[1]];
  const sine = Math.hypot(...axis);
  const whole: Turn =
    sine > 1e-9 ? about([0, axis[1] / sine, axis[2] / sine], 2 * Math.atan2(sine, normal[0])) : [0, 0, 0, 1];
  for (let i = 0; i < turns.length; i += 4)
    // Mₓ R Mₓ: the turn about an axis mirrored in X, the other way.
    out.set(after(whole, [turns[i], -turns[i + 1], -turns[i + 2], turns[i + 3]]), i);
  return out;
}
