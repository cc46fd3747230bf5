import { defineStep } from '../declare';

/**
 * One growth of a group that is copied as a whole. No scene holds this step: a group that is an item is evaluated as a
 * growth that has one for each of its members.
 */
export const groupMember = defineStep({
  kind: 'group-member',
  family: 'start',
  label: 'Growth of a group',
  icon: '',
  help: '',
  takes: [],
  gives: ['mesh'],
  params: {
    growth: { type: 'growth', label: 'Growth', help: '', default: null },
    hue: { type: 'color', label: 'Colour', help: '', default: '#ffffff' },
  },
  summary: () => '',
  async run(form, p, context) {
    const other = await context.other('growth');
    const [{ wholeMesh }, { startWithMesh }, { linearRgb }] = await Promise.all([
      import('../../geometry/copies'),
      import('./startWithMesh'),
      import('../../geometry/gradient'),
    ]);
    const mesh = wholeMesh(other);
    if (!mesh) return form;
    context.claim('faces', mesh.indices.length / 3, 'the number of faces of the growths in the group');
    // Growths have colours of their own, and one skin knows of none.
    const own = linearRgb(p.hue);
    const colors = mesh.colors ?? mesh.positions.map((_, i) => own[i % 3]);
    return startWithMesh({ ...form, surface: form.surface ?? other.surface }, { ...mesh, colors });
  },
});
