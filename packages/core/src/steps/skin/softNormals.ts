import { defineStep } from '../declare';
import { figure } from '../../format';

export const softNormals = defineStep({
  kind: 'soft-normals',
  family: 'skin',
  label: 'Soft edges',
  icon: 'M4 16V9C4 6 6 4 9 4H16M13 7 16 4M4 16 7 13',
  help: 'Lets light run smoothly over edges that are less sharp than an angle, and break at all others.',
  takes: ['mesh'],
  gives: ['mesh'],
  params: {
    angle: {
      type: 'number',
      unit: 'deg',
      label: 'Smoothing angle',
      help: 'Edges where faces meet at less than this look round; 0 makes every face flat.',
      default: 40,
      min: 0,
      max: 180,
    },
  },
  summary: (p) => `up to ${figure(p.angle, 1)}°`,
  async run(form, p, context) {
    const { withSoftNormals } = await import('../../surfaces/edit/smoothNormals');
    return { ...form, mesh: await withSoftNormals(form.mesh!, (p.angle * Math.PI) / 180, context.yieldNow) };
  },
});
