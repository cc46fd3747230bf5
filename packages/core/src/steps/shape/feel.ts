import { defineStep, type ParamSpecs, type ParamsOf } from '../declare';
import { metres } from '../../format';

const params = {
  length: {
    type: 'number',
    unit: 'm',
    label: 'Length',
    help: 'How much of the path behind its end is free.',
    default: 0.3,
    min: 0.0001,
    max: 1000,
    slider: [0.02, 1.5],
    varies: 'path',
  },
  reach: {
    type: 'number',
    unit: 'm',
    label: 'Reach',
    help: 'How far the end itself is from its course.',
    default: 0.1,
    min: 0,
    max: 1000,
    slider: [0, 0.6],
    varies: 'path',
  },
  speed: {
    type: 'number',
    unit: 'hz',
    label: 'Circles',
    help: 'How often it goes round in a second.',
    default: 0.5,
    min: -50,
    max: 50,
    slider: [-2, 2],
  },
  loop: {
    type: 'toggle',
    label: 'Loop',
    help: 'Fits the circling into the range, so that it can be played in a loop.',
    default: true,
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type FeelParams = ParamsOf<typeof params>;

export const feel = defineStep({
  kind: 'feel',
  family: 'shape',
  label: 'Feeling tips',
  icon: 'M3 17C6 16 8 13 9 10 10 7 12 5 14 6 16 7 15.5 9.5 13.5 9M14 3C16.5 3 18.5 5 18 8',
  help: 'The growing ends reach out from their course and circle, as tendrils look for a hold; what has grown on comes back to it.',
  takes: ['paths'],
  gives: ['paths'],
  params,
  moves: true,
  summary: (p) => `the last ${metres(p.length)}`,
  async run(form, p, context) {
    const { runFeel } = await import('./runFeel');
    return runFeel(form, p, context);
  },
});
