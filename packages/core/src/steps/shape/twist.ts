import type { Vec3 } from '../../geometry/vec';
import { defineStep } from '../declare';
import { figure, metres } from '../../format';
import { MOVABLE } from './movable';
import { rangeParams } from './rangeParams';

export const twist = defineStep({
  kind: 'twist',
  family: 'shape',
  label: 'Twist',
  icon: 'M6 3C6 8 14 8 14 12S6 13 6 17M14 3C14 8 6 8 6 12S14 13 14 17',
  help: 'Turns everything about the vertical axis, more and more with height: strands become a rope.',
  takes: [],
  takesOne: MOVABLE,
  gives: [],
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
      varies: 'path',
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
      varies: 'path',
    },
    ...rangeParams,
  },
  summary: (p) => `${figure(p.turns)} turns over ${metres(p.over)}`,
  async run(form, p, context) {
    const { withinRange } = await import('./range');
    const { eachPoint } = await import('./eachPoint');
    const [turns, offset] = [context.varied('turns'), context.varied('offset')];
    const within = withinRange(p, form);
    return eachPoint(form, context, ([x, y, z], element): Vec3 => {
      const angle = within(y) * (2 * Math.PI * turns(element) * (y / p.over) + (offset(element) * Math.PI) / 180);
      const [c, s] = [Math.cos(angle), Math.sin(angle)];
      return [x * c + z * s, y, z * c - x * s];
    });
  },
});
