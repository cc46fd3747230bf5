import { defineStep, is, numberField, type ParamSpecs, type ParamsOf } from '../declare';
import { figure, metres } from '../../format';

const lengthField = numberField({ unit: 'm', min: 0, max: 1000 });
const near = is('by', 'guide');

const params = {
  by: {
    type: 'choice',
    label: 'Remove',
    help: 'Branches beyond so many joints from the root, short ones, what is thinner than some, what is on one side of another growth’s form, what is far from a guide, or what an attribute says, such as a falloff. What grows from what is taken off goes with it.',
    options: [
      { value: 'depth', label: 'Late branches' },
      { value: 'length', label: 'Short branches' },
      { value: 'thickness', label: 'Thin ends' },
      { value: 'form', label: 'By a form' },
      { value: 'guide', label: 'By a guide' },
      { value: 'attribute', label: 'By an attribute' },
    ],
    default: 'depth',
  },
  depth: numberField({ unit: 'plain', min: 0, max: 1000 })(
    'Joints',
    'Branches with more joints between them and the root are taken off; between two whole numbers the last ones are part as long.',
    1,
    { slider: [0, 8], shown: is('by', 'depth') },
  ),
  shortest: lengthField('Shorter than', 'Branches that are shorter are taken off.', 0.1, {
    slider: [0, 1],
    shown: is('by', 'length'),
  }),
  thinnest: numberField({ unit: 'share', min: 0, max: 100 })(
    'Thinner than',
    'A branch ends where it gets thinner than this, of the thickness that the skin says.',
    0.3,
    { slider: [0, 1], shown: is('by', 'thickness') },
  ),
  form: {
    type: 'growth',
    label: 'Form',
    help: 'The growth by whose form to cut.',
    default: null,
    shown: is('by', 'form'),
  },
  guide: { type: 'guide', label: 'Guide', help: 'What to cut by: distances are from it.', default: null, shown: near },
  within: lengthField('Distance', 'How far from the guide it is cut.', 1, { slider: [0, 4], shown: near }),
  attribute: {
    type: 'attribute',
    label: 'Attribute',
    help: 'What it goes by: a falloff that is kept as an attribute, something measured, a front.',
    default: 'height',
    shown: is('by', 'attribute'),
  },
  limit: numberField({ unit: 'plain', min: -1e6, max: 1e6 })(
    'Limit',
    'A branch ends where the attribute passes this.',
    0.5,
    {
      slider: [0, 1],
      shown: is('by', 'attribute'),
    },
  ),
  side: {
    type: 'choice',
    label: 'Keeps',
    help: 'What has less of the attribute, or more.',
    options: [
      { value: 'below', label: 'What is below' },
      { value: 'above', label: 'What is above' },
    ],
    default: 'below',
    shown: is('by', 'attribute'),
  },
  keeps: {
    type: 'choice',
    label: 'Keeps',
    help: 'What is inside of the form, or nearer to the guide; or what is outside, or further away.',
    options: [
      { value: 'inside', label: 'What is inside' },
      { value: 'outside', label: 'What is outside' },
    ],
    default: 'inside',
    shown: is('by', 'form', 'guide'),
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type PruneParams = ParamsOf<typeof params>;

export const prune = defineStep({
  kind: 'prune',
  family: 'shape',
  label: 'Prune',
  icon: 'M10 17V9M10 12 6 8M10 9 13 5M3 5 8 10M3 10 8 5M15 5V4',
  help: 'Takes branches off, whole or from some place on; what grows from them goes with them. Every limit can be animated: a tree is cut back smoothly.',
  takes: ['paths'],
  gives: ['paths'],
  params,
  summary: (p) =>
    ({
      depth: `after ${figure(p.depth)} joints`,
      length: `shorter than ${metres(p.shortest)}`,
      thickness: 'thin ends',
      form: `what is ${p.keeps === 'inside' ? 'outside' : 'inside'} a form`,
      guide: `what is ${p.keeps === 'inside' ? 'beyond' : 'within'} ${metres(p.within)}`,
      attribute: `what is ${p.side === 'below' ? 'above' : 'below'} ${figure(p.limit)}`,
    })[p.by],
  async run(form, p, context) {
    const { runPrune } = await import('./runPrune');
    return { ...form, paths: await runPrune(form.paths!, p, context) };
  },
});
