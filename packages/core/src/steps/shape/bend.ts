import type { Vec3 } from '../../geometry/vec';
import { defineStep } from '../declare';
import { figure, metres } from '../../format';
import { MOVABLE } from './movable';

export const bend = defineStep({
  kind: 'bend',
  family: 'shape',
  label: 'Bend',
  icon: 'M5 17V11C5 6 9 4 15 4M12 1.8 15 4 12 6.2',
  help: 'Bends what is upright over to one side, like a rod: what stood on the vertical axis keeps its length.',
  takes: [],
  takesOne: MOVABLE,
  gives: [],
  params: {
    angle: {
      type: 'number',
      unit: 'deg',
      label: 'Angle',
      help: 'By how much the top leans against the base; more than a full turn curls up.',
      default: 60,
      min: -3600,
      max: 3600,
      slider: [-360, 360],
      varies: 'path',
    },
    towards: {
      type: 'number',
      unit: 'deg',
      label: 'Towards',
      help: 'Direction in which it bends, about the vertical; 0 is to the right.',
      default: 0,
      min: -36000,
      max: 36000,
      slider: [-180, 180],
    },
    from: {
      type: 'number',
      unit: 'm',
      label: 'From height',
      help: 'Where the bend begins; below it nothing moves.',
      default: 0,
      min: -1000,
      max: 1000,
      slider: [0, 4],
    },
    over: {
      type: 'number',
      unit: 'm',
      label: 'Over',
      help: 'Height over which it bends; above, it goes on straight.',
      default: 2,
      min: 0.001,
      max: 1000,
      slider: [0.1, 5],
    },
  },
  summary: (p) => `${figure(p.angle, 1)}° over ${metres(p.over)}`,
  async run(form, p, context) {
    const { eachPoint } = await import('./eachPoint');
    const [c, s] = [Math.cos((p.towards * Math.PI) / 180), Math.sin((p.towards * Math.PI) / 180)];
    const angleOf = context.varied('angle');
    return eachPoint(form, context, ([x, y, z], element): Vec3 => {
      const total = (angleOf(element) * Math.PI) / 180;
      if (total === 0) return [x, y, z];
      const radius = p.over / total;
      // Into the plane of the bend: `along` towards the lean, `across` square to it.
      const along = x * c - z * s;
      const across = x * s + z * c;
      const height = y - p.from;
      if (height <= 0) return [x, y, z];
      const within = Math.min(height, p.over);
      const angle = within / radius;
      const beyond = height - within;
      const far = radius - (radius - along) * Math.cos(angle) + beyond * Math.sin(angle);
      const up = (radius - along) * Math.sin(angle) + beyond * Math.cos(angle);
      return [far * c + across * s, p.from + up, across * c - far * s];
    });
  },
});
