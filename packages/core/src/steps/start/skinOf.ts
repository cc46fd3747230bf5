import { Problem } from '../../problem';
import { defineStep } from '../declare';

export const skinOf = defineStep({
  kind: 'skin-of',
  family: 'start',
  label: 'Skin of a growth',
  use: 'From another growth',
  icon: 'M5 14C3 9 6 4 11 4 15 4 17 7 16 11M8 16C6 13 8 9 12 9 16 9 17 13 15 16Z',
  help: 'Takes the skin of another growth as it is at this frame: to scatter on it, to reveal it, or to dress it another way.',
  takes: [],
  gives: ['mesh'],
  params: {
    growth: { type: 'growth', label: 'Growth', help: 'Whose skin to take.', default: null, fits: ['mesh', 'copies'] },
  },
  summary: (p) => (p.growth === null ? 'no growth chosen' : 'as it is at this frame'),
  async run(form, p, context) {
    if (p.growth === null) throw new Problem('No growth is chosen.', 'Choose the growth whose skin to take.');
    const other = await context.other('growth');
    const [{ wholeMesh }, { startWithMesh }] = await Promise.all([
      import('../../geometry/copies'),
      import('./startWithMesh'),
    ]);
    const mesh = wholeMesh(other);
    if (!mesh) throw new Problem('The chosen growth has no skin.', 'Give it one, or choose another growth.');
    context.claim('faces', mesh.indices.length / 3, 'the number of faces of that growth');
    return startWithMesh({ ...form, surface: form.surface ?? other.surface }, mesh);
  },
});
