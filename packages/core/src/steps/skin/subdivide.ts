import { defineStep } from '../declare';
import { formatCount } from '../../format';

export const subdivide = defineStep({
  kind: 'subdivide',
  family: 'skin',
  label: 'Subdivide',
  icon: 'M3 3H17V17H3ZM3 10H17M10 3V17',
  help: 'Rounds a solid by splitting its faces in four, again and again; edges sharper than the crease angle stay.',
  takes: ['mesh'],
  gives: ['mesh'],
  coarse: { levels: 0.5 },
  params: {
    levels: {
      type: 'number',
      unit: 'count',
      label: 'Levels',
      help: 'Each time there are four times as many faces.',
      default: 2,
      min: 1,
      max: 6,
      whole: true,
    },
    crease: {
      type: 'number',
      unit: 'deg',
      label: 'Crease angle',
      help: 'Edges where faces meet at more than this stay sharp; 180 rounds them all.',
      default: 180,
      min: 0,
      max: 180,
    },
  },
  summary: (p) => formatCount(p.levels, 'time'),
  async run(form, p, context) {
    context.claim('faces', (form.mesh!.indices.length / 3) * 4 ** p.levels, 'Levels');
    const { subdivideMesh } = await import('../../surfaces/edit/subdivideMesh');
    const mesh = await subdivideMesh(form.mesh!, p.levels, (p.crease * Math.PI) / 180, context.yieldNow);
    return { ...form, mesh };
  },
});
