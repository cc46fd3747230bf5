import type { Vec3 } from '../geometry/vec';
import type { ChoiceParam } from './declare';

/** A choice of one of the axes. */
export const axisParam = (help: string, value: 'x' | 'y' | 'z' = 'y') =>
  ({
    type: 'choice',
    label: 'Axis',
    help,
    options: [
      { value: 'x', label: 'X' },
      { value: 'y', label: 'Y (upright)' },
      { value: 'z', label: 'Z' },
    ],
    default: value,
  }) as const satisfies ChoiceParam;

/** The unit vector along an axis by its name. */
export const axisOf = (name: string): Vec3 => [name === 'x' ? 1 : 0, name === 'y' ? 1 : 0, name === 'z' ? 1 : 0];
