import type { Form } from '../../geometry/form';
import type { Mesh } from '../../geometry/mesh';
import { startWithMesh } from '../start/startWithMesh';

/** Adds a skin to what is there: a growth may have a solid beside its path, or two skins on one. */
export const withSkin = (form: Form, mesh: Mesh): Form | Promise<Form> =>
  form.mesh && form.mesh.indices.length > 0 ? startWithMesh(form, mesh) : { ...form, mesh };
