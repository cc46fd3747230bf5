import { SHIPPED_FONT } from '../../outline/shipped';
import { Problem } from '../../problem';
import { defineStep } from '../declare';
import { metres } from '../format';
import { liesParam } from './lies';
import { outlinePaths } from './outlinePaths';
import { startWith } from './startWith';

export const text = defineStep({
  kind: 'text',
  family: 'start',
  label: 'Text outline',
  icon: 'M4 6V4H16V6M10 4V16M7.5 16H12.5',
  help: 'The outlines of letters as closed paths, holes and all.',
  takes: [],
  gives: ['paths'],
  params: {
    text: {
      type: 'text',
      label: 'Text',
      help: 'What is set; a line break begins a new line.',
      default: 'Reef',
      most: 500,
    },
    font: {
      type: 'asset',
      kind: 'font',
      label: 'Font',
      help: 'A TTF, OTF or WOFF file, or the font that comes with Uvrex.',
      shipped: [{ value: SHIPPED_FONT, label: 'Bricolage Grotesque' }],
      default: SHIPPED_FONT,
    },
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
    spacing: {
      type: 'number',
      unit: 'share',
      label: 'Letter space',
      help: 'Room between letters besides their own, against the size.',
      default: 0,
      min: -1,
      max: 10,
      slider: [-0.2, 1],
    },
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
    if (p.font === null) throw new Problem('No font is chosen.', 'Load a font, or take the one that comes with Uvrex.');
    const { readFont, textContours } = await import('../../outline/font');
    const contours = textContours(await readFont(await context.asset(p.font)), p.text, p.spacing);
    return startWith(form, outlinePaths(contours, { scale: p.size, lies: p.lies, centre: p.centre }, context));
  },
});
