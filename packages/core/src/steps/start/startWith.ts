import type { Form } from '../../geometry/form';
import type { Paths } from '../../geometry/paths';

/** Adds the paths that a start step made to what is there: a growth can begin with several starts. */
export async function startWith(form: Form, paths: Paths): Promise<Form> {
  if (!form.paths) return { ...form, paths };
  const { joinPaths } = await import('../../geometry/joinPaths');
  return { ...form, paths: joinPaths(form.paths, paths) };
}
