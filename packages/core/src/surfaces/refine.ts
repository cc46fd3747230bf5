import { Carrier } from '../geometry/attributes';
import { facesFrom } from '../geometry/faceAttributes';
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
  // Most edges are left as they are: only those that are halved are looked up.
  const wanted = new Uint8Array(indices.length);
  let more = 0;
  for (let c = 0; c < indices.length; c++) {
    if (c % (3 * CHUNK) === 0) await breathe();
    if (!wants(indices[c], indices[c % 3 === 2 ? c - 2 : c + 1])) continue;
    wanted[c] = 1;
    more++;
  }
  if (more === 0) return mesh;
  const edges = new EdgeTable(more);
  /** The new vertex of each corner's edge, −1 where it is not halved. */
  const half = new Int32Array(indices.length).fill(-1);
  for (let c = 0; c < indices.length; c++)
    if (wanted[c]) half[c] = n + edges.idOf(indices[c], indices[c % 3 === 2 ? c - 2 : c + 1]);
  const made = edges.count;
  const rows = new Carrier(MESH, mesh, 'vertex', n + made);
  rows.run(0, n, 0);
  for (let e = 0; e < made; e++) rows.mix(edges.ends[2 * e], edges.ends[2 * e + 1], 0.5, n + e);
  // A face becomes one more for each of its edges that is halved.
  const faces = new Uint32Array(indices.length + 3 * more);
  let write = 0;
  const sources = new Uint32Array(indices.length / 3 + more);
  const face = (from: number, a: number, b: number, c: number): void => {
    sources[write / 3] = from;
    faces[write] = a;
    faces[write + 1] = b;
    faces[write + 2] = c;
    write += 3;
  };
  for (let i = 0; i < indices.length; i += 3) {
    if (i % (3 * CHUNK) === 0) await breathe();
    const [p, q, r] = [half[i], half[i + 1], half[i + 2]];
    const f = i / 3;
    const count = (p >= 0 ? 1 : 0) + (q >= 0 ? 1 : 0) + (r >= 0 ? 1 : 0);
    if (count === 0) face(f, indices[i], indices[i + 1], indices[i + 2]);
    else if (count === 3) {
      face(f, indices[i], p, r);
      face(f, p, indices[i + 1], q);
      face(f, r, q, indices[i + 2]);
      face(f, p, q, r);
    } else {
      // Turned so that the edge that is split alone, or the one that is not, comes first.
      const first = p >= 0 === (count === 1) ? 0 : q >= 0 === (count === 1) ? 1 : 2;
      const [second, third] = [(first + 1) % 3, (first + 2) % 3];
      const [a, b, c] = [indices[i + first], indices[i + second], indices[i + third]];
      if (count === 1) {
        const ab = half[i + first];
        face(f, a, ab, c);
        face(f, ab, b, c);
      } else {
        const [bc, ca] = [half[i + second], half[i + third]];
        face(f, a, b, bc);
        face(f, a, bc, ca);
        face(f, ca, bc, c);
      }
    }
  }
  return facesFrom({ ...mesh, ...rows.result(), indices: faces, parts: null, level: null }, sources);
}
