import { Problem } from '../../problem';
import { defineStep, type ParamSpecs, type ParamsOf } from '../declare';
import { figure } from '../../format';
import { withSkin } from './withSkin';

const share = (label: string, help: string, value: number) =>
  ({ type: 'number', unit: 'share', label, help, default: value, min: 0, max: 1 }) as const;

const params = {
  course: {
    type: 'growth',
    label: 'Along',
    help: 'A path on which the sections are set one after another, square to it. Closed paths of this growth become the sections, with those inside them as holes: letters that turn into one another. Without it they stand where they are.',
    default: null,
    optional: true,
    fits: ['paths'],
  },
  from: share('From', 'Share of the way at which the skin begins.', 0),
  to: share('To', 'Share of the way at which it ends; animate it and the skin grows.', 1),
  lean: {
    type: 'choice',
    label: 'Sections stand',
    help: 'How sections are turned about the path: upright, so that letters stand on their feet; or as the path carries them without twist.',
    options: [
      { value: 'upright', label: 'Upright' },
      { value: 'path', label: 'As the path turns' },
    ],
    default: 'upright',
    shown: (p) => p.course !== null,
  },
  roll: {
    type: 'number',
    unit: 'deg',
    label: 'Roll',
    help: 'Turns all sections about the path.',
    default: 0,
    min: -36000,
    max: 36000,
    slider: [-180, 180],
    shown: (p) => p.course !== null,
  },
  shape: {
    type: 'choice',
    label: 'Between sections',
    help: 'The skin bends smoothly through the sections, or goes straight from each to the next.',
    options: [
      { value: 'smooth', label: 'Smooth' },
      { value: 'straight', label: 'Straight' },
    ],
    default: 'smooth',
  },
  loop: {
    type: 'toggle',
    label: 'Close the loop',
    help: 'Goes on from the last section to the first.',
    default: false,
  },
  match: {
    type: 'choice',
    label: 'Start points',
    help: 'Which point of a section becomes which of the next: the arrangement in which they lie nearest, or each from where it was drawn.',
    options: [
      { value: 'nearest', label: 'Nearest' },
      { value: 'drawn', label: 'As drawn' },
    ],
    default: 'nearest',
    shown: (p) => p.course === null,
  },
  points: {
    type: 'number',
    unit: 'count',
    label: 'Points',
    help: 'Points of each section. Sharp corners are kept.',
    default: 120,
    min: 3,
    max: 2000,
    slider: [12, 400],
    whole: true,
  },
  rows: {
    type: 'number',
    unit: 'count',
    label: 'Rows',
    help: 'Rows of faces from one section to the next.',
    default: 24,
    min: 1,
    max: 2000,
    slider: [1, 100],
    whole: true,
  },
  caps: {
    type: 'toggle',
    label: 'Close ends',
    help: 'Fills the first and the last section, where they are closed.',
    default: true,
  },
  crease: {
    type: 'number',
    unit: 'deg',
    label: 'Smoothing angle',
    help: 'Edges where faces meet at less than this look round.',
    default: 35,
    min: 0,
    max: 180,
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type LoftParams = ParamsOf<typeof params>;

export const loft = defineStep({
  kind: 'loft',
  family: 'skin',
  label: 'Loft',
  icon: 'M4 16H16L13 10H7ZM7 10 8.5 4H11.5L13 10M4 16 7 10M16 16 13 10',
  help: 'Spans a skin through the paths in their order, from section to section: hulls, petals, bottles, letters that turn into others. Along a path, the sections are set on it.',
  takes: ['paths'],
  gives: ['mesh'],
  parts: { Turning: ['lean', 'roll'], Fineness: ['points', 'rows', 'crease'] },
  params,
  summary: (p) => `${p.shape}${p.loop ? ', closed' : ''}, ${figure(100 * (p.to - p.from))} %`,
  async run(form, p, context) {
    const { runLoft } = await import('./runLoft');
    const mesh = await runLoft(form.paths!, p, context);
    if (!mesh)
      throw new Problem(
        'A loft needs two sections or more.',
        p.course === null
          ? 'Add another path: all open, or all closed.'
          : 'Add closed paths: outlines of letters, drawn shapes.',
      );
    return withSkin(form, mesh);
  },
});
