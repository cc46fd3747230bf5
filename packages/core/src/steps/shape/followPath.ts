import { Problem } from '../../problem';
import { defineStep, type ParamSpecs, type ParamsOf } from '../declare';
import { axisParam } from '../axisParam';
import { figure } from '../../format';
import { MOVABLE } from './movable';

const params = {
  growth: {
    type: 'growth',
    label: 'Path',
    help: 'The growth whose path it is bent along; its first, where it has several.',
    default: null,
    fits: ['paths'],
  },
  axis: axisParam('Which of its own axes runs along the path.'),
  length: {
    type: 'choice',
    label: 'Length',
    help: 'It keeps its length and lies somewhere on the whole path; or it is stretched over what has grown of the path.',
    options: [
      { value: 'kept', label: 'Keeps its own' },
      { value: 'fitted', label: 'Fits the path' },
    ],
    default: 'kept',
  },
  start: {
    type: 'number',
    unit: 'share',
    label: 'Start',
    help: 'Where on the path its lower end lies; animate it and the form travels along. Beyond the ends the path goes on straight.',
    default: 0,
    min: -100,
    max: 100,
    slider: [-1, 1],
    shown: (p) => p.length === 'kept',
  },
  lean: {
    type: 'choice',
    label: 'Lean',
    help: 'How it is turned about the path: as the path carries it without twist, or so that one side stays level or upright.',
    options: [
      { value: 'path', label: 'Follows the path' },
      { value: 'level', label: 'Level' },
      { value: 'upright', label: 'Upright' },
    ],
    default: 'path',
  },
  roll: {
    type: 'number',
    unit: 'deg',
    label: 'Roll',
    help: 'Turns it about the path.',
    default: 0,
    min: -36000,
    max: 36000,
    slider: [-180, 180],
  },
  amount: {
    type: 'number',
    unit: 'share',
    label: 'Amount',
    help: 'How far on the way onto the path it goes.',
    default: 1,
    min: 0,
    max: 1,
    varies: 'along',
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type FollowPathParams = ParamsOf<typeof params>;

export const followPath = defineStep({
  kind: 'follow-path',
  family: 'shape',
  label: 'Follow path',
  icon: 'M3 16C3 9 9 12 10 8 11 4 14 3 17 4M14.5 2 17 4 15 6.5M6.5 13.5 9 11',
  help: 'Bends paths, skin, points and copies along the path of another growth: eels that swim, letters on a curve, a plant that leans as its support grows.',
  takes: [],
  takesOne: MOVABLE,
  gives: [],
  params,
  summary: (p) =>
    p.growth === null
      ? 'no path chosen'
      : p.length === 'fitted'
        ? 'fitted to the path'
        : `from ${figure(100 * p.start, 1)} % of the path`,
  async run(form, p, context) {
    if (p.growth === null) throw new Problem('No path is chosen.', 'Choose the growth whose path it follows.');
    const { runFollowPath } = await import('./runFollowPath');
    return runFollowPath(form, p, context);
  },
});
