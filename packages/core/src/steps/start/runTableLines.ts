import { oneNumber } from '../../geometry/attributes';
import { type Paths, pathsFrom } from '../../geometry/paths';
import type { Vec3 } from '../../geometry/vec';
import { columnOf, readTable } from '../../tables/readTable';
import type { StepContext } from '../declare';
import type { TableLinesParams } from './tableLines';

/** A line for each row of a table that has a number, as long as that says; below 0 it runs the other way. */
export async function runTableLines(p: TableLinesParams, context: StepContext): Promise<Paths> {
  const values = columnOf(readTable(await context.file(p.file!)), p.column);
  const rows = [...values.keys()].filter((row) => !Number.isNaN(values[row]));
  context.claim('points', rows.length * p.points, 'Points, or the rows of the table');
  const highest = rows.reduce((most, row) => Math.max(most, Math.abs(values[row])), 0) || 1;
  const sources = rows.map((row, k) => {
    const { base, way } = placeOf(p, k, rows.length);
    const length = (values[row] / highest) * p.height + (values[row] < 0 ? -p.least : p.least);
    const positions = new Float64Array(3 * p.points);
    for (let i = 0; i < p.points; i++)
      for (let c = 0; c < 3; c++) positions[3 * i + c] = base[c] + (way[c] * length * i) / (p.points - 1);
    return { id: row, positions };
  });
  const value = oneNumber(
    'path',
    Float32Array.from(rows, (row) => values[row]),
  );
  return { ...pathsFrom(sources), named: { value } };
}

/** Where the k-th line begins, and the direction in which it goes. */
function placeOf({ stand, apart, radius }: TableLinesParams, k: number, count: number): { base: Vec3; way: Vec3 } {
  if (stand === 'row') return { base: [(k - (count - 1) / 2) * apart, 0, 0], way: [0, 1, 0] };
  const angle = (2 * Math.PI * k) / count;
  const out: Vec3 = [Math.cos(angle), 0, -Math.sin(angle)];
  return { base: [radius * out[0], 0, radius * out[2]], way: stand === 'rays' ? out : [0, 1, 0] };
}
