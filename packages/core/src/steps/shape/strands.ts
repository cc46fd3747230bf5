import { defineStep, type ParamSpecs, type ParamsOf } from '../declare';
import { formatCount } from '../../format';

const params = {
  as: {
    type: 'choice',
    label: 'Arrangement',
    help: 'How the strands stand to each other.',
    options: [
      { value: 'bed', label: 'Bed' },
      { value: 'ring', label: 'Ring about it' },
      { value: 'parallel', label: 'Parallel to it' },
      { value: 'row', label: 'Row' },
      { value: 'fan', label: 'Fan' },
    ],
    default: 'bed',
  },
  count: {
    type: 'number',
    unit: 'count',
    label: 'Count',
    help: 'How many there are; more are added at the end, the others stay.',
    default: 24,
    min: 1,
    max: 10000,
    slider: [1, 200],
    whole: true,
  },
  apart: {
    type: 'number',
    unit: 'm',
    label: 'Apart',
    help: 'Distance of neighbours, or of the ring from its middle.',
    default: 0.15,
    min: 0,
    max: 1000,
    slider: [0, 1],
    shown: (p) => p.as !== 'fan',
  },
  spread: {
    type: 'number',
    unit: 'deg',
    label: 'Spread',
    help: 'Angle between the outermost strands of the fan.',
    default: 120,
    min: -360,
    max: 360,
    shown: (p) => p.as === 'fan',
  },
  lean: {
    type: 'number',
    unit: 'deg',
    label: 'Lean',
    help: 'How far strands of a bed lean outwards, for each metre from its middle.',
    default: 30,
    min: -360,
    max: 360,
    slider: [-120, 120],
    shown: (p) => p.as === 'bed',
  },
  vary: {
    type: 'number',
    unit: 'share',
    label: 'Vary size',
    help: 'By how much strands are smaller than the whole, at random.',
    default: 0.3,
    min: 0,
    max: 1,
  },
  turn: {
    type: 'number',
    unit: 'share',
    label: 'Vary turn',
    help: 'How freely each strand is turned about the vertical through its base.',
    default: 1,
    min: 0,
    max: 1,
    shown: (p) => p.as !== 'ring' && p.as !== 'parallel',
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type StrandsParams = ParamsOf<typeof params>;

export const strands = defineStep({
  kind: 'strands',
  family: 'shape',
  label: 'Strands',
  icon: 'M5 17C5 11 3 9 4 3M10 17V3M15 17C15 11 17 9 16 3',
  help: 'Makes many paths of one: side by side, parallel to its course or in a ring about it, fanned out, or as a bed on the ground.',
  takes: ['paths'],
  gives: ['paths'],
  params,
  summary: (p) => `${formatCount(p.count, 'strand')}, ${p.as}`,
  async run(form, p, context) {
    const { runStrands } = await import('./runStrands');
    // What there will be in all is no longer known.
    return { ...form, extent: null, paths: await runStrands(form.paths!, p, context) };
  },
});
