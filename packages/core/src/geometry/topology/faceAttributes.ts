import { mapped } from '../filled';
import { type Attribute, columnsOf, type Named } from '../attributes';
import { pickColumns } from '../carrier';
import { faceCount, MESH, type Mesh, vertexCount } from '../mesh';
import { at, cross, sub, type Vec3 } from '../vec';

/** Whether faces of a mesh know anything. */
export const knowsFaces = (mesh: Mesh): boolean => columnsOf(MESH, mesh, 'face').length > 0;

/**
 * A mesh of new faces with what its faces know still that of the faces they came from.
 * @param made the mesh, with new faces and with old attributes of faces
 * @param sources f, the old face that each new one is, or is a part of
 */
export const facesFrom = (made: Mesh, sources: ArrayLike<number>): Mesh =>
  knowsFaces(made) ? { ...made, ...pickColumns(MESH, made, 'face', sources) } : made;

/** Twice the area of a face along its normal. */
export function faceSpan({ positions, indices }: Pick<Mesh, 'positions' | 'indices'>, face: number): Vec3 {
  const a = at(positions, indices[3 * face]);
  return cross(sub(at(positions, indices[3 * face + 1]), a), sub(at(positions, indices[3 * face + 2]), a));
}

/** The middles of all faces, 3f metres. */
export function faceMiddles({ positions, indices }: Pick<Mesh, 'positions' | 'indices'>): Float32Array {
  const middles = new Float32Array(indices.length);
  for (let i = 0; i < indices.length; i++)
    for (let c = 0; c < 3; c++) middles[3 * Math.floor(i / 3) + c] += positions[3 * indices[i] + c] / 3;
  return middles;
}

/** What vertices make of an attribute of faces: the mean of the faces there by their area; of whole numbers the largest face's. */
function atVertices(mesh: Mesh, { width, blend, missing, values }: Attribute): Attribute {
  const n = vertexCount(mesh);
  const out = new Float32Array(width * n);
  const areas = new Float64Array(n);
  for (let f = 0; f < faceCount(mesh); f++) {
    // A face without area still counts where there is no other.
    const area = Math.hypot(...faceSpan(mesh, f)) + 1e-20;
    for (let k = 3 * f; k < 3 * f + 3; k++) {
      const v = mesh.indices[k];
      if (blend === 'nearest') {
        if (area <= areas[v]) continue;
        areas[v] = area;
        for (let c = 0; c < width; c++) out[width * v + c] = values[width * f + c];
        continue;
      }
      areas[v] += area;
      for (let c = 0; c < width; c++) out[width * v + c] += area * values[width * f + c];
    }
  }
  for (let v = 0; v < n; v++)
    for (let c = 0; c < width; c++) {
      if (areas[v] === 0) out[width * v + c] = missing;
      else if (blend !== 'nearest') out[width * v + c] /= areas[v];
    }
  return { domain: 'vertex', width, blend, missing, values: out };
}

/** What the faces of a mesh know, as attributes of its vertices, by name. */
export function facesAtVertices(mesh: Mesh): Named {
  const made: Record<string, Attribute> = {};
  for (const [name, attribute] of Object.entries(mesh.named))
    if (attribute.domain === 'face') made[name] = atVertices(mesh, attribute);
  return made;
}

/** What some faces of a mesh know, in order, as attributes of another domain, by name. */
export function facesAs(mesh: Mesh, faces: ArrayLike<number>, domain: 'vertex' | 'point'): Named {
  const made: Record<string, Attribute> = {};
  for (const [name, attribute] of Object.entries(mesh.named)) {
    if (attribute.domain !== 'face') continue;
    const { width, values } = attribute;
    const out = new Float32Array(width * faces.length);
    for (let k = 0; k < faces.length; k++)
      for (let c = 0; c < width; c++) out[width * k + c] = values[width * faces[k] + c];
    made[name] = { ...attribute, domain, values: out };
  }
  return made;
}

/** A mesh in which no two faces share a vertex, so that each can have a colour of its own. */
export const facesApart = (mesh: Mesh): Mesh => ({
  ...mesh,
  ...pickColumns(MESH, mesh, 'vertex', mesh.indices),
  level: null,
  parts: null,
  indices: mapped(Uint32Array, mesh.indices, (_, i) => i),
});
