import { Problem } from '../../problem';
import { defineStep } from '../declare';
import { metres } from '../../format';
import { startWith } from './startWith';

export const cells = defineStep({
  kind: 'cells',
  family: 'start',
  label: 'Cell wire',
  use: 'From another growth',
  icon: 'M3 7 8 4.5 13 7 8 9.5ZM3 7V12.5L8 15V9.5M13 7V12.5L8 15M13 9 17 11V15.5L13 17.5 8.8 15.4M17 11 13 13',
  help: 'Fills the form of another growth with cubes of one size and takes their edges as paths: a wire of cells, each edge once.',
  takes: [],
  gives: ['paths'],
  many: true,
  params: {
    growth: { type: 'growth', label: 'Growth', help: 'Whose form to fill.', default: null, fits: ['mesh', 'copies'] },
    size: {
      type: 'number',
      unit: 'm',
      label: 'Cell',
      help: 'Side of each cube.',
      default: 0.1,
      min: 0.001,
      max: 100,
      slider: [0.02, 0.5],
    },
    which: {
      type: 'choice',
      label: 'Edges',
      help: 'Those of all faces that look outwards, those alone at which the pile turns, or those of every cube.',
      options: [
        { value: 'outer', label: 'Of the outside' },
        { value: 'corners', label: 'Where it turns' },
        { value: 'all', label: 'All' },
      ],
      default: 'outer',
    },
  },
  summary: (p) => (p.growth === null ? 'no growth chosen' : `cells of ${metres(p.size)}`),
  async run(form, p, context) {
    if (p.growth === null) throw new Problem('No growth is chosen.', 'Choose the growth whose form to fill.');
    const [{ cellCount, cellWire, MOST_CELLS }, { wholeMesh }] = await Promise.all([
      import('../../surfaces/make/cellEdges'),
      import('../../geometry/copies'),
    ]);
    const mesh = wholeMesh(await context.other('growth'));
    if (!mesh) throw new Problem('The chosen growth has no skin.', 'Give it one, or choose another growth.');
    if (cellCount(mesh, p.size) > MOST_CELLS) throw new Problem('There would be too many cells.', 'Raise Cell.');
    const claim = (points: number): void => context.claim('points', points, 'the size of that growth, or raise Cell');
    const paths = await cellWire(mesh, p.size, p.which, context.yieldNow, claim);
    claim(paths.s.length);
    return startWith(form, paths);
  },
});
