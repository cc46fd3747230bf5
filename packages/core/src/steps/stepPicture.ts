import { wholeBoundsOf } from '../geometry/extent';
import type { Form } from '../geometry/form';
import { byAxis, dot, type Vec3 } from '../geometry/vec';
import { type Picture, readPicture } from '../pictures/readPicture';
import { Problem } from '../problem';
import type { StepContext } from './declare';

/** The picture that a step's file holds. @throws Problem where none is chosen, or it cannot be read */
export async function pictureOf(file: string | null, context: StepContext): Promise<Picture> {
  if (file === null)
    throw new Problem('No picture is chosen.', 'Load a PNG or JPEG, or take the one that comes with Uvrex.');
  return readPicture(await context.file(file));
}

interface Projection {
  axis: string;
  fit: boolean;
  atX: number;
  atY: number;
  atZ: number;
  width: number;
  height: number;
  turn: number;
}

/** To the right and up in a picture that is looked at along each axis. */
const SIDES: Readonly<Record<string, readonly [Vec3, Vec3]>> = {
  x: [
    [0, 0, -1],
    [0, 1, 0],
  ],
  y: [
    [1, 0, 0],
    [0, 0, -1],
  ],
  z: [
    [1, 0, 0],
    [0, 1, 0],
  ],
};

/** Where in a projected picture a place lies: 0..1 from the left and from the bottom. */
export async function projectionOf(
  p: Projection,
  form: Form,
  context: StepContext,
): Promise<(position: Vec3) => [number, number]> {
  const [right, up] = SIDES[p.axis];
  let [centre, width, height]: [Vec3, number, number] = [[p.atX, p.atY, p.atZ], p.width, p.height];
  if (p.fit) {
    const box = wholeBoundsOf(await context.inputAtLast()) ?? wholeBoundsOf(form);
    if (box) {
      const sides = byAxis((c) => box.max[c] - box.min[c]);
      centre = byAxis((c) => box.min[c] + sides[c] / 2);
      // A flat form has no size one way.
      [width, height] = [right, up].map((way) => Math.max(1e-9, Math.abs(dot(sides, way))));
    }
  }
  const [cos, sin] = [Math.cos((p.turn * Math.PI) / 180), Math.sin((p.turn * Math.PI) / 180)];
  return ([x, y, z]) => {
    const from: Vec3 = [x - centre[0], y - centre[1], z - centre[2]];
    const [a, b] = [dot(from, right), dot(from, up)];
    return [(a * cos + b * sin) / width + 0.5, (b * cos - a * sin) / height + 0.5];
  };
}
