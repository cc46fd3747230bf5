import { Problem } from '../../problem';
import { defineStep } from '../declare';
import { startWith } from './startWith';

export const shared = defineStep({
  kind: 'shared',
  family: 'start',
  label: 'Path of a growth',
  use: 'From another growth',
  icon: 'M3 12C7 4 9 14 13 6M7 15C11 7 13 17 17 9',
  help: 'Takes the paths of another growth as they are at this frame, for a second skin or a companion on the same course.',
  takes: [],
  heirOf: 'growth',
  gives: ['paths'],
  params: {
    growth: { type: 'growth', label: 'Growth', help: 'Whose paths to take.', default: null, fits: ['paths'] },
  },
  summary: (p) => (p.growth === null ? 'no growth chosen' : 'as it is at this frame'),
  async run(form, p, context) {
    const { pointCount } = await import('../../geometry/paths');
    if (p.growth === null) throw new Problem('No growth is chosen.', 'Choose the growth whose paths to take.');
    const { paths } = await context.other('growth');
    if (!paths) throw new Problem('The chosen growth has no paths.', 'Choose one that begins with a path.');
    context.claim('points', pointCount(paths), 'the number of points of that growth');
    return startWith(form, paths);
  },
});
