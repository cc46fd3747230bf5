import { defineStep, is, shownFor, numberField, type ParamSpecs, type ParamsOf, place } from '../declare';
import { formatCount } from '../../format';

const inSpace = is('where', 'ball', 'box', 'cone');
const length = numberField({ unit: 'm', min: 0.0001, max: 1000 });

const params = {
  where: {
    type: 'choice',
    label: 'Places in',
    help: 'Where the places lie that it grows towards: in a ball, a box, a cone with its point below; inside the outline that the closed paths of another growth draw, or inside its form; on its skin, as veins; or just at the points of another growth.',
    options: [
      { value: 'ball', label: 'A ball' },
      { value: 'box', label: 'A box' },
      { value: 'cone', label: 'A cone' },
      { value: 'outline', label: 'An outline' },
      { value: 'form', label: 'A form' },
      { value: 'skin', label: 'On a skin' },
      { value: 'points', label: 'Points of a growth' },
    ],
    default: 'ball',
  },
  growth: {
    type: 'growth',
    label: 'Growth',
    help: 'The growth whose outline, form, skin or points they are, as it is at the last frame: the tree is grown once.',
    default: null,
    still: true,
    shown: is('where', 'outline', 'form', 'skin', 'points'),
  },
  ...shownFor(place('at', 'Middle', 'Middle of the ball, box or cone.', [0, 1.4, 0]), inSpace),
  width: length('Width', 'From side to side.', 1.6, { slider: [0.1, 6], shown: inSpace }),
  height: length('Height', 'From bottom to top.', 1.4, { slider: [0.1, 6], shown: inSpace }),
  depth: length('Depth', 'From front to back; across the plane of an outline.', 1.6, {
    min: 0,
    slider: [0, 6],
    shown: is('where', 'ball', 'box', 'cone', 'outline'),
  }),
  count: {
    type: 'number',
    unit: 'count',
    label: 'Places',
    help: 'How many places there are: the more, the denser it gets.',
    default: 900,
    min: 1,
    max: 100_000,
    slider: [20, 4000],
    whole: true,
    shown: (p) => p.where !== 'points',
  },
  spread: {
    type: 'choice',
    label: 'Spread',
    help: 'At random; or in blue noise, none much nearer to another than it need be: branches are more even then.',
    options: [
      { value: 'random', label: 'At random' },
      { value: 'even', label: 'Blue noise' },
    ],
    default: 'random',
    shown: (p) => p.where !== 'points',
  },
  ...place('root', 'Root', 'Where it begins.', [0, 0, 0]),
  roots: {
    type: 'guide',
    label: 'Roots at',
    help: 'Begins at a guide, or at the tips of a growth, instead of the root.',
    default: null,
  },
  reach: length('Reach', 'How far away a place still draws a branch.', 0.5, { slider: [0.02, 2] }),
  reached: length(
    'Reached at',
    'Within this of a branch a place draws no more: the larger, the sparser it stays.',
    0.12,
    {
      slider: [0.01, 0.5],
    },
  ),
  step: length('Segment length', 'Length that a branch grows at a time.', 0.05, { min: 0.001, slider: [0.01, 0.2] }),
  up: {
    type: 'number',
    unit: 'share',
    label: 'Upwards',
    help: 'How much all of it leans upwards; below 0 it hangs.',
    default: 0,
    min: -2,
    max: 2,
    slider: [-1, 1],
    shown: (p) => p.where !== 'skin',
  },
  around: {
    type: 'growth',
    label: 'Obstacle',
    help: 'A growth whose form it does not grow into.',
    default: null,
    optional: true,
    fits: ['mesh', 'copies'],
    shown: (p) => p.where !== 'skin' && p.where !== 'form',
  },
  running: {
    type: 'choice',
    label: 'Front',
    help: 'How Grow runs through it: at an even pace from the root, so that all tips arrive together, or as it was born.',
    options: [
      { value: 'even', label: 'At an even pace' },
      { value: 'together', label: 'Tips together' },
      { value: 'birth', label: 'As it was born' },
    ],
    default: 'even',
  },
  exponent: {
    type: 'number',
    unit: 'plain',
    label: 'Thickness',
    help: 'A branch raised to this power is its children raised to it, added up: at 2 it carries their cross-sections; higher, it stays thicker.',
    default: 2.5,
    min: 1,
    max: 10,
    slider: [1.5, 4],
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type ColoniseParams = ParamsOf<typeof params>;

export const colonise = defineStep({
  kind: 'colonise',
  family: 'start',
  held: true,
  label: 'Space colonisation',
  use: 'Branches and webs',
  icon: 'M10 17V11M10 11 6 7M10 11 14 8M6 7 4 4M6 7 8 3.5M14 8 13 4M14 8 17 5.5M8 17H12',
  help: 'Branches that grow towards places until all are reached: trees, corals, veins, roots. It is grown once; Grow runs through it, and joints wait for the front.',
  takes: [],
  gives: ['paths'],
  coarse: { count: 0.3 },
  parts: {
    Root: ['rootX', 'rootY', 'rootZ', 'roots'],
  },
  branches: true,
  params,
  summary: (p) => (p.where === 'points' ? 'to the points of a growth' : `to ${formatCount(p.count, 'place')}`),
  async run(form, p, context) {
    const [{ runColonise }, { startWith }] = await Promise.all([import('./runColonise'), import('./startWith')]);
    return startWith(form, await runColonise(p, context));
  },
});
