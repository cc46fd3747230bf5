import { Problem } from '../../problem';
import { defineStep } from '../declare';
import { metres } from '../../format';
import { withSkin } from './withSkin';

export const plate = defineStep({
  kind: 'plate',
  family: 'skin',
  label: 'Plate',
  icon: 'M3 7 10 4 17 7 10 10ZM3 7V12L10 15 17 12V7M10 10V15',
  help: 'Fills closed flat paths and gives them a depth: solid letters, badges, petals cut from a drawing. Paths inside others are holes.',
  takes: ['paths'],
  gives: ['mesh'],
  params: {
    depth: {
      type: 'number',
      unit: 'm',
      label: 'Depth',
      help: 'From face to face, half on each side.',
      default: 0.1,
      min: 0.0001,
      max: 1000,
      slider: [0.005, 1],
    },
    hard: {
      type: 'toggle',
      label: 'Hard edges',
      help: 'Keeps corners of the outline sharp in the light.',
      default: true,
    },
  },
  summary: (p) => `${metres(p.depth)} deep`,
  async run(form, p, context) {
    const { runPlate } = await import('./runPlate');
    const made = runPlate(form.paths!, p.depth, p.hard);
    if (!made)
      throw new Problem(
        'No closed path has an area to fill.',
        'Begin with text, a vector file, an arc, or close the drawn path.',
      );
    context.claim('faces', made.indices.length / 3, 'the points of the paths');
    return withSkin(form, made);
  },
});
