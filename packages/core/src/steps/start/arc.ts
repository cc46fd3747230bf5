import { defineStep, place, pointsParam } from '../declare';
import { figure, metres } from '../../format';
import { lies, liesParam } from './planeParam';
import { startWith } from './startWith';

export const arc = defineStep({
  kind: 'arc',
  family: 'start',
  held: true,
  label: 'Arc',
  use: 'Curves',
  icon: 'M3 14A7.2 7.2 0 0 1 17 14',
  help: 'Part of a circle, or the whole of it as a closed path.',
  takes: [],
  gives: ['paths'],
  params: {
    radius: {
      type: 'number',
      unit: 'm',
      label: 'Radius',
      help: 'Distance from the middle.',
      default: 1,
      min: 0.0001,
      max: 1000,
      slider: [0.05, 5],
    },
    sweep: {
      type: 'number',
      unit: 'deg',
      label: 'Sweep',
      help: 'Angle that the arc spans; 360° closes it. Negative ones run the other way.',
      default: 360,
      min: -360,
      max: 360,
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
    lies: liesParam,
    ...place('middle', 'Middle', 'Middle of the circle.', [0, 1, 0]),
    points: pointsParam(120),
  },
  summary: (p) => `${Math.abs(p.sweep) === 360 ? 'circle' : `${figure(p.sweep, 1)}°`}, radius ${metres(p.radius)}`,
  async run(form, p, context) {
    const { pathsFrom } = await import('../../geometry/paths');
    context.claim('points', p.points, 'Points');
    const closed = Math.abs(p.sweep) === 360 && p.points > 2;
    const { radius, middleX, middleY, middleZ } = p;
    const positions = new Float64Array(3 * p.points);
    for (let i = 0; i < p.points; i++) {
      const share = i / (closed ? p.points : p.points - 1);
      const angle = ((p.start + p.sweep * share) * Math.PI) / 180;
      const [x, y, z] = lies(p.lies, radius * Math.cos(angle), radius * Math.sin(angle));
      positions[3 * i] = middleX + x;
      positions[3 * i + 1] = middleY + y;
      positions[3 * i + 2] = middleZ + z;
    }
    return startWith(form, pathsFrom([{ positions, closed }]));
  },
});
