import { defineStep, type ParamSpecs, type ParamsOf } from '../declare';
import { percent } from '../../format';

const params = {
  growth: {
    type: 'growth',
    label: 'Growth',
    help: 'Whose paths to move to; several are taken in turn.',
    default: null,
    fits: ['paths'],
  },
  amount: {
    type: 'number',
    unit: 'share',
    label: 'Amount',
    help: 'How far: 0 % is the own course, 100 % the other.',
    default: 0.5,
    min: 0,
    max: 1,
    varies: 'along',
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type BlendParams = ParamsOf<typeof params>;

export const blend = defineStep({
  kind: 'blend',
  family: 'shape',
  label: 'Blend',
  icon: 'M3 5C9 5 11 15 17 15M3 15C9 15 11 5 17 5',
  help: "Moves each path towards another growth's path, point by point at equal shares of their lengths. Animate Amount and one becomes the other.",
  takes: ['paths'],
  gives: ['paths'],
  params,
  summary: (p) => (p.growth === null ? 'no growth chosen' : `${percent(p.amount)} of the way`),
  async run(form, p, context) {
    const { runBlend } = await import('./runBlend');
    return { ...form, paths: await runBlend(form.paths!, p, context) };
  },
});
