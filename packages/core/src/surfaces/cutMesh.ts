import earcut from 'earcut';
import { chainEdges } from '../geometry/edges';
import { Carrier } from '../geometry/carrier';
import { joined } from '../geometry/joined';
import { NO_NAMED } from '../geometry/attributes';
import { facesFrom } from '../geometry/faceAttributes';
import { faceCount, MESH, type Mesh, vertexCount } from '../geometry/mesh';
import { at, cross, dot, perpendicular, ringNormal, sub, unit, type Vec3 } from '../geometry/vec';
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
  const inside = new Uint8Array(n);
  for (let i = 0; i < n; i++) inside[i] = field[i] >= 0 ? 1 : 0;
  const newNumber = new Int32Array(n).fill(-1);
  const kept = new Uint32Array(n);
  let keptCount = 0;
  let whole = 0;
  let crossing = 0;
  for (let i = 0; i < indices.length; i += 3) {
    const count = inside[indices[i]] + inside[indices[i + 1]] + inside[indices[i + 2]];
    if (count === 0) continue;
    if (count === 3) whole++;
    else crossing++;
    for (let k = i; k < i + 3; k++) {
      const vertex = indices[k];
      if (inside[vertex] === 0 || newNumber[vertex] >= 0) continue;
      newNumber[vertex] = keptCount;
      kept[keptCount++] = vertex;
    }
  }
  const cuts = new EdgeTable(2 * crossing);
  const most = whole + 2 * crossing;
  const faces = new Uint32Array(3 * most);
  /** The face that each is, or is cut from. */
  const sources = new Uint32Array(most);
  let made = 0;
  const put = (from: number, a: number, b: number, c: number): void => {
    sources[made] = from;
    faces[3 * made] = a;
    faces[3 * made + 1] = b;
    faces[3 * made++ + 2] = c;
  };
  /** Cut lines, from the first to the second vertex as the faces that stay run. */
  const rims: [number, number][] = [];
  for (let i = 0, f = 0; i < indices.length; i += 3, f++) {
    if (f % CHUNK === 0) await breathe();
    const within = inside[indices[i]] + inside[indices[i + 1]] + inside[indices[i + 2]];
    if (within === 0) continue;
    if (within === 3) {
      put(f, newNumber[indices[i]], newNumber[indices[i + 1]], newNumber[indices[i + 2]]);
      continue;
    }
    // Turned so that the corner that is alone on its side comes first.
    const alone = within === 1 ? 1 : 0;
    const lone = inside[indices[i]] === alone ? 0 : inside[indices[i + 1]] === alone ? 1 : 2;
    const a = indices[i + lone];
    const b = indices[i + ((lone + 1) % 3)];
    const c = indices[i + ((lone + 2) % 3)];
    const ab = keptCount + cuts.idOf(a, b);
    const ac = keptCount + cuts.idOf(a, c);
    if (alone === 1) put(f, newNumber[a], ab, ac);
    else {
      put(f, ab, newNumber[b], newNumber[c]);
      put(f, ab, newNumber[c], ac);
    }
    if (close) rims.push(alone === 1 ? [ab, ac] : [ac, ab]);
  }
  const rows = new Carrier(MESH, mesh, 'vertex', keptCount + cuts.count);
  rows.pick(kept.subarray(0, keptCount));
  const { ends } = cuts;
  const share = (e: number): number => field[ends[2 * e]] / (field[ends[2 * e]] - field[ends[2 * e + 1]]);
  rows.mixPairs(ends, cuts.count, share, keptCount);
  const cut = facesFrom(
    { ...mesh, ...rows.result(), indices: faces.slice(0, 3 * made), parts: null, level: null },
    sources.subarray(0, made),
  );
  return rims.length > 0 ? closed(cut, rims) : cut;
}

/** A cut mesh with faces over its rims, each rim for itself and flat as it lies (ear clipping by earcut). */
function closed(mesh: Mesh, rims: readonly (readonly [number, number])[]): Mesh {
  const { of, first } = weld(mesh);
  const loops = chainEdges(rims.flatMap(([a, b]) => [of[a], of[b]])).filter(({ closed: whole }) => whole);
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
