import { defineStep } from '../declare';
import { metres } from '../format';
import { shapeOf, skinParams, sweepHooks, variedPaths } from './skinParams';

const { radius, along, follows, reach, swell, start, end } = skinParams;

export const tube = defineStep({
  kind: 'tube',
  family: 'skin',
  label: 'Tube',
  icon: 'M6 5V14M14 5V14M6 5A4 1.8 0 0 1 14 5 4 1.8 0 0 1 6 5M6 14A4 1.8 0 0 0 14 14',
  help: 'Sweeps a circle along the paths. Thickness follows a drawn profile.',
  takes: ['paths'],
  gives: ['mesh'],
  params: {
    radius,
    along,
    follows,
    reach,
    swell,
    sides: {
      type: 'number',
      unit: 'count',
      label: 'Sides',
      help: 'Corners of the circle.',
      default: 12,
      min: 3,
      max: 512,
      slider: [3, 48],
      whole: true,
    },
    start,
    end,
  },
  summary: (p) => `${metres(p.radius)} radius, ${p.sides} sides, ${p.end} tip`,
  async run(form, p, context) {
    const { sweepTubes } = await import('../../surfaces/tube');
    const mesh = await sweepTubes(
      variedPaths(form.paths!, p.radius, context),
      shapeOf(p, p.sides),
      sweepHooks(context, 'Sides, or Points of the path'),
    );
    return { ...form, mesh };
  },
});
