import { type Attributed, floats, integers, maybeFloats, type Numbers, type Table } from './attributes';
import { faceCount, MESH, type Mesh } from './mesh';
import { type Paths, PATHS, pointCount } from './paths';
import { SEATS, type Seats } from './seats';
import type { Surface } from './surface';
import { turnedBy, type Turn } from './turns';
import { boxAround, middleOf, sidesOf } from './box';
import type { Vec3 } from './vec';

/** What loose points know, n of them. */
export const POINTS = {
  /** 3n, metres. */
  positions: floats('point', 3),
  /** 4n unit quaternions xyzw. */
  turns: floats('point', 4, { blend: 'rotate' }),
  /** n, size multiplier. */
  size: floats('point', 1, { missing: 1 }),
  /** n, stable number of each point. */
  ids: integers('point', { numbers: true }),
  /** n, what its chance hangs on: its number, or the same as that of the one whose place it takes where births never end. */
  dice: integers('point'),
  /** n, where in its arrangement each point stands, 0..1. */
  share: floats('point'),
  /** n, how much of its life each point has had, 0..1; null where they do not come and go. */
  life: maybeFloats('point', 1, { missing: 1 }),
  /** n, seconds since a growing front passed; null where no growth tells. */
  age: maybeFloats('point'),
};

/** Loose points in flat arrays. */
export type Points = Attributed<typeof POINTS>;

/** Something that is copied: a form with a mesh, under the key of the result that it is. */
export interface Item {
  key: string;
  mesh: Mesh;
  surface: Surface | null;
}

/** What copies know, k of them. */
export const COPIES = {
  /** k, which of the items. */
  item: integers('copy'),
  /** 3k, metres. */
  positions: floats('copy', 3),
  /** 4k unit quaternions xyzw. */
  turns: floats('copy', 4, { blend: 'rotate' }),
  /** 3k, size along the item's own axes. */
  sizes: floats('copy', 3, { missing: 1 }),
  /** k, stable number of each copy. */
  ids: integers('copy', { numbers: true }),
  /** k, the row along a path that it stands in: 0 for none, odd ones are open, even ones closed. */
  rows: integers('copy'),
  /** 3k, linear RGB that the item's own colours are multiplied by; null where none is tinted. */
  tints: maybeFloats('copy', 3, { missing: 1 }),
};

/** Copies of items at places, turns and sizes of their own. */
export interface Copies extends Attributed<typeof COPIES> {
  items: Item[];
}

/** What flows from step to step: any of the four kinds, and how the result is dressed. */
export interface Form {
  paths: Paths | null;
  mesh: Mesh | null;
  points: Points | null;
  copies: Copies | null;
  /** Copies still to be made: the evaluator does it after the last step. */
  seats: Seats | null;
  surface: Surface | null;
  /** A few points of the whole of what growth shows a part of; null where nothing has been cut. */
  extent: Paths | null;
  /** Length that a copy takes along its forward axis where that is not its own, metres: a chain link's is its inner one. */
  pitch: number | null;
}

/** The kinds of geometry that a step can take and give. */
export type FormKind = 'paths' | 'mesh' | 'points' | 'copies';

export const emptyForm = (): Form => ({
  paths: null,
  mesh: null,
  points: null,
  copies: null,
  seats: null,
  surface: null,
  extent: null,
  pitch: null,
});

/** The kinds present in a form. */
export function kindsOf(form: Form): FormKind[] {
  return (['paths', 'mesh', 'points', 'copies'] as const).filter(
    (kind) => form[kind] !== null || (kind === 'copies' && form.seats !== null),
  );
}

const columnArrays = <T extends Table>(table: T, of: Attributed<T>): Numbers[] => [
  ...Object.keys(table).flatMap((name) => of[name] ?? []),
  ...Object.values(of.named).map(({ values }) => values),
];

/** Every typed array of a form, in a fixed order: for measuring, hashing and copying. */
export function arraysOf(form: Form): ArrayBufferView<ArrayBufferLike>[] {
  const { paths, mesh, points, copies, seats } = form;
  return [
    ...(paths ? [paths.offsets, ...columnArrays(PATHS, paths)] : []),
    ...(mesh ? [mesh.indices, ...(mesh.parts ? [mesh.parts] : []), ...columnArrays(MESH, mesh)] : []),
    ...(points ? columnArrays(POINTS, points) : []),
    ...(copies ? columnArrays(COPIES, copies) : []),
    ...(seats ? columnArrays(SEATS, seats) : []),
  ];
}

/** Bytes of a form's arrays that `besides` does not already hold (steps share what they do not change). */
export function bytesOf(form: Form, besides: Form = emptyForm()): number {
  const held = new Set(arraysOf(besides));
  let bytes = 0;
  for (const array of arraysOf(form)) if (!held.has(array)) bytes += array.byteLength;
  return bytes;
}

/** Counts for people: points, faces, copies. */
export function countsOf(form: Form): { points: number; faces: number; copies: number } {
  let copied = 0;
  for (const item of form.copies?.item ?? []) copied += faceCount(form.copies!.items[item].mesh);
  return {
    points: (form.paths ? pointCount(form.paths) : 0) + (form.points ? form.points.ids.length : 0),
    faces: (form.mesh ? faceCount(form.mesh) : 0) + copied,
    copies: form.copies ? form.copies.ids.length : 0,
  };
}

/** Smallest and largest corner of everything in the form, metres; null when it is empty. */
export function boundsOf(form: Form): { min: [number, number, number]; max: [number, number, number] } | null {
  let box = boxAround([]);
  for (const part of [form.mesh ?? (form.copies ? null : form.paths), form.points])
    if (part) box = boxAround(part.positions, box);
  const min: [number, number, number] = [...box.low];
  const max: [number, number, number] = [...box.high];
  const take = (value: number, axis: number): void => {
    if (value < min[axis]) min[axis] = value;
    if (value > max[axis]) max[axis] = value;
  };
  if (form.copies) {
    const { items, item, positions, sizes, turns } = form.copies;
    const boxes = items.map(({ mesh }) => middleAndHalf(mesh));
    for (let k = 0; k < item.length; k++) {
      const { middle, half } = boxes[item[k]];
      const turn: Turn = [turns[4 * k], turns[4 * k + 1], turns[4 * k + 2], turns[4 * k + 3]];
      const [sx, sy, sz] = [sizes[3 * k], sizes[3 * k + 1], sizes[3 * k + 2]];
      const at = turnedBy(turn, [middle[0] * sx, middle[1] * sy, middle[2] * sz]);
      // Half widths of the box that stands level round the turned one.
      const sides = [
        turnedBy(turn, [half[0] * sx, 0, 0]),
        turnedBy(turn, [0, half[1] * sy, 0]),
        turnedBy(turn, [0, 0, half[2] * sz]),
      ];
      for (let axis = 0; axis < 3; axis++) {
        const r = Math.abs(sides[0][axis]) + Math.abs(sides[1][axis]) + Math.abs(sides[2][axis]);
        take(positions[3 * k + axis] + at[axis] - r, axis);
        take(positions[3 * k + axis] + at[axis] + r, axis);
      }
    }
  }
  return min[0] <= max[0] ? { min, max } : null;
}

/** Middle and half widths of a mesh's box. */
function middleAndHalf({ positions }: Mesh): { middle: Vec3; half: Vec3 } {
  const box = boxAround(positions);
  if (box.low[0] > box.high[0]) return { middle: [0, 0, 0], half: [0, 0, 0] };
  const [x, y, z] = sidesOf(box);
  return { middle: middleOf(box), half: [x / 2, y / 2, z / 2] };
}
