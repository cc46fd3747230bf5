import { wholeMesh } from './copies';
import { boundsOf, type Form } from './form';
import { boxOf } from './meshPairs';
import type { Corners } from './vec';

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

/** The room that an item takes with all that is copied on it, to the vertex; null where it has no surface. */
export function roomOf(form: Form): Corners | null {
  const mesh = wholeMesh(form);
  if (!mesh) return null;
  if (mesh.positions.length === 0) return { min: [0, 0, 0], max: [0, 0, 0] };
  const { low, high } = boxOf(mesh);
  return { min: low, max: high };
}
