import { Problem } from '../../problem';
import { type AttributeParam, defineStep } from '../declare';
import { figure } from '../../format';
import { startWith } from './startWith';

export const contours = defineStep({
  kind: 'contours',
  family: 'start',
  label: 'Contours',
  use: 'From another growth',
  icon: 'M3 15C5 8 8 6 10 6 12 6 15 8 17 15M6 15C7 11 8.5 9.5 10 9.5 11.5 9.5 13 11 14 15M9 15C9.3 13.5 9.6 13 10 13 10.4 13 10.7 13.5 11 15',
  help: 'Lines on the skin of another growth along which an attribute has the same value: height makes the lines of a map.',
  takes: [],
  gives: ['paths'],
  many: true,
  params: {
    growth: { type: 'growth', label: 'Growth', help: 'Whose skin to take.', default: null, fits: ['mesh', 'copies'] },
    attribute: {
      type: 'attribute',
      label: 'Attribute',
      help: 'What is the same along each line: height, or what that growth measures, as the distance of its front.',
      default: 'height',
    } satisfies AttributeParam,
    every: {
      type: 'number',
      unit: 'plain',
      label: 'Interval',
      help: 'From the value of one line to that of the next, in the unit of the attribute.',
      default: 0.1,
      min: 0.0001,
      max: 1e6,
      slider: [0.01, 1],
    },
    first: {
      type: 'number',
      unit: 'plain',
      label: 'Offset',
      help: 'Added to the values of the lines; animate it and they move evenly.',
      default: 0,
      min: -1e6,
      max: 1e6,
      slider: [-1, 1],
    },
  },
  summary: (p) => (p.growth === null ? 'no growth chosen' : `${p.attribute}, every ${figure(p.every, 3)}`),
  async run(form, p, context) {
    if (p.growth === null) throw new Problem('No growth is chosen.', 'Choose the growth whose skin to take.');
    const { mesh } = await context.other('growth');
    if (!mesh) throw new Problem('The chosen growth has no skin.', 'Give it one, or choose another growth.');
    const [{ vertexValues }, { contoursOf }] = await Promise.all([
      import('../../geometry/meshAttributes'),
      import('../../surfaces/edit/contourLines'),
    ]);
    const field = vertexValues(mesh, p.attribute);
    if (!field)
      throw new Problem(
        `That growth has no attribute “${p.attribute}”.`,
        'Choose another, or add Measure to that growth.',
      );
    let [low, high] = [Infinity, -Infinity];
    for (let i = 0; i < field.length; i++) {
      low = Math.min(low, field[i]);
      high = Math.max(high, field[i]);
    }
    const from = Math.ceil((low - p.first) / p.every - 1e-9);
    const count = Math.max(0, Math.floor((high - p.first) / p.every + 1e-9) - from + 1);
    context.claim('points', 8 * count, 'the number of lines: raise Every');
    const levels = Array.from({ length: count }, (_, k) => p.first + (from + k) * p.every);
    const paths = await contoursOf(mesh, field, levels, context.yieldNow);
    context.claim('points', paths.s.length, 'the number of lines: raise Every');
    return startWith(form, paths);
  },
});
