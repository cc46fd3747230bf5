import { wholeMesh } from './copies';
import { boundsOf, type Form } from './form';
import { boxOf } from './search/meshPairs';
import { rayHit } from './search/nearest';
import { at, byAxis, type Corners, cross, dot, sub, type Vec3 } from './vec';

/** What has to be known of an item to lay it out. */
export interface Measures extends Corners {
  /** Length that it takes along its forward axis where that is not its own, metres. */
  pitch: number | null;
}

/** The measures of what can be copied; null while it has no shape. */
export function measuresOf(form: Form): Measures | null {
  const bounds = form.mesh || form.copies ? boundsOf(form) : null;
  return bounds && { ...bounds, pitch: form.pitch };
}

/**
 * Inner length of a form through the middle of its box, along each axis: of a ring or a link the width of its hole there, metres.
 * Null where the middle lies within it, or it does not close round the middle on that axis.
 */
export function holesOf(form: Form): (number | null)[] {
  const mesh = wholeMesh(form);
  if (!mesh || mesh.indices.length === 0) return [null, null, null];
  const { low, high } = boxOf(mesh);
  const middle = low.map((x, c) => (x + high[c]) / 2) as unknown as Vec3;
  const reach = (way: Vec3): number | null => {
    const hit = rayHit(mesh, middle, way);
    if (!hit) return null;
    const [a, b, c] = [0, 1, 2].map((k) => at(mesh.positions, mesh.indices[3 * hit.face + k]));
    // What it meets first looks back at it: the middle lies outside.
    return dot(cross(sub(b, a), sub(c, a)), way) < 0 ? hit.distance : null;
  };
  return [0, 1, 2].map((axis) => {
    const [there, back] = [1, -1].map((sign) => reach(byAxis((c) => (c === axis ? sign : 0))));
    // The end wires are as thick on both sides: the shorter way counts for both.
    return there === null || back === null ? null : 2 * Math.min(there, back);
  });
}

/** The room that an item takes with all that is copied on it, to the vertex; null where it has no surface. */
export function roomOf(form: Form): Corners | null {
  const mesh = wholeMesh(form);
  if (!mesh) return null;
  if (mesh.positions.length === 0) return { min: [0, 0, 0], max: [0, 0, 0] };
  const { low, high } = boxOf(mesh);
  return { min: low, max: high };
}
