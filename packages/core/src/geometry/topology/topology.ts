import type { Mesh } from '../mesh';
import { EdgeTable, weld, type Weld, weldInTime } from './weld';

/** What counting the parts of a mesh tells about its shape. */
export interface TopologyCounts {
  vertices: number;
  edges: number;
  faces: number;
  /** Edges that do not lie in exactly two faces: 0 on a watertight mesh. */
  openEdges: number;
  /** Edges that two faces run along in the same direction: 0 where no face is inside out. */
  flippedEdges: number;
  /** vertices − edges + faces: 2 for a ball, 0 for a torus. */
  euler: number;
}

/** Edges over welded places. */
export interface TopologyEdges {
  count: number;
  /** Both places of each edge, the smaller number first. */
  ends: Uint32Array;
  /** How many faces run along it from the smaller to the larger place, and how many back. */
  there: Uint8Array;
  back: Uint8Array;
  /** First and second face at it, by their place among `corners`; only the first where it is open. */
  left: Uint32Array;
  right: Uint32Array;
  /** The edge of each corner: from it to the next corner of its face. */
  of: Uint32Array;
}

/** Which places are joined to each place by an edge: those of place i are `others[starts[i]]` up to `others[starts[i + 1]]`. */
export interface Neighbours {
  starts: Uint32Array;
  others: Uint32Array;
}

/** Which corners of the mesh's own faces lie at each place: those of place i are `corners[starts[i]]` up to `corners[starts[i + 1]]`. */
export interface Fans {
  starts: Uint32Array;
  corners: Uint32Array;
}

/**
 * How a mesh hangs together, vertices at one place taken as one (texture seams and hard edges double them), faces with two
 * corners at one place left out. Each part is made when it is first asked for.
 */
export class Topology {
  readonly weld: Weld;
  /** Places of the faces' corners, three a face. */
  readonly corners: Uint32Array;
  /** Which of the mesh's own faces each of these is. */
  readonly faces: Uint32Array;
  /** Vertices of the mesh's own faces. */
  readonly indices: Uint32Array;
  #edges: TopologyEdges | null = null;
  #neighbours: Neighbours | null = null;
  #fans: Fans | null = null;

  /** @param weld the mesh's vertices taken as one */
  constructor({ indices }: Pick<Mesh, 'indices'>, weld: Weld) {
    this.weld = weld;
    this.indices = indices;
    const { of } = weld;
    const corners = new Uint32Array(indices.length);
    const faces = new Uint32Array(indices.length / 3);
    let write = 0;
    for (let i = 0; i < indices.length; i += 3) {
      const a = of[indices[i]];
      const b = of[indices[i + 1]];
      const c = of[indices[i + 2]];
      if (a === b || b === c || c === a) continue;
      corners[write] = a;
      corners[write + 1] = b;
      corners[write + 2] = c;
      faces[write / 3] = i / 3;
      write += 3;
    }
    this.corners = corners.subarray(0, write);
    this.faces = faces.subarray(0, write / 3);
  }

  get edges(): TopologyEdges {
    if (!this.#edges) {
      const joining = new Joining(this.corners);
      joining.take(this.corners.length);
      this.#edges = joining.done();
    }
    return this.#edges;
  }

  /** Finds the edges with yields in between, for large meshes. */
  async findEdges(yieldNow: () => Promise<void>): Promise<TopologyEdges> {
    if (!this.#edges) {
      const joining = new Joining(this.corners);
      for (let end = 0; end < this.corners.length;) {
        await yieldNow();
        joining.take((end = Math.min(this.corners.length, end + PIECE)));
      }
      this.#edges = joining.done();
    }
    return this.#edges;
  }

