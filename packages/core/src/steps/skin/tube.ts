import { sweepTubes } from '../../surfaces/tube';
import { defineStep } from '../declare';
import { metres } from '../format';
import { shapeOf, skinParams, sweepHooks } from './skinParams';

const { radius, along, follows, swell, start, end } = skinParams;

export const tube = defineStep({
  kind: 'tube',
  family: 'skin',
  label: 'Tube',
  help: 'Sweeps a circle along the paths. Thickness follows a drawn profile.',
  takes: ['paths'],
  gives: ['mesh'],
  params: {
    radius,
    along,
    follows,
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
  run: async (form, p, context) => ({
    ...form,
    mesh: await sweepTubes(form.paths!, shapeOf(p, p.sides), sweepHooks(context, 'Sides, or Points of the path')),
  }),
});
