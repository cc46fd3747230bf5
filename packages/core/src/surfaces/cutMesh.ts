import earcut from 'earcut';
import { chainEdges } from '../geometry/edges';
import { Carrier, joined, NO_NAMED } from '../geometry/attributes';
import { facesFrom } from '../geometry/faceAttributes';
import { faceCount, MESH, type Mesh, vertexCount } from '../geometry/mesh';
import { at, cross, perpendicular, ringNormal, sub, dot, unit, type Vec3 } from '../geometry/vec';
import { EdgeTable, weld } from '../geometry/weld';
import { type Breathe, CHUNK } from './softNormals';

/**
 * The part of a mesh where a field is not below 0, cut exactly along the line on which it is 0: new vertices stand on the
 * edges, with all attributes in between. The field runs straight between vertices.
 * @param field n, one value a vertex
 * @param close whether the rims that the cut leaves are closed by faces of their own
 */
export async function cutMesh(
  mesh: Mesh,
  field: ArrayLike<number>,
  close = false,
  breathe: Breathe = () => Promise.resolve(),
): Promise<Mesh> {
  const { indices } = mesh;
  const n = vertexCount(mesh);
  const inside = Uint8Array.from({ length: n }, (_, i) => (field[i] >= 0 ? 1 : 0));
  const newNumber = new Int32Array(n).fill(-1);
  const kept: number[] = [];
  const keep = (vertex: number): number => {
    if (newNumber[vertex] < 0) {
      newNumber[vertex] = kept.length;
      kept.push(vertex);
    }
    return newNumber[vertex];
  };
  const crossing: number[] = [];
  for (let i = 0; i < indices.length; i += 3) {
    const count = inside[indices[i]] + inside[indices[i + 1]] + inside[indices[i + 2]];
    if (count === 0) continue;
    for (let k = 0; k < 3; k++) if (inside[indices[i + k]]) keep(indices[i + k]);
    if (count < 3) crossing.push(i);
  }
  const cuts = new EdgeTable(2 * crossing.length);
  const faces: number[] = [];
  /** The face that each is, or is cut from. */
  const sources: number[] = [];
  /** Cut lines, from the first to the second vertex as the faces that stay run. */
  const rims: [number, number][] = [];
  const cutBetween = (a: number, b: number): number => kept.length + cuts.idOf(a, b);
  let next = 0;
  for (let i = 0; i < indices.length; i += 3) {
    if (i % (3 * CHUNK) === 0) await breathe();
    const own = [indices[i], indices[i + 1], indices[i + 2]];
    if (crossing[next] !== i) {
      if (inside[own[0]]) {
        faces.push(newNumber[own[0]], newNumber[own[1]], newNumber[own[2]]);
        sources.push(i / 3);
      }
      continue;
    }
    next++;
    // Turned so that the corner that is alone on its side comes first.
    const lone = own.findIndex(
      (v, k) => inside[v] !== inside[own[(k + 1) % 3]] && inside[v] !== inside[own[(k + 2) % 3]],
    );
    const [a, b, c] = [own[lone], own[(lone + 1) % 3], own[(lone + 2) % 3]];
    const [ab, ac] = [cutBetween(a, b), cutBetween(a, c)];
    if (inside[a]) {
      faces.push(newNumber[a], ab, ac);
      sources.push(i / 3);
      rims.push([ab, ac]);
    } else {
      faces.push(ab, newNumber[b], newNumber[c], ab, newNumber[c], ac);
      sources.push(i / 3, i / 3);
      rims.push([ac, ab]);
    }
  }
  const rows = new Carrier(MESH, mesh, 'vertex', kept.length + cuts.count);
  rows.pick(kept);
  for (let e = 0; e < cuts.count; e++) {
    const [i, j] = [cuts.ends[2 * e], cuts.ends[2 * e + 1]];
    rows.mix(i, j, field[i] / (field[i] - field[j]), kept.length + e);
  }
  const made = facesFrom(
    { ...mesh, ...rows.result(), indices: Uint32Array.from(faces), parts: null, level: null },
    sources,
  );
  return close && rims.length > 0 ? closed(made, rims) : made;
}

/** A cut mesh with faces over its rims, each rim for itself and flat as it lies (ear clipping by earcut). */
function closed(mesh: Mesh, rims: readonly (readonly [number, number])[]): Mesh {
  const { of, first } = weld(mesh);
  const loops = chainEdges(rims.map(([a, b]) => [of[a], of[b]] as const)).filter(({ closed: whole }) => whole);
  const runs = new Set(rims.map(([a, b]) => `${of[a]} ${of[b]}`));
  const sources: number[] = [];
  const normals: number[] = [];
  const faces: number[] = [];
  const n = vertexCount(mesh);
  for (const { points } of loops) {
    // The cover runs along the rim the other way round than the faces that it closes.
    const ring = runs.has(`${points[0]} ${points[1]}`) ? [...points].reverse() : points;
    const corners = ring.map((place) => at(mesh.positions, first[place]));
    const normal = unit(ringNormal(corners));
    const x = perpendicular(normal);
    const y = cross(normal, x);
    const flat = corners.flatMap((corner) => {
      const from: Vec3 = sub(corner, corners[0]);
      return [dot(from, x), dot(from, y)];
    });
    const base = n + sources.length;
    for (const index of earcut(flat)) faces.push(base + index);
    for (const place of ring) {
      sources.push(first[place]);
      normals.push(...normal);
    }
  }
  const rows = new Carrier(MESH, mesh, 'vertex', n + sources.length);
  rows.run(0, n, 0);
  rows.pick(sources, n);
  const covered = rows.result();
  // Covers are faces that were not there before: they know nothing yet.
  const known = joined(MESH, 'face', [
    { of: mesh, count: faceCount(mesh) },
    { of: { ...mesh, named: NO_NAMED }, count: faces.length / 3 },
  ]);
  const all: Mesh = {
    ...mesh,
    ...covered,
    named: { ...covered.named, ...known.named },
    indices: Uint32Array.from([...mesh.indices, ...faces]),
  };
  all.normals.set(normals, 3 * n);
  return all;
}
