import { defineStep, place, pointsParam } from '../declare';
import { metres } from '../../format';
import { startWith } from './startWith';

export const line = defineStep({
  kind: 'line',
  family: 'start',
  held: true,
  label: 'Line',
  use: 'Curves',
  icon: 'M4 16 16 4',
  help: 'A straight path from one place to another.',
  takes: [],
  gives: ['paths'],
  params: {
    ...place('from', 'From', 'Where the line begins.', [0, 0, 0]),
    ...place('to', 'To', 'Where the line ends.', [0, 2, 0]),
    points: pointsParam(120),
  },
  summary: (p) => metres(Math.hypot(p.toX - p.fromX, p.toY - p.fromY, p.toZ - p.fromZ)),
  async run(form, p, context) {
    const { pathsFrom } = await import('../../geometry/paths');
    context.claim('points', p.points, 'Points');
    const positions = new Float32Array(3 * p.points);
    for (let i = 0; i < p.points; i++) {
      const t = i / (p.points - 1);
      positions[3 * i] = p.fromX + (p.toX - p.fromX) * t;
      positions[3 * i + 1] = p.fromY + (p.toY - p.fromY) * t;
      positions[3 * i + 2] = p.fromZ + (p.toZ - p.fromZ) * t;
    }
    return startWith(form, pathsFrom([{ positions }]));
  },
});
