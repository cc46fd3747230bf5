import type { Anchor } from '../../geometry/vec';
import { type AttributeParam, defineStep, is, numberField, type ParamSpecs, type ParamsOf } from '../declare';
import { formatCount, metres } from '../../format';

const along = is('way', 'along');
const length = numberField({ unit: 'm', min: 0, max: 10000 });

const params = {
  from: {
    type: 'choice',
    label: 'Starts from',
    help: 'Where the front begins: at its lowest or highest place, at places clicked on the form, at a guide or the tips of a growth, where another growth comes nearest, or at places of chance.',
    options: [
      { value: 'bottom', label: 'At the bottom' },
      { value: 'top', label: 'At the top' },
      { value: 'clicked', label: 'At clicked places' },
      { value: 'guide', label: 'At a guide' },
      { value: 'growth', label: 'At another growth' },
      { value: 'random', label: 'At random' },
    ],
    default: 'bottom',
  },
  places: {
    type: 'anchors',
    label: 'Places',
    help: 'Where on the form it sets out; they stay where they are on it.',
    onSkin: true,
    default: [] as readonly Anchor[],
    shown: is('from', 'clicked'),
  },
  guide: {
    type: 'guide',
    label: 'Guide',
    help: 'The place of the form that is nearest to it; of a plane, ball or box, all that lies inside.',
    default: null,
    shown: is('from', 'guide'),
  },
  growth: {
    type: 'growth',
    label: 'Growth',
    help: 'The front sets out where this one comes nearest.',
    default: null,
    shown: is('from', 'growth'),
  },
  count: {
    type: 'number',
    unit: 'count',
    label: 'Count',
    help: 'How many places, spread evenly over the form.',
    default: 3,
    min: 1,
    max: 1000,
    slider: [1, 24],
    whole: true,
    shown: is('from', 'random'),
  },
  way: {
    type: 'choice',
    label: 'Spreads',
    help: 'Along the surface, round whatever is in the way, or straight through space.',
    options: [
      { value: 'along', label: 'Along the surface' },
      { value: 'straight', label: 'Straight' },
    ],
    default: 'along',
  },
  reach: length('Reach', 'How far it has come. Animate it: two keys make an even pace.', 0.5, {
    slider: [0, 4],
    grows: true,
  }),
  soft: length('Soft edge', 'Length behind the edge over which the front comes up from nothing to all.', 0.1, {
    slider: [0, 1],
  }),
  rough: length('Rough edge', 'How far the edge runs ahead here and lags there.', 0, { slider: [0, 0.5] }),
  grain: length('Grain', 'Size of what is rough.', 0.2, {
    min: 0.001,
    slider: [0.02, 1],
    shown: (p) => Number(p.rough) !== 0,
  }),
  slowBy: {
    type: 'attribute',
    label: 'Slowed by',
    help: 'An attribute that holds the front back: at 0 it runs as ever, at 1 it is slowed by all that the next field says.',
    default: '',
    shown: along,
  } satisfies AttributeParam,
  slow: {
    type: 'number',
    unit: 'share',
    label: 'Slowed',
    help: 'At 100 % it stops where the attribute is 1.',
    default: 1,
    min: 0,
    max: 1,
    shown: (p) => along(p) && p.slowBy !== '',
  },
  gap: length('Jump gaps up to', 'Crosses to other parts, and over holes, that are no further away than this.', 0, {
    max: 1000,
    slider: [0, 0.5],
    shown: along,
  }),
  combine: {
    type: 'choice',
    label: 'Combine',
    help: 'How it is combined with a front before it: replace it, add to it, or subtract from it.',
    options: [
      { value: 'own', label: 'Replace' },
      { value: 'both', label: 'Add' },
      { value: 'undo', label: 'Subtract' },
    ],
    default: 'own',
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type FrontParams = ParamsOf<typeof params>;

export const front = defineStep({
  kind: 'front',
  family: 'skin',
  label: 'Front',
  icon: 'M4 17C4 9 9 4 17 4M4 13.5C4 12 4.5 10.8 5.2 9.8M8.5 17C8.5 12 12 8.5 17 8.5M13 17C13 14.5 14.5 13 17 13',
  help: 'A front that spreads over a skin, or along paths while there is none, at an even pace. It changes nothing by itself: colours, glow, Reveal, Displace, Scatter, falloffs and time offsets after it go by it.',
  takes: [],
  takesOne: ['mesh', 'paths'],
  gives: [],
  parts: {
    Edge: ['rough', 'grain'],
    'Held back': ['slowBy', 'slow', 'gap'],
  },
  params,
  moves: true,
  writes: () => ['front', 'distance', 'tip'],
  summary: (p) =>
    `${metres(p.reach)} ${p.way === 'along' ? 'along the surface' : 'straight'}${p.from === 'clicked' ? `, from ${formatCount(p.places.length, 'place')}` : ''}`,
  async run(form, p, context) {
    const { runFrontOnMesh, runFrontOnPaths } = await import('./runFront');
    if (form.mesh) return { ...form, mesh: await runFrontOnMesh(form.mesh, p, context) };
    return { ...form, paths: await runFrontOnPaths(form.paths!, p, context) };
  },
});
