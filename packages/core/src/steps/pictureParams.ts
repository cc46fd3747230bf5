import { wholeBoundsOf } from '../geometry/extent';
import type { Form } from '../geometry/form';
import { byAxis, dot, type Vec3 } from '../geometry/vec';
import { Problem } from '../problem';
import type { Picture } from '../pictures/readPicture';
import { shippedOf } from '../scene/shippedFiles';
import { axisParam } from './axisParam';
import {
  type FileParam,
  type NumberParam,
  numberField,
  place,
  type Resolved,
  shownFor,
  type StepContext,
  type ToggleParam,
} from './declare';

/** The picture of a step. */
export const pictureParam = {
  type: 'file',
  kind: 'picture',
  label: 'Picture',
  help: 'A PNG, with transparency where it has some, or a JPEG.',
  shipped: shippedOf('picture'),
  default: 'shipped:reef-relief',
} as const satisfies FileParam;

/** The picture that a step's file holds. @throws Problem where none is chosen, or it cannot be read */
export async function pictureOf(file: string | null, context: StepContext): Promise<Picture> {
  if (file === null)
    throw new Problem('No picture is chosen.', 'Load a PNG or JPEG, or take the one that comes with Uvrex.');
  const { readPicture } = await import('../pictures/readPicture');
  return readPicture(await context.file(file));
}

const metre = numberField({ unit: 'm', min: 0.0001, max: 1000, slider: [0.1, 5] });

/** Where a picture that is projected straight onto a form lies. @param shown when it is projected */
export function projectionParams(shown: (p: Resolved) => boolean) {
  const own = (p: Resolved): boolean => shown(p) && p.fit !== true;
  return {
    axis: {
      ...axisParam('The axis along which it is projected, towards you: Z from the front, Y from above.', 'z'),
      shown,
    },
    fit: {
      type: 'toggle',
      label: 'Fit to form',
      help: 'Stretches the picture over all that there is at the last frame; else it has a place and size of its own.',
      default: true,
      shown,
    } satisfies ToggleParam,
    ...shownFor(place('at', 'Middle of picture', 'Where its middle lies.', [0, 1, 0]), own),
    width: { ...metre('Width', 'Of the whole picture.', 2), shown: own },
    height: { ...metre('Height', 'Of the whole picture.', 2), shown: own },
    turn: {
      type: 'number',
      unit: 'deg',
      label: 'Turn',
      help: 'Turns the picture about its middle.',
      default: 0,
      min: -36000,
      max: 36000,
      slider: [-180, 180],
      shown,
    } satisfies NumberParam,
  } as const;
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
