import { Problem } from '../../problem';
import { defineStep, type ParamSpecs, type ParamsOf, type Resolved } from '../declare';
import { percent } from '../../format';
import { byAttributeParams } from './items';

const several = (p: Resolved): boolean => p.growth !== null && p.second !== null;

const params = {
  growth: {
    type: 'growth',
    label: 'Growth',
    help: 'What rides. Build it about the origin, upwards.',
    default: null,
    item: true,
  },
  second: {
    type: 'growth',
    label: 'Second item',
    help: 'Another that rides at some of the tips.',
    default: null,
    item: true,
    shown: (p) => p.growth !== null,
  },
  third: {
    type: 'growth',
    label: 'Third item',
    help: 'One more that rides at some of the tips.',
    default: null,
    item: true,
    shown: several,
  },
  mix: {
    type: 'choice',
    label: 'Mix',
    help: 'Which rides where: one after the other, path by path, or by what the tips know.',
    options: [
      { value: 'turn', label: 'In turn' },
      { value: 'attribute', label: 'By attribute' },
    ],
    default: 'turn',
    shown: several,
  },
  ...byAttributeParams((p) => several(p) && p.mix === 'attribute'),
  size: {
    type: 'number',
    unit: 'share',
    label: 'Size',
    help: 'Its size against the growth as it is.',
    default: 1,
    min: 0,
    max: 100,
    slider: [0, 3],
    varies: 'path',
  },
  thickness: {
    type: 'toggle',
    label: 'With thickness',
    help: 'Grows and shrinks with the thickness of the path at the tip.',
    default: false,
  },
  ahead: {
    type: 'number',
    unit: 'm',
    label: 'Ahead',
    help: 'Moves it along the path beyond the tip.',
    default: 0,
    min: -1000,
    max: 1000,
    slider: [-0.5, 0.5],
  },
  turn: {
    type: 'number',
    unit: 'deg',
    label: 'Turn',
    help: 'Turns it about the path; animate it and it spins.',
    default: 0,
    min: -36000,
    max: 36000,
    slider: [-180, 180],
    varies: 'path',
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type TipsParams = ParamsOf<typeof params>;

export const tips = defineStep({
  kind: 'tips',
  family: 'place',
  label: 'At the tips',
  icon: 'M3 17C3 11 6 8 10.5 7.5M10.5 7.5A3.2 3.2 0 1 0 17 7.5 3.2 3.2 0 1 0 10.5 7.5',
  help: 'Another growth rides at the growing end of each path, its upward axis along the path: a ball, a cap, a spark.',
  takes: ['paths'],
  gives: ['mesh'],
  params,
  summary: (p) => (p.growth === null ? 'no growth chosen' : `${percent(p.size)} size`),
  async run(form, p, context) {
    if (p.growth === null) throw new Problem('No growth is chosen.', 'Choose the growth that rides at the tips.');
    const { runTips } = await import('./runTips');
    return runTips(form, p, context);
  },
});
