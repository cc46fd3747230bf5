import { Carrier } from '../geometry/attributes';
import { MESH, type Mesh, vertexCount } from '../geometry/mesh';
import { EdgeTable } from '../geometry/weld';
import { type Breathe, CHUNK } from './softNormals';

/**
 * A mesh with some of its edges halved, and the faces at them split in two, three or four: no gap comes about, since what
 * is asked of an edge is the same from both sides. Attributes of new vertices lie half way.
 * @param wants whether the edge between two vertices is to be halved; it may go by what is the same at doubled vertices alone
 * @returns the same mesh where no edge is
 */
export async function halvedWhere(
  mesh: Mesh,
  wants: (a: number, b: number) => boolean,
  breathe: Breathe = () => Promise.resolve(),
): Promise<Mesh> {
  const { indices } = mesh;
  const n = vertexCount(mesh);
  const edges = new EdgeTable(indices.length);
  const halves = new Int32Array(indices.length);
  const known = new Int8Array(indices.length).fill(-1);
  for (let c = 0; c < indices.length; c++) {
    if (c % (3 * CHUNK) === 0) await breathe();
    const [a, b] = [indices[c], indices[c % 3 === 2 ? c - 2 : c + 1]];
    const e = edges.idOf(a, b);
    if (known[e] < 0) known[e] = wants(a, b) ? 1 : 0;
    halves[c] = known[e] ? e : -1;
  }
  const number = new Int32Array(edges.count).fill(-1);
  let made = 0;
  for (let e = 0; e < edges.count; e++) if (known[e] === 1) number[e] = n + made++;
  if (made === 0) return mesh;
  const rows = new Carrier(MESH, mesh, 'vertex', n + made);
  rows.run(0, n, 0);
  for (let e = 0; e < edges.count; e++)
    if (number[e] >= 0) rows.mix(edges.ends[2 * e], edges.ends[2 * e + 1], 0.5, number[e]);
  const faces: number[] = [];
  for (let i = 0; i < indices.length; i += 3) {
    const own = [indices[i], indices[i + 1], indices[i + 2]];
    const half = [0, 1, 2].map((k) => (halves[i + k] < 0 ? -1 : number[halves[i + k]]));
    const count = half.filter((v) => v >= 0).length;
    if (count === 0) faces.push(...own);
    else if (count === 3)
      faces.push(
        own[0],
        half[0],
        half[2],
        half[0],
        own[1],
        half[1],
        half[2],
        half[1],
        own[2],
        half[0],
        half[1],
        half[2],
      );
    else {
      // Turned so that the edge that is split alone, or the one that is not, comes first.
      const k = half.findIndex((v) => (count === 1 ? v >= 0 : v < 0));
      const [a, b, c] = [own[k], own[(k + 1) % 3], own[(k + 2) % 3]];
      const [ab, bc, ca] = [half[k], half[(k + 1) % 3], half[(k + 2) % 3]];
      if (count === 1) faces.push(a, ab, c, ab, b, c);
      else faces.push(a, b, bc, a, bc, ca, ca, bc, c);
    }
  }
  return { ...mesh, ...rows.result(), indices: Uint32Array.from(faces), parts: null, level: null };
}
