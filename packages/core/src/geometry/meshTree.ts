import { filled } from './filled';
import { type Mesh } from './mesh';

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
      const [a, b, d] = [0, 1, 2].map((k) => p[3 * indices[3 * t + k] + c]);
      low[3 * t + c] = Math.min(a, b, d);
      high[3 * t + c] = Math.max(a, b, d);
      centres[3 * t + c] = (low[3 * t + c] + high[3 * t + c]) / 2;
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
    const box = tree.boxes.subarray(6 * node, 6 * node + 6);
    box.fill(Infinity, 0, 3);
    box.fill(-Infinity, 3, 6);
    for (let i = a; i < b; i++)
      for (let c = 0; c < 3; c++) {
        box[c] = Math.min(box[c], low[3 * order[i] + c]);
        box[3 + c] = Math.max(box[3 + c], high[3 * order[i] + c]);
      }
    tree.from[node] = a;
    tree.to[node] = b;
    if (b - a <= LEAF) return;
    const widths = [0, 1, 2].map((c) => box[3 + c] - box[c]);
    const axis = widths.indexOf(Math.max(...widths));
    order.subarray(a, b).sort((i, j) => centres[3 * i + axis] - centres[3 * j + axis]);
    const middle = (a + b) >> 1;
    const child = nodes;
    nodes += 2;
    tree.left[node] = child;
    split(child, a, middle);
    split(child + 1, middle, b);
  };
  split(0, 0, n);
  return tree;
}
