import type { Form } from '../../geometry/form';
import { withRiders } from '../../geometry/joinMeshes';
import type { Mesh } from '../../geometry/mesh';

const HERE = { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], size: 1 } as const;

/** Adds the mesh that a start step made to what is there: a growth can begin with several starts. */
export const startWithMesh = async (form: Form, mesh: Mesh): Promise<Form> => ({
  ...form,
  mesh: form.mesh ? await withRiders(form.mesh, mesh, [HERE]) : mesh,
});
