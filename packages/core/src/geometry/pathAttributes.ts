import { columnNamed } from './attributes';
import { PATHS, type Paths } from './paths';

/** An attribute of points by its name, one number a point: named ones, the built-in ones, and height. Null where the paths have none of that name. */
export function pointValues(paths: Paths, name: string): ArrayLike<number> | null {
  if (paths.s.length === 0) return new Float32Array(0);
  if (name === 'height' && !Object.hasOwn(paths.named, name)) return paths.s.map((_, i) => paths.positions[3 * i + 1]);
  const column = columnNamed(PATHS, paths, name);
  return column?.values && column.type.domain === 'point' && column.type.width === 1 ? column.values : null;
}
