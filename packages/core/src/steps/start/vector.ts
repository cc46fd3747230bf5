import { Problem } from '../../problem';
import { defineStep } from '../declare';
import { metres } from '../../format';
import { liesParam } from './planeParam';
import { startWith } from './startWith';

export const vector = defineStep({
  kind: 'vector',
  family: 'start',
  label: 'Vector file',
  use: 'Letters and drawings',
  icon: 'M5 15C5 5 15 15 15 5M2.5 15H7.5M12.5 5H17.5',
  help: 'The paths of an SVG file, scaled to metres. Nothing in the file is run or fetched.',
  takes: [],
  gives: ['paths'],
  params: {
    drawing: { type: 'file', kind: 'svg', label: 'SVG file', help: 'The drawing.', shipped: [], default: null },
    by: {
      type: 'choice',
      label: 'Scaled by',
      help: "Whether the whole drawing's longer side, or one unit of the drawing, is given in metres.",
      options: [
        { value: 'size', label: 'Its longer side' },
        { value: 'unit', label: 'Its unit' },
      ],
      default: 'size',
    },
    size: {
      type: 'number',
      unit: 'm',
      label: 'Size',
      help: 'Length of the longer side, or of one unit.',
      default: 2,
      min: 0.00001,
      max: 1000,
      slider: [0.1, 5],
    },
    lies: liesParam,
    centre: {
      type: 'toggle',
      label: 'Centre',
      help: 'Puts its middle over the origin, its foot on the ground.',
      default: true,
    },
  },
  summary: (p) => (p.drawing === null ? 'no file chosen' : `${metres(p.size)} ${p.by === 'size' ? 'long' : 'a unit'}`),
  async run(form, p, context) {
    const { outlinePaths } = await import('./outlinePaths');
    if (p.drawing === null) throw new Problem('No SVG file is chosen.', 'Load one.');
    const { svgContours } = await import('../../outline/svg');
    const contours = await svgContours(await context.file(p.drawing));
    let scale = p.size;
    if (p.by === 'size') {
      const all = contours.flatMap(({ points }) => points);
      const side = (axis: 0 | 1): number => {
        let [low, high] = [Infinity, -Infinity];
        for (let i = axis; i < all.length; i += 2) [low, high] = [Math.min(low, all[i]), Math.max(high, all[i])];
        return high - low;
      };
      scale = p.size / Math.max(side(0), side(1), 1e-12);
    }
    return startWith(form, outlinePaths(contours, { scale, lies: p.lies, centre: p.centre }, context));
  },
});
