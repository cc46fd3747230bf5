import { defineStep } from '../declare';
import { metres } from '../../format';

export const thicken = defineStep({
  kind: 'thicken',
  family: 'skin',
  label: 'Thicken',
  icon: 'M3 8C7 4 13 4 17 8M3 12C7 8 13 8 17 12M3 8V12M17 8V12',
  help: 'Gives a sheet a thickness, closed all round; of a closed solid it makes a shell.',
  takes: ['mesh'],
  gives: ['mesh'],
  params: {
    thick: {
      type: 'number',
      unit: 'm',
      label: 'Thickness',
      help: 'From face to face.',
      default: 0.02,
      min: 0.0001,
      max: 100,
      slider: [0.001, 0.2],
    },
    side: {
      type: 'choice',
      label: 'Side',
      help: 'Where it comes to lie.',
      options: [
        { value: 'both', label: 'Half on each side' },
        { value: 'out', label: 'Outside' },
        { value: 'in', label: 'Inside' },
      ],
      default: 'both',
    },
  },
  summary: (p) => metres(p.thick),
  async run(form, p, context) {
    const { thickenMesh } = await import('../../surfaces/edit/thickenMesh');
    const side = { both: 0, out: 1, in: -1 }[p.side] as 0 | 1 | -1;
    context.claim('faces', (2 * form.mesh!.indices.length) / 3, 'the number of faces before it');
    return { ...form, mesh: await thickenMesh(form.mesh!, p.thick, side, context.yieldNow) };
  },
});
