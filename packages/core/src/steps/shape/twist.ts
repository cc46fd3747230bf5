import { type Vec3 } from '../../geometry/vec';
import { defineStep } from '../declare';
import { figure, metres } from '../format';
import { eachPoint } from './eachPoint';

export const twist = defineStep({
  kind: 'twist',
  family: 'shape',
  label: 'Twist',
  help: 'Turns everything about the vertical axis, more and more with height: strands become a rope.',
  takes: ['paths'],
  gives: ['paths'],
  params: {
    turns: {
      type: 'number',
      unit: 'turns',
      label: 'Turns',
      help: 'Full turns over the height below.',
      default: 1,
      min: -1000,
      max: 1000,
      slider: [-6, 6],
    },
    over: {
      type: 'number',
      unit: 'm',
      label: 'Over',
      help: 'Height that the turns are spread over.',
      default: 2,
      min: 0.001,
      max: 1000,
      slider: [0.1, 5],
    },
    offset: {
      type: 'number',
      unit: 'deg',
      label: 'Offset',
      help: 'Turns the whole of it besides; animate it and it spins.',
      default: 0,
      min: -36000,
      max: 36000,
      slider: [-360, 360],
    },
  },
  summary: (p) => `${figure(p.turns)} turns over ${metres(p.over)}`,
  run: (form, p, context) =>
    eachPoint(form, context, ([x, y, z]): Vec3 => {
      const angle = 2 * Math.PI * p.turns * (y / p.over) + (p.offset * Math.PI) / 180;
      const [c, s] = [Math.cos(angle), Math.sin(angle)];
      return [x * c + z * s, y, z * c - x * s];
    }),
});
