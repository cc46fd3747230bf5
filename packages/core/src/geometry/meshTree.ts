import { filled } from './filled';
import type { Mesh } from './mesh';

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
  let own = trees.get(mesh.indices);
  if (!own) trees.set(mesh.indices, (own = new WeakMap()));
  let tree = own.get(mesh.positions);
  if (!tree) own.set(mesh.positions, (tree = build(mesh)));
  return tree;
}

function build(mesh: Mesh): MeshTree {
  const { positions: p, indices } = mesh;
  const n = indices.length / 3;
  const order = filled(Uint32Array, n, (i) => i);
  const centres = new Float64Array(3 * n);
  const low = new Float64Array(3 * n);
  const high = new Float64Array(3 * n);
  for (let t = 0; t < n; t++)
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
  const room = Math.max(1, 2 * n);
  const tree: MeshTree = {
    mesh,
    boxes: new Float64Array(6 * room),
    left: new Int32Array(room).fill(-1),
    from: new Uint32Array(room),
    to: new Uint32Array(room),
    order,
  };
  let nodes = 1;
  const split = (node: number, a: number, b: number): void => {
    const { boxes } = tree;
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
    tree.from[node] = a;
    tree.to[node] = b;
    if (b - a <= LEAF) return;
    const x = boxes[box + 3] - boxes[box];
    const y = boxes[box + 4] - boxes[box + 1];
    const z = boxes[box + 5] - boxes[box + 2];
    const middle = (a + b) >> 1;
    parted(order, centres, x >= y && x >= z ? 0 : y >= z ? 1 : 2, a, b, middle);
    const child = nodes;
    nodes += 2;
    tree.left[node] = child;
    split(child, a, middle);
    split(child + 1, middle, b);
  };
  split(0, 0, n);
  return tree;
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
