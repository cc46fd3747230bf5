import { defineStep, place, pointsParam } from '../declare';
import { figure, metres } from '../../format';
import { startWith } from './startWith';

export const helix = defineStep({
  kind: 'helix',
  family: 'start',
  held: true,
  label: 'Helix',
  use: 'Curves',
  icon: 'M4 4C18 2 18 8 10 8S2 13 10 12 18 15 16 17',
  help: 'A path that winds upwards, from one radius below to another above.',
  takes: [],
  gives: ['paths'],
  params: {
    below: {
      type: 'number',
      unit: 'm',
      label: 'Base radius',
      help: 'Distance from the axis at the base.',
      default: 0.4,
      min: 0,
      max: 1000,
      slider: [0, 3],
    },
    above: {
      type: 'number',
      unit: 'm',
      label: 'Top radius',
      help: 'Distance from the axis at the top.',
      default: 0.2,
      min: 0,
      max: 1000,
      slider: [0, 3],
    },
    widens: {
      type: 'choice',
      label: 'Radius changes',
      help: 'By the same amount each turn, or by the same factor, as in the shells of snails.',
      options: [
        { value: 'evenly', label: 'Evenly' },
        { value: 'by-factor', label: 'By a factor' },
      ],
      default: 'evenly',
      shown: (p) => p.below !== p.above,
    },
    height: {
      type: 'number',
      unit: 'm',
      label: 'Height',
      help: 'Rise from base to top; 0 gives a flat spiral.',
      default: 2,
      min: -1000,
      max: 1000,
      slider: [0, 6],
    },
    turns: {
      type: 'number',
      unit: 'turns',
      label: 'Turns',
      help: 'Full turns about the axis; negative ones wind the other way.',
      default: 4,
      min: -1000,
      max: 1000,
      slider: [-12, 12],
    },
    start: {
      type: 'number',
      unit: 'deg',
      label: 'Start angle',
      help: 'Where on the circle the path begins.',
      default: 0,
      min: -36000,
      max: 36000,
      slider: [-180, 180],
    },
    ...place('base', 'Base', 'Middle of the lowest turn.', [0, 0, 0]),
    points: pointsParam(240),
  },
  summary: (p) => `${figure(p.turns)} turns, ${metres(p.height)} high`,
  async run(form, p, context) {
    const { pathsFrom } = await import('../../geometry/paths');
    const { helixInTime } = await import('../../curves/helix');
    const { resample } = await import('../../curves/resample');
    context.claim('points', p.points, 'Points');
    // A cone's turns are longer where it is wide: finer points first, then even spacing.
    const even = p.below === p.above;
    const fine = await helixInTime(p, even ? p.points : 8 * p.points, () => context.yieldNow());
    const positions = even ? fine : resample(fine, p.points, false);
    await context.yieldNow();
    const base = [p.baseX, p.baseY, p.baseZ];
    for (let i = 0; i < positions.length; i++) positions[i] += base[i % 3];
    return startWith(form, pathsFrom([{ positions }]));
  },
});
