import type { YieldNow } from '../../yieldNow';
import { Carrier } from '../../geometry/carrier';
import { facesFrom, knowsFaces } from '../../geometry/topology/faceAttributes';
import { faceCount, MESH, type Mesh, vertexCount } from '../../geometry/mesh';
import { EdgeTable } from '../../geometry/topology/weld';
import { CHUNK } from './smoothNormals';

/**
 * A mesh some of whose edges are halved, round by round. All that is new comes behind what is there, in arrays that grow: a round
 * costs what it makes, not what there is.
 */
export class Refining {
  #mesh: Mesh;
  #faces: number;
  #rows: Carrier<typeof MESH> | null = null;
  #indices: Uint32Array;
  /** The face of the first mesh that each is a part of; null where faces know nothing. */
  #sources: Uint32Array | null;

  constructor(readonly first: Mesh) {
    this.#mesh = first;
    this.#faces = faceCount(first);
    this.#indices = first.indices;
    this.#sources = knowsFaces(first) ? Uint32Array.from({ length: this.#faces }, (_, f) => f) : null;
  }

  /** The mesh as it is now. What is given before another round must not be used after it. */
  get mesh(): Mesh {
    return this.#mesh;
  }

  /**
   * Halves some of the edges, and splits the faces at them in two, three or four: no gap comes about, since what is asked of an edge
   * is the same from both sides. Attributes of new vertices lie half way. Faces that stay whole keep their numbers; of a face
   * that is split one part takes its number, the others come last.
   * @param wants whether the edge between two vertices is to be halved; it may go by what is the same at doubled vertices alone
   * @param among the faces that are asked, by number; all where left out
   * @returns the faces that are parts of those that were there, by number, which alone can have edges that are to be halved next;
   * null where no edge is halved
   */
  async halve(
    wants: (a: number, b: number) => boolean,
    yieldNow: YieldNow = () => Promise.resolve(),
    among: Uint32Array | null = null,
  ): Promise<Uint32Array | null> {
    const n = vertexCount(this.#mesh);
    const before = this.#faces;
    const asked = among?.length ?? before;
    const old = this.#indices;
    // Most faces stay as they are: those that do not are listed, with which of their edges are halved, a bit each.
    const split = new Uint32Array(asked);
    const edgesOf = new Uint8Array(asked);
    let count = 0;
    let more = 0;
    for (let k = 0; k < asked; k++) {
      if (k % CHUNK === 0) await yieldNow();
      const f = among ? among[k] : k;
      const a = old[3 * f];
      const b = old[3 * f + 1];
      const c = old[3 * f + 2];
      const which = (wants(a, b) ? 1 : 0) | (wants(b, c) ? 2 : 0) | (wants(c, a) ? 4 : 0);
      if (which === 0) continue;
      split[count] = f;
      edgesOf[count++] = which;
      more += (which & 1) + ((which >> 1) & 1) + (which >> 2);
    }
    if (more === 0) return null;
    this.#makeRoom(before + more);
    const faces = this.#indices;
    const sources = this.#sources;
    const edges = new EdgeTable(more);
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
      if (sources) sources[last] = sources[from];
      put(last++, a, b, c);
    };
    for (let k = 0; k < count; k++) {
      if (k % CHUNK === 0) await yieldNow();
      const f = split[k];
      const which = edgesOf[k];
      // Turned so that the edge that is halved alone, or the one that is not, comes first.
      const first = which === 1 || which === 6 || which === 7 ? 0 : which === 2 || which === 5 ? 1 : 2;
      const a = faces[3 * f + first];
      const b = faces[3 * f + ((first + 1) % 3)];
      const c = faces[3 * f + ((first + 2) % 3)];
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
    this.#faces = last;
    this.#carry(n, edges);
    return parts;
  }

  /** Makes room for so many faces; what was given in the beginning is left as it is. */
  #makeRoom(faces: number): void {
    if (this.#indices.length >= 3 * faces && this.#indices !== this.first.indices) return;
    const room = Math.max(faces, Math.ceil(1.5 * this.#faces));
    const roomier = (from: Uint32Array, length: number): Uint32Array => {
      const to = new Uint32Array(length);
      to.set(from);
      return to;
    };
    this.#indices = roomier(this.#indices, 3 * room);
    this.#sources &&= roomier(this.#sources, room);
  }

  /** Puts a vertex in the middle of each of some edges. @param n vertices that there are */
  #carry(n: number, edges: EdgeTable): void {
    if (!this.#rows) {
      this.#rows = new Carrier(MESH, this.first, 'vertex', n + edges.count);
      this.#rows.run(0, n, 0);
    } else this.#rows.grow(n + edges.count);
    this.#rows.halfway(edges.ends, edges.count, n);
    const indices = this.#indices.subarray(0, 3 * this.#faces);
    const made: Mesh = { ...this.first, ...this.#rows.result(), indices, parts: null, level: null };
    this.#mesh = this.#sources ? facesFrom(made, this.#sources.subarray(0, this.#faces)) : made;
  }
}
