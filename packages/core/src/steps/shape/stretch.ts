import type { Vec3 } from '../../geometry/vec';
import { defineStep } from '../declare';
import { percent } from '../../format';
import { MOVABLE } from './movable';

const AXES = { x: 0, y: 1, z: 2 } as const;

export const stretch = defineStep({
  kind: 'stretch',
  family: 'shape',
  label: 'Stretch',
  icon: 'M10 2V18M7 5 10 2 13 5M7 15 10 18 13 15M3 8C5 9 5 11 3 12M17 8C15 9 15 11 17 12',
  help: 'Makes it longer or flatter along one axis, and with its volume kept, thinner or wider across: a squash, a stretch. Several of them give each axis a size of its own.',
  takes: [],
  takesOne: MOVABLE,
  gives: [],
  params: {
    by: {
      type: 'number',
      unit: 'share',
      label: 'Stretch',
      help: 'Length along the axis against what it was; below 100 % it is squashed.',
      default: 1.4,
      min: 0.001,
      max: 1000,
      slider: [0.2, 3],
      varies: 'path',
    },
    axis: {
      type: 'choice',
      label: 'Axis',
      help: 'Which way it is stretched.',
      options: [
        { value: 'x', label: 'X, to the right' },
        { value: 'y', label: 'Y, upwards' },
        { value: 'z', label: 'Z, towards you' },
      ],
      default: 'y',
    },
    from: {
      type: 'choice',
      label: 'From',
      help: 'What stays in place along the axis; across it is the middle. At the origin, both are the origin.',
      options: [
        { value: 'low', label: 'Lower end' },
        { value: 'middle', label: 'Middle' },
        { value: 'high', label: 'Upper end' },
        { value: 'origin', label: 'Origin' },
      ],
      default: 'low',
    },
    keeps: {
      type: 'toggle',
      label: 'Keep the volume',
      help: 'Across it comes as much thinner or wider as it takes.',
      default: true,
    },
    across: {
      type: 'number',
      unit: 'share',
      label: 'Across',
      help: 'Size across the axis against what it was.',
      default: 1,
      min: 0.001,
      max: 1000,
      slider: [0.2, 3],
      varies: 'path',
      shown: (p) => p.keeps !== true,
    },
  },
  summary: (p) => `${percent(p.by)} along ${p.axis.toUpperCase()}`,
  async run(form, p, context) {
    const { wholeBoundsOf } = await import('../../geometry/extent');
    const { eachPoint } = await import('./eachPoint');
    // By the whole of it: what has grown does not slide while the rest grows.
    const bounds = wholeBoundsOf(form);
    if (!bounds) return form;
    const axis = AXES[p.axis];
    const still = [0, 1, 2].map((c) => {
      const [low, high] = [bounds.min[c], bounds.max[c]];
      if (p.from === 'origin') return 0;
      return c !== axis || p.from === 'middle' ? (low + high) / 2 : p.from === 'low' ? low : high;
    });
    const [by, across] = [context.varied('by'), context.varied('across')];
    return eachPoint(form, context, (point, element): Vec3 => {
      const along = by(element);
      const other = p.keeps ? 1 / Math.sqrt(along) : across(element);
      const sized = (c: 0 | 1 | 2): number => still[c] + (point[c] - still[c]) * (c === axis ? along : other);
      return [sized(0), sized(1), sized(2)];
    });
  },
});
