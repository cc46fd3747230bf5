import { defineStep, type ParamSpecs, type ParamsOf } from '../declare';
import { formatCount } from '../../format';

const params = {
  rounds: {
    type: 'number',
    unit: 'count',
    label: 'Iterations',
    help: 'How often it is done; more points need more rounds.',
    default: 8,
    min: 0,
    max: 1000,
    slider: [0, 100],
    whole: true,
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type SmoothParams = ParamsOf<typeof params>;

export const smooth = defineStep({
  kind: 'smooth',
  family: 'shape',
  label: 'Smooth',
  icon: 'M3 14C6 4 8 14 11 9.5S15 6 17 7',
  help: 'Evens out kinks by moving each point towards its neighbours; ends stay where they are.',
  takes: ['paths'],
  gives: ['paths'],
  params,
  summary: (p) => formatCount(p.rounds, 'round'),
  async run(form, p, context) {
    const { runSmooth } = await import('./runSmooth');
    return { ...form, paths: await runSmooth(form.paths!, p, context) };
  },
});
