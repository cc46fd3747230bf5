import type { Form } from '../../geometry/form';
import { type Paths, joinPaths } from '../../geometry/paths';

/** Adds the paths that a start step made to what is there: a growth can begin with several starts. */
export const startWith = (form: Form, paths: Paths): Form => ({
  ...form,
  paths: form.paths ? joinPaths(form.paths, paths) : paths,
});
