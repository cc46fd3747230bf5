import type { Named, Table } from '../../geometry/attributes';
import { Carrier } from '../../geometry/carrier';
import type { Paths } from '../../geometry/paths';

const NONE = {} satisfies Table;
type Fill = (rows: Carrier<typeof NONE>) => void;

/**
 * What points and paths know by names of their own, at the vertices and parts of a skin.
 * @param count vertices
 * @param fill puts each vertex's values by the points that it lies at or between
 * @param pathOf the path of each part
 */
export function vertexAttributes({ named }: Paths, count: number, fill: Fill, pathOf: ArrayLike<number>): Named {
  const of = (domain: 'point' | 'path'): Named =>
    Object.fromEntries(Object.entries(named).filter(([, attribute]) => attribute.domain === domain));
  const rows = new Carrier(NONE, { named: of('point') }, 'point', count);
  fill(rows);
  const parts = new Carrier(NONE, { named: of('path') }, 'path', pathOf.length);
  parts.pick(pathOf);
  return {
    ...Object.fromEntries(
      Object.entries(rows.result().named).map(([name, attribute]) => [name, { ...attribute, domain: 'vertex' }]),
    ),
    ...parts.result().named,
  };
}
