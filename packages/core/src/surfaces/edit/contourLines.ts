import type { YieldNow } from '../../yieldNow';
import { mapped } from '../../geometry/filled';
import { type Attribute, columnsOf } from '../../geometry/attributes';
import { chainEdges } from '../../geometry/topology/featureEdges';
import { facesAtVertices } from '../../geometry/topology/faceAttributes';
import { MESH, type Mesh } from '../../geometry/mesh';
import { type Paths, pathsFrom, type PathSource } from '../../geometry/paths';
import { topologyInTime } from '../../geometry/topology/topology';
import { EdgeTable } from '../../geometry/topology/weld';
import { CHUNK } from './smoothNormals';

/**
 * Lines on a mesh along which a field has the same value, closed where they close: the field runs straight over each face.
 * @param field n, one value a vertex; vertices at one place take that of the first
 * @param levels values, rising
 * @returns paths, those of the first value first, each numbered by its level and its place among those of it
 */
export async function contoursOf(
  mesh: Mesh,
  field: ArrayLike<number>,
  levels: readonly number[],
  yieldNow: YieldNow = () => Promise.resolve(),
): Promise<Paths> {
  const { weld, corners } = await topologyInTime(mesh, yieldNow);
  const { first } = weld;
  const sources: PathSource[] = [];
  const value = mapped(Float64Array, first, (vertex) => field[vertex]);
  for (const level of levels) {
    await yieldNow();
    const cuts = new EdgeTable(Math.max(1, corners.length));
    const ends: number[] = [];
    // What lies just on the level counts as above: no line runs along an edge twice.
    const above = (place: number): boolean => value[place] >= level;
    for (let c = 0; c < corners.length; c += 3) {
      if (c % (3 * CHUNK) === 0) await yieldNow();
      const i = above(corners[c]);
      const j = above(corners[c + 1]);
      const k = above(corners[c + 2]);
      if (i === j && j === k) continue;
      // The one that is alone on its side.
      const lone = j === k ? 0 : i === k ? 1 : 2;
      const a = corners[c + lone];
      const b = corners[c + (lone === 2 ? 0 : lone + 1)];
      const d = corners[c + (lone === 0 ? 2 : lone - 1)];
      ends.push(cuts.idOf(a, b), cuts.idOf(a, d));
    }
    for (const { points, closed } of chainEdges(ends)) {
      if (points.length < 2) continue;
      const positions = points.flatMap((e) => {
        const [i, j] = [cuts.ends[2 * e], cuts.ends[2 * e + 1]];
        const t = (level - value[i]) / (value[j] - value[i]);
        return [0, 1, 2].map((k) => {
          const [p, q] = [mesh.positions[3 * first[i] + k], mesh.positions[3 * first[j] + k]];
          return p + (q - p) * t;
        });
      });
      sources.push({ positions: withoutDoubles(positions), closed, id: sources.length });
    }
  }
  return pathsFrom(sources.filter(({ positions }) => positions.length >= 6));
}

/** Points without those that lie on the one before: where a line goes through a corner it meets several edges at one place. */
function withoutDoubles(flat: readonly number[]): number[] {
  const out: number[] = [];
  for (let i = 0; i < flat.length; i += 3) {
    const n = out.length;
    const same = n > 0 && [0, 1, 2].every((k) => Math.abs(out[n - 3 + k] - flat[i + k]) < 1e-7);
    if (!same) out.push(flat[i], flat[i + 1], flat[i + 2]);
  }
  return out;
}

/** What some vertices of a mesh know, as named attributes of points of paths: a skin's edges know what the skin does. */
export function pointAttributes(mesh: Mesh, vertices: ArrayLike<number>): Record<string, Attribute> {
  const named: Record<string, Attribute> = {};
  const whole = { ...mesh, named: { ...mesh.named, ...facesAtVertices(mesh) } };
  for (const { name, type, values } of columnsOf(MESH, whole, 'vertex')) {
    if (!values || OWN.includes(name)) continue;
    const { width } = type;
    const out = new Float32Array(width * vertices.length);
    for (let k = 0; k < vertices.length; k++)
      for (let c = 0; c < width; c++) out[width * k + c] = values[width * vertices[k] + c];
    named[name] = { domain: 'point', width, blend: type.blend, missing: type.missing, values: out };
  }
  return named;
}

/** What points of paths have of their own, or have no use for. */
const OWN = ['positions', 'normals', 'uvs', 'u', 'age', 'colors', 'glow'];
