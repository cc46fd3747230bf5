import { Carrier } from '../geometry/attributes';
import { facesFrom } from '../geometry/faceAttributes';
import { MESH, type Mesh, vertexCount } from '../geometry/mesh';
import { EdgeTable } from '../geometry/weld';
import { type Breathe, CHUNK } from './softNormals';

/** What comes of halving edges. */
export interface Halved {
  mesh: Mesh;
  /** The faces that are parts of those that were there, by number. Only they can have edges that are to be halved next. */
  parts: Uint32Array;
}

/**
 * A mesh with some of its edges halved, and the faces at them split in two, three or four: no gap comes about, since what
 * is asked of an edge is the same from both sides. Attributes of new vertices lie half way. Faces that stay whole keep their
 * numbers; of a face that is split one part takes its number, the others come last.
 * @param wants whether the edge between two vertices is to be halved; it may go by what is the same at doubled vertices alone
 * @param among the faces that are asked, by number; all where left out
 * @returns null where no edge is halved
 */
export async function halvedWhere(
  mesh: Mesh,
  wants: (a: number, b: number) => boolean,
  breathe: Breathe = () => Promise.resolve(),
  among: Uint32Array | null = null,
): Promise<Halved | null> {
  const { indices } = mesh;
  const n = vertexCount(mesh);
  const before = indices.length / 3;
  const asked = among?.length ?? before;
  // Most faces stay as they are: those that do not are listed, with which of their edges are halved, a bit each.
  const split = new Uint32Array(asked);
  const edgesOf = new Uint8Array(asked);
  let count = 0;
  let more = 0;
  for (let k = 0; k < asked; k++) {
    if (k % CHUNK === 0) await breathe();
    const f = among ? among[k] : k;
    const a = indices[3 * f];
    const b = indices[3 * f + 1];
    const c = indices[3 * f + 2];
    const which = (wants(a, b) ? 1 : 0) | (wants(b, c) ? 2 : 0) | (wants(c, a) ? 4 : 0);
    if (which === 0) continue;
    split[count] = f;
    edgesOf[count++] = which;
    more += (which & 1) + ((which >> 1) & 1) + (which >> 2);
  }
  if (more === 0) return null;
  const edges = new EdgeTable(more);
  const faces = new Uint32Array(indices.length + 3 * more);
  faces.set(indices);
  const sources = new Uint32Array(before + more);
  for (let f = 0; f < before; f++) sources[f] = f;
  const parts = new Uint32Array(count + more);
  let last = before;
  let listed = 0;
  const put = (f: number, a: number, b: number, c: number): void => {
    faces[3 * f] = a;
    faces[3 * f + 1] = b;
    faces[3 * f + 2] = c;
    parts[listed++] = f;
  };
  const add = (from: number, a: number, b: number, c: number): void => {
    sources[last] = from;
    put(last++, a, b, c);
  };
  for (let k = 0; k < count; k++) {
    if (k % CHUNK === 0) await breathe();
    const f = split[k];
    const which = edgesOf[k];
    // Turned so that the edge that is halved alone, or the one that is not, comes first.
    const first = which === 1 || which === 6 || which === 7 ? 0 : which === 2 || which === 5 ? 1 : 2;
    const a = indices[3 * f + first];
    const b = indices[3 * f + ((first + 1) % 3)];
    const c = indices[3 * f + ((first + 2) % 3)];
    if (which === 1 || which === 2 || which === 4) {
      const ab = n + edges.idOf(a, b);
      put(f, a, ab, c);
      add(f, ab, b, c);
      continue;
    }
    const bc = n + edges.idOf(b, c);
    const ca = n + edges.idOf(c, a);
    if (which === 7) {
      const ab = n + edges.idOf(a, b);
      put(f, ab, bc, ca);
      add(f, a, ab, ca);
      add(f, ab, b, bc);
    } else {
      put(f, a, b, bc);
      add(f, a, bc, ca);
    }
    add(f, ca, bc, c);
  }
  const rows = new Carrier(MESH, mesh, 'vertex', n + edges.count);
  rows.run(0, n, 0);
  rows.mixPairs(edges.ends, edges.count, () => 0.5, n);
  return { mesh: facesFrom({ ...mesh, ...rows.result(), indices: faces, parts: null, level: null }, sources), parts };
}
