import { Problem } from '../../problem';
import { defineStep, type ParamSpecs, type ParamsOf } from '../declare';
import { MOVABLE } from './movable';

const params = {
  growth: {
    type: 'growth',
    label: 'Paths',
    help: 'The growth on whose paths it rides.',
    default: null,
    fits: ['paths'],
  },
  turn: {
    type: 'toggle',
    label: 'Turn with it',
    help: 'What lies beside a path turns about it as the path turns; else it is only moved along.',
    default: true,
  },
  amount: {
    type: 'number',
    unit: 'share',
    label: 'Amount',
    help: 'How far it goes along.',
    default: 1,
    min: 0,
    max: 1,
    varies: 'along',
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type RideParams = ParamsOf<typeof params>;

export const ride = defineStep({
  kind: 'ride',
  family: 'shape',
  label: 'Ride on paths',
  icon: 'M3 14C6 9 9 17 12 12S16 8 17 9M6 6H6.01M10 4H10.01M13 6H13.01M8 8.5H8.01',
  help: 'Every point keeps its place beside the nearest path of another growth, as it lies at the last frame, and goes along as that path moves and bends: scattered points, skins, copies.',
  takes: [],
  takesOne: MOVABLE,
  gives: [],
  params,
  summary: (p) => (p.growth === null ? 'no paths chosen' : p.turn ? 'moves and turns with them' : 'moves with them'),
  async run(form, p, context) {
    if (p.growth === null) throw new Problem('No paths are chosen.', 'Choose the growth on whose paths it rides.');
    const { runRide } = await import('./runRide');
    return runRide(form, p, context);
  },
});
