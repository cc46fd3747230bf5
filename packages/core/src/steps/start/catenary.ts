import { Problem } from '../../problem';
import { defineStep, place, pointsParam } from '../declare';
import { metres } from '../../format';
import { startWith } from './startWith';

export const catenary = defineStep({
  kind: 'catenary',
  family: 'start',
  held: true,
  label: 'Catenary',
  use: 'Curves',
  icon: 'M3 4C5 18 15 18 17 4',
  help: 'A chain or rope that hangs between two places, by its length or by its sag.',
  takes: [],
  gives: ['paths'],
  params: {
    ...place('from', 'From', 'One end.', [-1.5, 2, 0]),
    ...place('to', 'To', 'The other end.', [1.5, 2.4, 0]),
    by: {
      type: 'choice',
      label: 'By',
      help: 'What is given: how long it is, or how far it hangs below the middle of its ends.',
      options: [
        { value: 'length', label: 'Length' },
        { value: 'sag', label: 'Sag' },
      ],
      default: 'sag',
    },
    length: {
      type: 'number',
      unit: 'm',
      label: 'Length',
      help: 'Must be more than the distance of the ends.',
      default: 4,
      min: 0.001,
      max: 10000,
      slider: [0.5, 12],
      shown: (p) => p.by === 'length',
    },
    sag: {
      type: 'number',
      unit: 'm',
      label: 'Sag',
      help: 'Below the middle of the straight line between the ends.',
      default: 1,
      min: 0.001,
      max: 1000,
      slider: [0.05, 4],
      shown: (p) => p.by === 'sag',
    },
    points: pointsParam(160),
  },
  summary: (p) => (p.by === 'length' ? `${metres(p.length)} long` : `${metres(p.sag)} of sag`),
  async run(form, p, context) {
    const { pathsFrom } = await import('../../geometry/paths');
    const { catenaryByLength, catenaryBySag, catenaryPoints } = await import('../../curves/catenary');
    context.claim('points', p.points, 'Points');
    const [dx, dz] = [p.toX - p.fromX, p.toZ - p.fromZ];
    const span = Math.hypot(dx, dz);
    if (!(span > 1e-6)) throw new Problem('The ends hang one above the other.', 'Move one of them to the side.');
    const rise = p.toY - p.fromY;
    const flat = catenaryPoints(
      p.by === 'length' ? catenaryByLength(span, rise, p.length) : catenaryBySag(span, rise, p.sag),
      p.points,
    );
    const positions = new Float64Array(3 * p.points);
    for (let i = 0; i < p.points; i++) {
      const along = flat[2 * i] / span;
      positions.set([p.fromX + along * dx, p.fromY + flat[2 * i + 1], p.fromZ + along * dz], 3 * i);
    }
    return startWith(form, pathsFrom([{ positions }]));
  },
});
