import { filled } from './filled';
import { columnNamed, type Numbers } from './attributes';
import { Problem } from '../problem';
import { facesAtVertices } from './topology/faceAttributes';
import { MESH, type Mesh, vertexCount } from './mesh';

/**
 * An attribute of vertices by its name, one number a vertex: named ones, the built-in ones, height, and of what faces know
 * the mean around each vertex. Directions and colours
 * go by their length. Null where the mesh has none of that name.
 */
export function vertexValues(mesh: Mesh, name: string): ArrayLike<number> | null {
  // Nothing has every attribute: a growth that has not begun yet lacks none.
  if (vertexCount(mesh) === 0) return new Float32Array(0);
  if (name === 'height' && !Object.hasOwn(mesh.named, name))
    return filled(Float32Array, vertexCount(mesh), (i) => mesh.positions[3 * i + 1]);
  const column = columnNamed(MESH, mesh, name);
  if (!column?.values || (column.type.domain !== 'vertex' && column.type.domain !== 'face')) return null;
  const { type } = column;
  const values = type.domain === 'face' ? facesAtVertices(mesh)[name].values : column.values;
  return type.width === 1 ? values : lengths(values, type.width);
}

/** What to say where a step is to go by an attribute that is not there. */
export const unwritten = (name: string): Problem =>
  new Problem(`No step before it writes the attribute “${name}”.`, 'Choose another, or add Measure first.');

function lengths(values: Numbers, width: number): Float32Array {
  const out = new Float32Array(values.length / width);
  for (let i = 0; i < out.length; i++) {
    let sum = 0;
    for (let c = 0; c < width; c++) sum += values[width * i + c] ** 2;
    out[i] = Math.sqrt(sum);
  }
  return out;
}
