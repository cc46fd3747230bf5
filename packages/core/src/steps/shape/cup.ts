import type { Vec3 } from '../../geometry/vec';
import { defineStep } from '../declare';
import { figure } from '../../format';
import { MOVABLE } from './movable';
import { rangeParams } from './rangeParams';

export const cup = defineStep({
  kind: 'cup',
  family: 'shape',
  label: 'Cup',
  icon: 'M3 5C4 12 7 15.5 10 15.5S16 12 17 5M3 5C6 7.5 14 7.5 17 5',
  help: 'Bends it across into a trough or a spoon: its sides come forward round an upright line, and keep their width.',
  takes: [],
  takesOne: MOVABLE,
  gives: [],
  params: {
    angle: {
      type: 'number',
      unit: 'deg',
      label: 'Angle',
      help: 'By how much both sides together close round; 360 makes a tube.',
      default: 120,
      min: -720,
      max: 720,
      slider: [-360, 360],
      varies: 'path',
    },
    ...rangeParams,
  },
  summary: (p) => `${figure(p.angle, 1)}° round`,
  async run(form, p, context) {
    const { wholeBoundsOf } = await import('../../geometry/extent');
    const { rangeOf } = await import('./range');
    const { eachPoint } = await import('./eachPoint');
    const bounds = wholeBoundsOf(form);
    if (!bounds) return form;
    const range = rangeOf(p, bounds.min[1], bounds.max[1]);
    const half = Math.max(Math.abs(bounds.min[0]), Math.abs(bounds.max[0]), 1e-9);
    const angleOf = context.varied('angle');
    return eachPoint(form, context, ([x, y, z], element): Vec3 => {
      const total = ((angleOf(element) * Math.PI) / 180) * range(y);
      if (Math.abs(total) < 1e-9) return [x, y, z];
      const radius = (2 * half) / total;
      const [c, s] = [Math.cos(x / radius), Math.sin(x / radius)];
      return [(radius - z) * s, y, radius - (radius - z) * c];
    });
  },
});
