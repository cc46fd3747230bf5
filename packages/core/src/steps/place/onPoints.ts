import {
  defineStep,
  type NumberParam,
  type ParamSpecs,
  type ParamsOf,
  type ProfileParam,
  numberField,
} from '../declare';
import { percent } from '../../format';
import { itemsOf, pointItemParams, sizeParam, varyParam } from './items';

const degreesField = numberField({ unit: 'deg', min: -3600, max: 3600 });
const degrees = (label: string, help: string, value: number, slider: [number, number]): NumberParam =>
  degreesField(label, help, value, { slider });
const profile = (label: string, help: string, shape: readonly { at: number; value: number }[]): ProfileParam => ({
  type: 'profile',
  label,
  help,
  min: 0,
  max: 2,
  default: shape,
});

const params = {
  ...pointItemParams,
  size: sizeParam,
  sizeAlong: profile('Size by place', 'Factor on the size, from the centre to the rim.', [{ at: 0, value: 1 }]),
  lean: degrees('Lean', 'Tilts each copy outwards.', 0, [-120, 120]),
  leanAlong: profile('Lean by place', 'Factor on the lean, from the centre to the rim.', [{ at: 0, value: 1 }]),
  facing: {
    type: 'choice',
    label: 'Facing',
    help: 'Standing away from the surface, upright, or pointing at a guide.',
    options: [
      { value: 'surface', label: 'As the points stand' },
      { value: 'upright', label: 'Upright' },
      { value: 'guide', label: 'At a guide' },
    ],
    default: 'surface',
  },
  toward: {
    type: 'guide',
    label: 'Guide',
    help: 'What the upward axis of each copy points at.',
    default: null,
    shown: (p) => p.facing === 'guide',
  },
  turns: {
    type: 'text',
    label: 'Turns',
    help: 'Degrees about its own upward axis, one copy after another: 0, 90 in turn, or an angle more each time with “+30”.',
    default: '0',
    most: 200,
  },
  vary: varyParam,
  varyTurn: degrees('Vary turn', 'Turns each copy by up to so much, at random.', 0, [0, 180]),
  varyLean: degrees('Vary lean', 'Tilts each copy by up to so much more or less, at random.', 0, [0, 90]),
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type OnPointsParams = ParamsOf<typeof params>;

export const onPoints = defineStep({
  kind: 'on-points',
  family: 'place',
  label: 'On the points',
  icon: 'M6 15V11M6 11 4 8 6 5 8 8ZM14 15V11M14 11 12 8 14 5 16 8ZM3 17.5H17',
  help: 'A copy of another growth on every point, standing away from the surface that the points lie on.',
  takes: ['points'],
  gives: ['copies'],
  parts: {
    'By place': ['sizeAlong', 'leanAlong'],
    Variation: ['variants', 'vary', 'varyTurn', 'varyLean'],
  },
  params,
  summary: (p) => (p.growth === null ? 'no item chosen' : `${percent(p.size)} size`),
  async run(form, p, context) {
    const items = await itemsOf(p, context);
    if (!items) return form;
    const { seatsOnPoints } = await import('./runOnPoints');
    return { ...form, seats: await seatsOnPoints(form, items, p, context) };
  },
});
