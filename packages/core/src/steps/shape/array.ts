import {
  defineStep,
  is,
  type NumberParam,
  numberField,
  type ParamSpecs,
  type ParamsOf,
  place,
  shownFor,
} from '../declare';
import { axisParam } from '../axisParam';
import { figure } from '../../format';
import { MOVABLE } from './movable';
import { turnFields } from './transform';

const line = is('as', 'line');
const grid = is('as', 'grid');
const circle = is('as', 'circle');

const count = (label: string, help: string, value: number, more: Partial<NumberParam> = {}): NumberParam => ({
  type: 'number',
  unit: 'count',
  label,
  help,
  default: value,
  min: 0,
  max: 10000,
  slider: [0, 40],
  ...more,
});
const gap = numberField({ unit: 'm', min: -1000, max: 1000, slider: [-3, 3] });
const along = (axis: string, shown: typeof grid) => ({
  ...count(axis, 'How many stand along this axis.', axis === 'Y' ? 1 : 4, {
    whole: true,
    min: 1,
    max: 1000,
    slider: [1, 20],
  }),
  group: 'Counts',
  shown,
});

const params = {
  as: {
    type: 'choice',
    label: 'Arrangement',
    help: 'In a line, each moved, turned and scaled further; in a circle about an axis; or in a grid.',
    options: [
      { value: 'line', label: 'Line' },
      { value: 'circle', label: 'Circle' },
      { value: 'grid', label: 'Grid' },
    ],
    default: 'line',
  },
  count: count(
    'Count',
    'How many there are, the first among them. Between whole numbers, the last one comes up from nothing.',
    5,
    {
      shown: (p) => p.as !== 'grid',
    },
  ),
  countX: along('X', grid),
  countY: along('Y', grid),
  countZ: along('Z', grid),
  ...shownFor(place('apart', 'Spacing', 'From each to the next along each axis.', [1, 1, 1]), grid),
  ...shownFor(place('each', 'Offset', 'From each to the next.', [1, 0, 0]), line),
  ...shownFor(turnFields, line),
  axis: { ...axisParam('About what the circle runs.'), shown: circle },
  ...shownFor(place('through', 'Through', 'A point that the axis goes through.', [0, 0, 0]), circle),
  full: {
    type: 'toggle',
    label: 'Full circle',
    help: 'Spreads them evenly over the whole circle, however many there are.',
    default: true,
    shown: circle,
  },
  angle: {
    type: 'number',
    unit: 'deg',
    label: 'Angle between',
    help: 'From each to the next. 137.508° is the golden angle, by which leaves follow each other.',
    default: 30,
    min: -36000,
    max: 36000,
    slider: [-180, 180],
    shown: (p) => circle(p) && p.full === false,
  },
  rise: { ...gap('Rise', 'How much further along the axis each stands than the one before.', 0), shown: circle },
  scale: {
    type: 'number',
    unit: 'share',
    label: 'Scale each',
    help: 'Size of each against the one before.',
    default: 1,
    min: 0.01,
    max: 100,
    slider: [0.5, 1.5],
    shown: (p) => p.as !== 'grid',
  },
  centre: {
    type: 'toggle',
    label: 'Centre',
    help: 'Sets the grid about the place of the original, to all sides.',
    default: false,
    shown: grid,
  },
  delay: {
    type: 'number',
    unit: 'frames',
    label: 'Delay',
    help: 'How many frames each is later than the one before, in all that happens to it.',
    default: 0,
    min: 0,
    max: 10000,
    slider: [0, 30],
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type ArrayParams = ParamsOf<typeof params>;

export const array = defineStep({
  kind: 'array',
  family: 'shape',
  label: 'Array',
  icon: 'M2.5 8H6.5V12H2.5ZM8 8H12V12H8ZM13.5 8H17.5V12H13.5Z',
  help: 'Repeats everything in a line, a circle or a grid: paths, skin, points and copies; each can be later than the one before.',
  takes: [],
  takesOne: MOVABLE,
  gives: [],
  params,
  summary: (p) =>
    p.as === 'grid'
      ? `${p.countX} × ${p.countY} × ${p.countZ}`
      : `${figure(p.count, 1)} in a ${p.as}${p.delay > 0 ? `, ${figure(p.delay, 1)} frames apart` : ''}`,
  async run(form, p, context) {
    const { runArray } = await import('./runArray');
    return runArray(form, p, context);
  },
});
