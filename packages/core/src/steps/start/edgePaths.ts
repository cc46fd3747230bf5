import { Problem } from '../../problem';
import { defineStep, is, type ParamSpecs, type ParamsOf, place, type Resolved, shownFor } from '../declare';
import { formatCount } from '../../format';
import { startWith } from './startWith';

const tree = is('way', 'tree');
const walk = is('way', 'walk');
const toPlace = (p: Resolved): boolean => tree(p) && p.to === 'place';

const params = {
  growth: {
    type: 'growth',
    label: 'Growth',
    help: 'Along the edges of whose skin they run.',
    default: null,
    fits: ['mesh', 'copies'],
  },
  way: {
    type: 'choice',
    label: 'Paths',
    help: 'The shortest ways from one place, which branch as veins do; or walks at random that never cross.',
    options: [
      { value: 'tree', label: 'Shortest ways' },
      { value: 'walk', label: 'Walks' },
    ],
    default: 'tree',
  },
  to: {
    type: 'choice',
    label: 'To',
    help: 'Many places all over the skin, or one.',
    options: [
      { value: 'many', label: 'Many places' },
      { value: 'place', label: 'One place' },
    ],
    default: 'many',
    shown: tree,
  },
  count: {
    type: 'number',
    unit: 'count',
    label: 'Count',
    help: 'How many ways or walks there are. More walks change none before.',
    default: 60,
    min: 0,
    max: 100_000,
    slider: [1, 400],
    whole: true,
    shown: (p) => walk(p) || p.to === 'many',
  },
  ...shownFor(place('from', 'From', 'They begin at the corner nearest to this.', [0, 0, 0]), tree),
  start: {
    type: 'guide',
    label: 'From guide',
    help: 'They begin at the corner nearest to a guide, instead.',
    default: null,
    shown: tree,
  },
  ...shownFor(place('end', 'Towards', 'Where they lead.', [0, 2, 0]), (p) => walk(p) || toPlace(p)),
  target: {
    type: 'guide',
    label: 'Towards guide',
    help: 'They lead to a guide, instead.',
    default: null,
    shown: (p) => walk(p) || toPlace(p),
  },
  wander: {
    type: 'number',
    unit: 'share',
    label: 'Wander',
    help: 'How much chance leads them away from the shortest way.',
    default: 0.3,
    min: 0,
    max: 1,
    shown: tree,
  },
  length: {
    type: 'number',
    unit: 'm',
    label: 'Length',
    help: 'Of each walk at most; it ends before where it is walled in.',
    default: 1.5,
    min: 0.0001,
    max: 1000,
    slider: [0.1, 5],
    shown: walk,
  },
  straight: {
    type: 'number',
    unit: 'share',
    label: 'Straight on',
    help: 'How much they keep their direction.',
    default: 0.7,
    min: 0,
    max: 1,
    shown: walk,
  },
  pull: {
    type: 'number',
    unit: 'share',
    label: 'Pull',
    help: 'How much they go towards the place; below 0, away from it.',
    default: 0,
    min: -1,
    max: 1,
    shown: walk,
  },
  running: {
    type: 'choice',
    label: 'Front',
    help: 'How Grow runs through branches: at an even pace from the root, or so that all tips arrive together.',
    options: [
      { value: 'even', label: 'At an even pace' },
      { value: 'together', label: 'Tips together' },
    ],
    default: 'even',
    shown: tree,
  },
  exponent: {
    type: 'number',
    unit: 'plain',
    label: 'Thickness',
    help: 'A branch raised to this power is its children raised to it, added up.',
    default: 2.5,
    min: 1,
    max: 10,
    slider: [1.5, 4],
    shown: tree,
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type EdgePathsParams = ParamsOf<typeof params>;

export const edgePaths = defineStep({
  kind: 'edge-paths',
  family: 'start',
  label: 'Paths along edges',
  use: 'From another growth',
  icon: 'M3 14 7 5 14 4 17 11 11 17ZM7 5 10.5 10.5 17 11M10.5 10.5 11 17M10.5 10.5 3 14',
  help: 'Paths that run along the edges of another growth’s skin: the shortest ways from a place to one or many others, which branch; or walks that never cross. They ride on the skin as it moves.',
  takes: [],
  gives: ['paths'],
  branches: true,
  params,
  summary: (p) =>
    p.growth === null
      ? 'no growth chosen'
      : p.way === 'walk'
        ? formatCount(p.count, 'walk')
        : p.to === 'place'
          ? 'the shortest way'
          : `shortest ways to ${formatCount(p.count, 'place')}`,
  async run(form, p, context) {
    const { runEdgePaths } = await import('./runEdgePaths');
    const paths = await runEdgePaths(p, context);
    if (!paths)
      throw new Problem('No edge leads there.', 'Move the places, or choose a skin that is all of one piece.');
    return startWith(form, paths);
  },
});
