import { type Paths, pathCount } from '../geometry/paths';
import { type Element } from '../scene/vary';

/** Calls for every point of every path with where it is; the object is the same each time. */
export function eachElement(paths: Paths, call: (element: Readonly<Element>, point: number) => void): void {
  const count = pathCount(paths);
  const element: Element = { id: 0, index: 0, count, u: 0 };
  for (let index = 0; index < count; index++) {
    element.id = paths.ids[index];
    element.index = index;
    for (let i = paths.offsets[index]; i < paths.offsets[index + 1]; i++) {
      element.u = paths.u[i];
      call(element, i);
    }
  }
}
