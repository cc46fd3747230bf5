import { defineStep, is, type ParamSpecs, type ParamsOf } from '../declare';
import { formatCount, percent } from '../../format';

const params = {
  nodes: {
    type: 'text',
    label: 'Points',
    help: 'A point a row: X, Y and Z, the number of the point that it grows from (0 for none), its size and its kind. Place points by clicking in the view; drag them, and drag the small square beside one onto its parent.',
    default: '0 0 0\n0.1 0.8 0 1\n-0.5 1.3 0.1 2 0.8\n0.6 1.4 -0.1 2 0.8\n0.1 1.9 0 2 1.2 2',
    most: 60000,
    rows: 'Point',
    placed: true,
  },
  grown: {
    type: 'number',
    unit: 'share',
    label: 'Grown',
    help: 'How far it has grown, at an even pace.',
    default: 1,
    min: 0,
    max: 1,
  },
  order: {
    type: 'choice',
    label: 'Order',
    help: 'Each sets out as soon as its parent has arrived; or one after another, in the order of the rows.',
    options: [
      { value: 'parents', label: 'After its parent' },
      { value: 'rows', label: 'Row by row' },
    ],
    default: 'parents',
  },
  overlap: {
    type: 'number',
    unit: 'share',
    label: 'Overlap',
    help: 'How much of its travel a point still has before it when the next one sets out.',
    default: 0.3,
    min: 0,
    max: 1,
    shown: is('order', 'rows'),
  },
  overshoot: {
    type: 'number',
    unit: 'share',
    label: 'Overshoot',
    help: 'How far past its place a point shoots before it settles, of its way out from its parent.',
    default: 0.12,
    min: 0,
    max: 2,
    slider: [0, 0.6],
  },
  points: {
    type: 'number',
    unit: 'count',
    label: 'Points per line',
    help: 'Of the line from each parent.',
    default: 24,
    min: 2,
    max: 10000,
    slider: [2, 100],
    whole: true,
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type PlacedPointsParams = ParamsOf<typeof params>;

export const placedPoints = defineStep({
  kind: 'placed-points',
  handles: 'nodes',
  family: 'start',
  label: 'Placed points',
  use: 'Branches and webs',
  icon: 'M10 17V11M10 11L5 6M10 11L15 5M8.5 17a1.5 1.5 0 1 0 3 0a1.5 1.5 0 1 0 -3 0M3.5 5a1.5 1.5 0 1 0 3 0a1.5 1.5 0 1 0 -3 0M13.5 4a1.5 1.5 0 1 0 3 0a1.5 1.5 0 1 0 -3 0',
  help: 'Points that are put down one by one in the view or on a form, each with a parent, a size and a kind. They travel out from their parents and settle, lines follow: On the points puts something on them, a skin goes on the lines.',
  takes: [],
  gives: ['paths', 'points'],
  params,
  many: true,
  paced: 'grown',
  writes: () => ['kind', 'generation'],
  summary: (p) =>
    `${formatCount(p.nodes.split('\n').filter((row) => row.trim() !== '').length, 'point')}, ${percent(p.grown)} grown`,
  async run(form, p, context) {
    const { runPlacedPoints } = await import('./runPlacedPoints');
    return runPlacedPoints(form, p, context);
  },
});
