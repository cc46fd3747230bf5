import { wholeMesh } from '../../geometry/copies';
import type { Mesh } from '../../geometry/mesh';
import { treeInTime } from '../../geometry/search/meshTree';
import type { Paths } from '../../geometry/paths';
import { Problem } from '../../problem';
import type { StepContext } from '../declare';

/** The skin of the growth that a parameter names. */
export async function skinIn(context: StepContext, param: string, chosen: string | null): Promise<Mesh> {
  if (chosen === null) throw new Problem('No growth is chosen.', 'Choose the growth that it goes by.');
  const mesh = wholeMesh(await context.other(param));
  if (!mesh) throw new Problem('The chosen growth has no skin.', 'Give it one, or choose another growth.');
  // What goes by a skin looks for its nearest places.
  await treeInTime(mesh, () => context.yieldNow());
  return mesh;
}

/** The paths of the growth that a parameter names. */
export async function pathsIn(context: StepContext, param: string, chosen: string | null): Promise<Paths> {
  if (chosen === null) throw new Problem('No growth is chosen.', 'Choose the growth whose paths it begins with.');
  const { paths } = await context.other(param);
  if (!paths || paths.s.length === 0)
    throw new Problem('The chosen growth has no paths.', 'Choose one that begins with a path.');
  return paths;
}
