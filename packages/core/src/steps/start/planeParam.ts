import type { Vec3 } from '../../geometry/vec';
import type { ChoiceParam } from '../declare';

/** Whether a plane path stands upright or lies on the ground. */
export const liesParam: ChoiceParam = {
  type: 'choice',
  label: 'Plane',
  help: 'In an upright plane that faces you, or flat on the ground.',
  options: [
    { value: 'upright', label: 'Upright' },
    { value: 'ground', label: 'On the ground' },
  ],
  default: 'upright',
};

/** A point of the plane, put upright (across and up) or on the ground (across and away). */
export const lies = (plane: string, x: number, y: number): Vec3 => (plane === 'ground' ? [x, 0, -y] : [x, y, 0]);