  get neighbours(): Neighbours {
    return (this.#neighbours ??= neighboursOf(this.weld.first.length, this.edges));
  }

  /** Finds the corners at each place with yields in between. */
  async findFans(yieldNow: () => Promise<void>): Promise<Fans> {
    if (this.#fans) return this.#fans;
    const { indices } = this;
    const { of, first } = this.weld;
    const starts = new Uint32Array(first.length + 1);
    for (let c = 0; c < indices.length; c++) starts[of[indices[c]] + 1]++;
    for (let i = 0; i < first.length; i++) starts[i + 1] += starts[i];
    await yieldNow();
    const corners = new Uint32Array(indices.length);
    const filled = starts.slice();
    for (let c = 0; c < indices.length; c++) {
      if (c % PIECE === 0) await yieldNow();
      corners[filled[of[indices[c]]]++] = c;
    }
    return (this.#fans = { starts, corners });
  }

  get counts(): TopologyCounts {
    const { count, there, back } = this.edges;
    const used = new Set(this.corners);
    let [openEdges, flippedEdges] = [0, 0];
    for (let e = 0; e < count; e++) {
      if (there[e] + back[e] !== 2) openEdges++;
      flippedEdges += (there[e] > 1 ? 1 : 0) + (back[e] > 1 ? 1 : 0);
    }
    const [vertices, faces] = [used.size, this.corners.length / 3];
    return { vertices, edges: count, faces, openEdges, flippedEdges, euler: vertices - count + faces };
  }
}

/** What is known of an array of indices: the topology with each array of positions, and the one that was made last. */
interface Known {
  byPositions: WeakMap<Float32Array, Topology>;
  last: Topology | null;
}

const known = new WeakMap<Uint32Array, Known>();
/** So many corners between two yields: some milliseconds. */
const PIECE = 3 << 13;

/** What is known of a mesh's topology; `make` where nothing is. */
function remembered({ positions, indices }: Pick<Mesh, 'positions' | 'indices'>, make: Weld | null): Topology | null {
  let own = known.get(indices);
  if (!own) known.set(indices, (own = { byPositions: new WeakMap(), last: null }));
  const topology = own.byPositions.get(positions);
  if (topology || !make) return topology ?? null;
  // What moves keeps its topology, as long as the same vertices lie together.
  const made = own.last && isSame(own.last.weld.of, make.of) ? own.last : new Topology({ indices }, make);
  own.byPositions.set(positions, made);
  return (own.last = made);
}

function isSame(a: Uint32Array, b: Uint32Array): boolean {
  if (a.length !== b.length) return false;
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false;
  return true;
}

/**
 * The topology of a mesh, made once for its arrays of indices and positions: what is welded hangs on both, so that what one
 * frame has made says nothing wrong about another. Where the same is welded it is the same: nothing about places may be kept by it.
 */
export function topologyOf(mesh: Pick<Mesh, 'positions' | 'indices'>): Topology {
  return remembered(mesh, null) ?? remembered(mesh, weld(mesh))!;
}

/** Says that a mesh which was moved, turned or scaled as a whole has the topology that it had: what is known of it holds on. */
export function keepTopology(before: Pick<Mesh, 'positions' | 'indices'>, positions: Mesh['positions']): void {
  const topology = remembered(before, null);
  if (topology) known.get(before.indices)!.byPositions.set(positions, topology);
}

/** The same with yields while it is made: a million vertices take half a second. */
export async function topologyInTime(
  mesh: Pick<Mesh, 'positions' | 'indices'>,
  yieldNow: () => Promise<void>,
): Promise<Topology> {
  return remembered(mesh, null) ?? remembered(mesh, await weldInTime(mesh, yieldNow))!;
}

/** Counts vertices, edges and faces, and tells whether the mesh is closed and all of it looks outwards. */
export const topologyCounts = (mesh: Pick<Mesh, 'positions' | 'indices'>): TopologyCounts => topologyOf(mesh).counts;

/** Finds edges piece by piece. */
class Joining {
  readonly #table: EdgeTable;
  readonly #made: Omit<TopologyEdges, 'count' | 'ends'>;
  #taken = 0;

  constructor(readonly corners: Uint32Array) {
    const most = corners.length;
    this.#table = new EdgeTable(most);
    this.#made = {
      there: new Uint8Array(most),
      back: new Uint8Array(most),
      left: new Uint32Array(most),
      right: new Uint32Array(most),
      of: new Uint32Array(most),
    };
  }

  /** Takes the next corners, up to number `end`, which ends a face. */
  take(end: number): void {
    const { corners } = this;
    const { there, back, left, right, of } = this.#made;
    for (let c = this.#taken; c < end; c++) {
      const a = corners[c];
      const b = corners[c % 3 === 2 ? c - 2 : c + 1];
      const e = this.#table.idOf(a, b);
      of[c] = e;
      const met = there[e] + back[e];
      if (met === 0) left[e] = (c / 3) | 0;
      else if (met === 1) right[e] = (c / 3) | 0;
      const way = a < b ? there : back;
      if (way[e] < 255) way[e]++;
    }
    this.#taken = end;
  }

  done(): TopologyEdges {
    const { count, ends } = this.#table;
    return { count, ends: ends.subarray(0, 2 * count), ...this.#made };
  }
}

function neighboursOf(places: number, { count, ends }: TopologyEdges): Neighbours {
  const starts = new Uint32Array(places + 1);
  for (let i = 0; i < 2 * count; i++) starts[ends[i] + 1]++;
  for (let i = 0; i < places; i++) starts[i + 1] += starts[i];
  const others = new Uint32Array(2 * count);
  const filled = starts.slice();
  for (let e = 0; e < count; e++) {
    others[filled[ends[2 * e]]++] = ends[2 * e + 1];
    others[filled[ends[2 * e + 1]]++] = ends[2 * e];
  }
  return { starts, others };
}
