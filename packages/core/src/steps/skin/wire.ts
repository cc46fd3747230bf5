import { defineStep } from '../declare';
import { metres } from '../../format';
import { sweepHooks } from './skinParams';
import { withSkin } from './withSkin';

export const wire = defineStep({
  kind: 'wire',
  family: 'skin',
  label: 'Wire',
  icon: 'M3 16C10 16 7 4 17 4',
  help: 'The quickest skin: three sides, no ends, one thickness. For thousands of thin paths, or to work fast.',
  takes: ['paths'],
  gives: ['mesh'],
  params: {
    radius: {
      type: 'number',
      unit: 'm',
      label: 'Radius',
      help: 'Half the thickness of the wire.',
      default: 0.006,
      min: 0.0001,
      max: 10,
      slider: [0.001, 0.05],
    },
  },
  summary: (p) => `${metres(2 * p.radius)} thick`,
  async run(form, p, context) {
    const { sweepTubes } = await import('../../surfaces/sweep/sweepTubes');
    const mesh = await sweepTubes(
      form.paths!,
      { radius: p.radius, along: () => 1, follows: 'whole', swell: 0, sides: 3, start: 'open', end: 'open' },
      sweepHooks(context, 'Points of the path'),
    );
    return withSkin(form, mesh);
  },
});
