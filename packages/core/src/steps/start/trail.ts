import { Problem } from '../../problem';
import { defineStep, is, type ParamSpecs, type ParamsOf } from '../declare';
import { figure } from '../../format';
import { startWith } from './startWith';

const params = {
  growth: {
    type: 'growth',
    label: 'Growth',
    help: 'What draws the trails. Without one, what stands before this step in its own growth draws them: the motion of later steps is left out.',
    default: null,
    optional: true,
    neededFirst: true,
  },
  of: {
    type: 'choice',
    label: 'Drawn by',
    help: 'The growing ends of its paths, its copies, its points, all points of its paths, or the corners of its skin.',
    options: [
      { value: 'tips', label: 'Tips' },
      { value: 'copies', label: 'Copies' },
      { value: 'points', label: 'Points' },
      { value: 'nodes', label: 'Points of paths' },
      { value: 'vertices', label: 'Corners of the skin' },
    ],
    default: 'tips',
  },
  over: {
    type: 'choice',
    label: 'Over',
    help: 'The last frames, so that the far end follows; or all since the first frame of the range.',
    options: [
      { value: 'last', label: 'The last frames' },
      { value: 'range', label: 'Since the first frame' },
    ],
    default: 'last',
  },
  frames: {
    type: 'number',
    unit: 'frames',
    label: 'Length',
    help: 'How many frames back each trail reaches. In a scene that loops it closes with it.',
    default: 24,
    min: 0,
    max: 10000,
    slider: [0, 120],
    shown: is('over', 'last'),
  },
  every: {
    type: 'number',
    unit: 'frames',
    label: 'Every',
    help: 'Frames from one place that is looked at to the next; less than one for quick turns.',
    default: 1,
    min: 0.05,
    max: 100,
    slider: [0.25, 8],
  },
  smooth: {
    type: 'number',
    unit: 'count',
    label: 'Points between',
    help: 'Points of the curve from one of these places to the next; 1 goes straight.',
    default: 3,
    min: 1,
    max: 50,
    slider: [1, 8],
    whole: true,
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type TrailParams = ParamsOf<typeof params>;

export const trail = defineStep({
  kind: 'trail',
  family: 'start',
  label: 'Trail',
  use: 'From another growth',
  icon: 'M2.5 15C6 15 6 9 9 9S12 12 14 9M16 7A1.6 1.6 0 1 0 16.01 7M2.5 10C4 10 4.5 7 6 6',
  help: 'Paths along which something has moved: tips, copies, points or corners, over the last frames or since the first.',
  takes: [],
  gives: ['paths'],
  many: true,
  moves: true,
  params,
  summary: (p) => `of ${p.of}, ${p.over === 'last' ? `${figure(p.frames, 1)} frames` : 'since the first frame'}`,
  async run(form, p, context) {
    const { runTrail } = await import('./runTrail');
    const paths = await runTrail(form, p, context);
    if (!paths)
      throw new Problem(
        `There are no ${{ tips: 'open paths', copies: 'copies', points: 'points', nodes: 'paths', vertices: 'corners of a skin' }[p.of]} to draw trails.`,
        p.growth === null
          ? 'Choose the growth that draws them, or begin with a path.'
          : 'Choose another growth, or what draws.',
      );
    return startWith(form, paths);
  },
});
