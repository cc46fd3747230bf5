import { filled } from '../filled';
import type { Mesh } from '../mesh';

const { max, min } = Math;

/** Triangles of a leaf at most. */
const LEAF = 6;

/**
 * A binary tree of boxes over the triangles of a mesh, in flat arrays: node k has its box at 6k; leaves have their
 * triangles at `from[k]` up to `to[k]` in `order`, others their children at `left[k]` and `left[k] + 1`.
 */
export interface MeshTree {
  mesh: Mesh;
  boxes: Float64Array;
  left: Int32Array;
  from: Uint32Array;
  to: Uint32Array;
  order: Uint32Array;
}

const trees = new WeakMap<Uint32Array, WeakMap<Float32Array, MeshTree>>();

/** The tree of a mesh, made once for its places and faces: meshes that differ in their colours alone share it. */
export function treeOf(mesh: Mesh): MeshTree {
  const known = knownTree(mesh);
  if (known) return known;
  const building = new Building(mesh);
  while (building.goOn());
  return keep(mesh, building.tree);
}

/** The same with yields while it is made, so that what asks for it later has it at hand: 100,000 faces take a tenth of a second. */
export async function treeInTime(mesh: Mesh, yieldNow: () => Promise<void>): Promise<MeshTree> {
  const known = knownTree(mesh);
  if (known) return known;
  await yieldNow();
  const building = new Building(mesh);
  do await yieldNow();
  while (building.goOn());
  return keep(mesh, building.tree);
}

const knownTree = ({ indices, positions }: Mesh): MeshTree | undefined => trees.get(indices)?.get(positions);

function keep({ indices, positions }: Mesh, tree: MeshTree): MeshTree {
  let own = trees.get(indices);
  if (!own) trees.set(indices, (own = new WeakMap()));
  own.set(positions, tree);
  return tree;
}

/** So many triangles are looked at between two yields: some milliseconds. */
const PIECE = 1 << 15;

/** Makes a tree piece by piece. */
class Building {
  readonly tree: MeshTree;
  readonly #centres: Float64Array;
  readonly #low: Float64Array;
  readonly #high: Float64Array;
  /** Triangles whose boxes are known. */
  #boxed = 0;
  #nodes = 1;
  /** Nodes that have yet to be made, with the first of their triangles and one past the last. */
  readonly #waiting: number[];

  constructor(mesh: Mesh) {
    const n = mesh.indices.length / 3;
    this.#centres = new Float64Array(3 * n);
    this.#low = new Float64Array(3 * n);
    this.#high = new Float64Array(3 * n);
    const room = Math.max(1, 2 * n);
    this.tree = {
      mesh,
      boxes: new Float64Array(6 * room),
      left: new Int32Array(room).fill(-1),
      from: new Uint32Array(room),
      to: new Uint32Array(room),
      order: filled(Uint32Array, n, (i) => i),
    };
    this.#waiting = [0, 0, n];
  }

  /** Works for some milliseconds. @returns whether more is left */
  goOn(): boolean {
    const n = this.tree.order.length;
    if (this.#boxed < n) this.#box(Math.min(n, this.#boxed + PIECE));
    else for (let looked = 0; looked < PIECE && this.#waiting.length > 0;) looked += this.#split();
    return this.#boxed < n || this.#waiting.length > 0;
  }

  /** Finds the boxes of the triangles up to number `end`. */
  #box(end: number): void {
    const { positions: p, indices } = this.tree.mesh;
    const centres = this.#centres;
    const low = this.#low;
    const high = this.#high;
    for (let t = this.#boxed; t < end; t++)
      for (let c = 0; c < 3; c++) {
        const a = p[3 * indices[3 * t] + c];
        const b = p[3 * indices[3 * t + 1] + c];
        const d = p[3 * indices[3 * t + 2] + c];
        const least = min(a, b, d);
        const most = max(a, b, d);
        low[3 * t + c] = least;
        high[3 * t + c] = most;
        centres[3 * t + c] = (least + most) / 2;
      }
    this.#boxed = end;
  }

  /** Makes the node that waits last. @returns how many triangles it has */
  #split(): number {
    const { boxes, order, from, to, left } = this.tree;
    const low = this.#low;
    const high = this.#high;
    const waiting = this.#waiting;
    const b = waiting.pop()!;
    const a = waiting.pop()!;
    const node = waiting.pop()!;
    const box = 6 * node;
    for (let c = 0; c < 3; c++) {
      let least = Infinity;
      let most = -Infinity;
      for (let i = a; i < b; i++) {
        const t = 3 * order[i] + c;
        if (low[t] < least) least = low[t];
        if (high[t] > most) most = high[t];
      }
      boxes[box + c] = least;
      boxes[box + 3 + c] = most;
    }
    from[node] = a;
    to[node] = b;
    if (b - a <= LEAF) return b - a;
    const x = boxes[box + 3] - boxes[box];
    const y = boxes[box + 4] - boxes[box + 1];
    const z = boxes[box + 5] - boxes[box + 2];
    const middle = (a + b) >> 1;
    parted(order, this.#centres, x >= y && x >= z ? 0 : y >= z ? 1 : 2, a, b, middle);
    const child = this.#nodes;
    this.#nodes += 2;
    left[node] = child;
    // The first half is made first.
    waiting.push(child + 1, middle, b, child, a, middle);
    return b - a;
  }
}

/**
 * Orders triangles `a` up to `b` so that none before the middle lies beyond one after it along an axis (quickselect: Hoare,
 * Algorithm 65: Find, Communications of the ACM 4, 1961).
 */
function parted(order: Uint32Array, centres: Float64Array, axis: number, a: number, b: number, middle: number): void {
  let low = a;
  let high = b - 1;
  while (low < high) {
    const pivot = centres[3 * order[(low + high) >> 1] + axis];
    let i = low;
    let j = high;
    while (i <= j) {
      while (centres[3 * order[i] + axis] < pivot) i++;
      while (centres[3 * order[j] + axis] > pivot) j--;
      if (i > j) break;
      const swapped = order[i];
      order[i++] = order[j];
      order[j--] = swapped;
    }
    if (middle <= j) high = j;
    else if (middle >= i) low = i;
    else return;
  }
}
