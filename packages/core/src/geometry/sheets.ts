import { filled } from './filled';
import { columnsOf, type Domain, type Named, type Table, type Attributed } from './attributes';
import { COPIES, type Form, POINTS } from './form';
import { faceMiddles, knowsFaces } from './topology/faceAttributes';
import { faceCount, MESH, vertexCount } from './mesh';
import { PATHS, pathCount, pointCount } from './paths';

/** Whose elements a sheet lists. */
export type SheetOf = 'vertices' | 'faces' | 'points' | 'paths' | 'loose' | 'copies';

/** One number of an attribute at every element. */
export interface SheetColumn {
  /** Name of the attribute. */
  name: string;
  /** Which of its numbers, counted from 0; null where it has only one. */
  part: number | null;
  /** NaN where an element has none. */
  values: Float32Array;
}

/** Everything that the elements of one kind know, in columns. */
export interface Sheet {
  of: SheetOf;
  count: number;
  columns: SheetColumn[];
  /** 3n metres, where each element is; where a path is is its base. */
  places: Float32Array;
}

/** Whole numbers that stand for none. */
const NONE = 0xffffffff;

/**
 * What a form knows at this frame, as tables: a sheet for each kind of element that is there, what steps have written first, then what
 * is built in; attributes without values are left out.
 */
export function sheetsOf({ mesh, paths, points, copies }: Form): Sheet[] {
  const sheets: Sheet[] = [];
  if (mesh) sheets.push(sheet('vertices', MESH, mesh, 'vertex', vertexCount(mesh), mesh.positions));
  if (mesh && knowsFaces(mesh)) sheets.push(sheet('faces', MESH, mesh, 'face', faceCount(mesh), faceMiddles(mesh)));
  if (paths) {
    sheets.push(sheet('points', PATHS, paths, 'point', pointCount(paths), paths.positions));
    const bases = new Float32Array(3 * pathCount(paths));
    for (let p = 0; p < pathCount(paths); p++)
      if (paths.offsets[p] < paths.offsets[p + 1])
        bases.set(paths.positions.subarray(3 * paths.offsets[p], 3 * paths.offsets[p] + 3), 3 * p);
    sheets.push(sheet('paths', PATHS, paths, 'path', pathCount(paths), bases));
  }
  if (points) sheets.push(sheet('loose', POINTS, points, 'point', points.ids.length, points.positions));
  if (copies) sheets.push(sheet('copies', COPIES, copies, 'copy', copies.ids.length, copies.positions));
  return sheets;
}

function sheet<T extends Table>(
  of: SheetOf,
  table: T,
  from: Attributed<T> & { named: Named },
  domain: Domain,
  count: number,
  places: Float32Array,
): Sheet {
  const all = columnsOf(table, from, domain);
  const written = [...all.filter(({ builtIn }) => !builtIn), ...all.filter(({ builtIn }) => builtIn)];
  const columns = written.flatMap(({ name, type: { width }, values, builtIn }): SheetColumn[] => {
    if (!values) return [];
    const number = (i: number): number => (builtIn?.array === 'integer' && values[i] === NONE ? NaN : values[i]);
    return Array.from({ length: width }, (_, part) => ({
      name,
      part: width > 1 ? part : null,
      values: filled(Float32Array, count, (i) => number(width * i + part)),
    }));
  });
  return { of, count, columns, places: places.slice() };
}

/** The least, greatest and mean value of a column, and how many there are; what has none is left out. */
export interface Spread {
  least: number;
  most: number;
  mean: number;
  count: number;
}

/** How the values of a column lie; null where there are none. */
export function spreadOf(values: Float32Array): Spread | null {
  let [least, most, sum, count] = [Infinity, -Infinity, 0, 0];
  for (const value of values) {
    if (!Number.isFinite(value)) continue;
    if (value < least) least = value;
    if (value > most) most = value;
    sum += value;
    count++;
  }
  return count > 0 ? { least, most, mean: sum / count, count } : null;
}
