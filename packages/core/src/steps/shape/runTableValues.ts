import { type Attribute, type Named, oneNumber } from '../../geometry/attributes';
import type { Form } from '../../geometry/form';
import { pathCount, pointCount } from '../../geometry/paths';
import { Problem } from '../../problem';
import { columnOf, readTable } from '../../tables/readTable';
import { type TableValuesParams, valuesKeptAs } from './tableValues';

/** A form whose paths, copies or points have a value each from a table. @param bytes of the table */
export function runTableValues(form: Form, p: TableValuesParams, bytes: Uint8Array): Form {
  const scaled = scaledValues(columnOf(readTable(bytes), p.column), p);
  const name = valuesKeptAs(p);
  const given = <T extends { named: Named }>(of: T | null, domain: Attribute['domain'], count: number): T => {
    if (!of)
      throw new Problem(`There are no ${p.on === 'nodes' ? 'paths' : p.on} here.`, 'Choose another under Rows are.');
    const values = new Float32Array(count);
    for (let k = 0; k < count; k++)
      values[k] = k < scaled.length || p.repeat ? scaled[k % Math.max(1, scaled.length)] : 0;
    return { ...of, named: { ...of.named, [name]: oneNumber(domain, values) } };
  };
  const { paths, points, seats } = form;
  switch (p.on) {
    case 'copies':
      return { ...form, seats: given(seats, 'copy', seats?.ids.length ?? 0) };
    case 'points':
      return { ...form, points: given(points, 'point', points?.ids.length ?? 0) };
    case 'nodes':
      return { ...form, paths: given(paths, 'point', paths ? pointCount(paths) : 0) };
    default:
      return { ...form, paths: given(paths, 'path', paths ? pathCount(paths) : 0) };
  }
}

/** The values of a column; what holds no number is 0. */
function scaledValues(column: Float64Array, { scale, low, high }: TableValuesParams): Float64Array {
  if (scale === 'measured') return column.map((value) => (Number.isNaN(value) ? 0 : value));
  let [from, to] = [low, high];
  if (scale === 'share') {
    [from, to] = [Infinity, -Infinity];
    for (const value of column) [from, to] = [value < from ? value : from, value > to ? value : to];
  }
  return column.map((value) => {
    if (Number.isNaN(value)) return 0;
    return to === from ? 1 : Math.min(1, Math.max(0, (value - from) / (to - from)));
  });
}
