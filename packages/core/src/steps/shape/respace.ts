import { defineStep, type ParamSpecs, type ParamsOf } from '../declare';
import { formatCount, figure, metres } from '../../format';

const params = {
  by: {
    type: 'choice',
    label: 'By',
    help: 'A fixed number of points, a fixed distance between them, or so many to each metre.',
    options: [
      { value: 'count', label: 'Count' },
      { value: 'spacing', label: 'Spacing' },
      { value: 'density', label: 'Points per metre' },
    ],
    default: 'count',
  },
  count: {
    type: 'number',
    unit: 'count',
    label: 'Count',
    help: 'Points on each path.',
    default: 200,
    min: 2,
    max: 200000,
    slider: [2, 600],
    whole: true,
    shown: (p) => p.by === 'count',
  },
  spacing: {
    type: 'number',
    unit: 'm',
    label: 'Spacing',
    help: 'Length between neighbours.',
    default: 0.02,
    min: 0.0001,
    max: 100,
    slider: [0.005, 0.5],
    shown: (p) => p.by === 'spacing',
  },
  density: {
    type: 'number',
    unit: 'plain',
    label: 'Per metre',
    help: 'Points to a metre: a path that lengthens gets more of them, as dense as before.',
    default: 50,
    min: 0.001,
    max: 10000,
    slider: [1, 200],
    shown: (p) => p.by === 'density',
  },
  rest: {
    type: 'choice',
    label: 'Remainder',
    help: 'What happens where the length is no whole number of pieces: all are fitted, the last is shorter, or the path ends before it.',
    options: [
      { value: 'fit', label: 'Fit all pieces' },
      { value: 'keep', label: 'Keep a shorter last' },
      { value: 'drop', label: 'Drop it' },
    ],
    default: 'fit',
    shown: (p) => p.by !== 'count',
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type RespaceParams = ParamsOf<typeof params>;

export const respace = defineStep({
  kind: 'respace',
  family: 'shape',
  label: 'Respace',
  icon: 'M3 10H17M3 7.5V12.5M7.7 7.5V12.5M12.3 7.5V12.5M17 7.5V12.5',
  help: 'Places the points of each path anew at equal lengths along it.',
  takes: ['paths'],
  gives: ['paths'],
  params,
  summary: (p) =>
    ({
      count: formatCount(p.count, 'point'),
      spacing: `every ${metres(p.spacing)}`,
      density: `${figure(p.density)} a metre`,
    })[p.by],
  async run(form, p, context) {
    const { runRespace } = await import('./runRespace');
    return { ...form, paths: await runRespace(form.paths!, p, context) };
  },
});
