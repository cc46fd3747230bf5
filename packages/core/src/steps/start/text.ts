import { defineStep } from '../declare';
import { metres } from '../../format';
import { letterParams, letters } from './letters';
import { liesParam } from './planeParam';
import { startWith } from './startWith';

export const text = defineStep({
  kind: 'text',
  family: 'start',
  label: 'Text outline',
  use: 'Letters and drawings',
  icon: 'M4 6V4H16V6M10 4V16M7.5 16H12.5',
  help: 'The outlines of letters as closed paths, holes and all.',
  takes: [],
  gives: ['paths'],
  params: {
    text: letterParams.text,
    font: letterParams.font,
    size: {
      type: 'number',
      unit: 'm',
      label: 'Size',
      help: 'Height of a line.',
      default: 1,
      min: 0.001,
      max: 1000,
      slider: [0.05, 4],
    },
    spacing: letterParams.spacing,
    lies: liesParam,
    centre: {
      type: 'toggle',
      label: 'Centre',
      help: 'Puts its middle over the origin, its foot on the ground.',
      default: true,
    },
  },
  summary: (p) => `“${p.text.split('\n')[0].slice(0, 24)}”, ${metres(p.size)} high`,
  async run(form, p, context) {
    const { outlinePaths } = await import('./outlinePaths');
    const contours = await letters(p, context);
    return startWith(form, outlinePaths(contours, { scale: p.size, lies: p.lies, centre: p.centre }, context));
  },
});
