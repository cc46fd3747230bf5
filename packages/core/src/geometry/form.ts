import { type Mesh, faceCount } from './mesh';
import { type Paths, pointCount } from './paths';

/** Loose points in flat arrays, n of them. */
export interface Points {
  /** 3n, metres. */
  positions: Float32Array;
  /** 4n unit quaternions xyzw. */
  turns: Float32Array;
  /** n, size multiplier. */
  size: Float32Array;
  /** n, stable number of each point. */
  ids: Uint32Array;
}

/** Copies of items: each is one item, named by the key of its form, at one place. k copies, i items. */
export interface Copies {
  /** i keys of item forms. */
  items: string[];
  /** k, which of the items. */
  item: Uint32Array;
  /** 3k, metres. */
  positions: Float32Array;
  /** 4k unit quaternions xyzw. */
  turns: Float32Array;
  /** 3k, size along the item's own axes. */
  sizes: Float32Array;
  /** k, stable number of each copy. */
  ids: Uint32Array;
}

/** How the surface of a growth takes the light. */
export interface Surface {
  /** 0 mirror-like, 1 matt. */
  roughness: number;
  /** Linear RGB of the light that glowing parts give off. */
  glowColor: [number, number, number];
  /** How far that light reaches along the surface, metres. */
  glowReach: number;
}

/** What flows from step to step: any of the four kinds, and how the result is dressed. */
export interface Form {
  paths: Paths | null;
  mesh: Mesh | null;
  points: Points | null;
  copies: Copies | null;
  surface: Surface | null;
}

/** The kinds of geometry that a step can take and give. */
export type FormKind = 'paths' | 'mesh' | 'points' | 'copies';

export const emptyForm = (): Form => ({ paths: null, mesh: null, points: null, copies: null, surface: null });

/** The kinds present in a form. */
export function kindsOf(form: Form): FormKind[] {
  return (['paths', 'mesh', 'points', 'copies'] as const).filter((kind) => form[kind] !== null);
}

/** Every typed array of a form, in a fixed order: for measuring, hashing and copying. */
export function arraysOf(form: Form): ArrayBufferView<ArrayBufferLike>[] {
  const arrays: ArrayBufferView<ArrayBufferLike>[] = [];
  for (const part of [form.paths, form.mesh, form.points, form.copies]) {
    if (!part) continue;
    for (const value of Object.values(part) as unknown[]) if (ArrayBuffer.isView(value)) arrays.push(value);
  }
  return arrays;
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
  return {
    points: (form.paths ? pointCount(form.paths) : 0) + (form.points ? form.points.ids.length : 0),
    faces: form.mesh ? faceCount(form.mesh) : 0,
    copies: form.copies ? form.copies.ids.length : 0,
  };
}

/** Smallest and largest corner of everything in the form, metres; null when it is empty. */
export function boundsOf(form: Form): { min: [number, number, number]; max: [number, number, number] } | null {
  const min: [number, number, number] = [Infinity, Infinity, Infinity];
  const max: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  for (const part of [form.mesh ?? form.paths, form.points, form.copies]) {
    if (!part) continue;
    for (let i = 0; i < part.positions.length; i++) {
      const value = part.positions[i];
      if (value < min[i % 3]) min[i % 3] = value;
      if (value > max[i % 3]) max[i % 3] = value;
    }
  }
  return min[0] <= max[0] ? { min, max } : null;
}
