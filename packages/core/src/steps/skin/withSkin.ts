import type { Form } from '../../geometry/form';
import type { Mesh } from '../../geometry/mesh';

/** Further behind a front than anything that glows or swells by it, metres. */
const FAR_BEHIND = 1e6;

/**
 * Adds a skin to what is there: a growth may have a solid beside its path, or two skins on one. Each keeps its own distance behind the
 * front; one that knows none lies far behind it.
 */
export async function withSkin(form: Form, mesh: Mesh): Promise<Form> {
  const base = form.mesh;
  if (!base || base.indices.length === 0) return { ...form, mesh };
  const tips = base.tip !== null || mesh.tip !== null;
  const tipped = (one: Mesh): Mesh =>
    tips && one.tip === null ? { ...one, tip: new Float32Array(one.positions.length / 3).fill(FAR_BEHIND) } : one;
  const list = [base, mesh].map((one) => ({ mesh: tipped(one), shift: 0 }));
  const { joinMeshes } = await import('../../geometry/joinForms');
  const joined = (await joinMeshes(list, () => Promise.resolve()))!;
  // The parts of a skin that is made of no paths count as none.
  return { ...form, mesh: joined.parts ? joined : { ...joined, parts: base.parts, level: base.level } };
}
