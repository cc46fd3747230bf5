import type { Copies } from '../form';
import type { Mesh } from '../mesh';
import { type MeshTree, treeOf } from './meshTree';
import { trianglesCut, triangleGap, type Triangle } from './triangles';
import { type Turn, turnAt, turnedBy } from '../turns';
import { at, byAxis, type Corners, partWay, scale, sub, type Vec3 } from '../vec';
import { type Box, boxAround } from '../box';

/** Where a mesh stands. */
export interface Pose {
  position: Vec3;
  turn: Turn;
  size: Vec3;
}

/** A copy's mesh and where it stands. */
export function poseOf(copies: Copies, k: number): Pose & { mesh: Mesh } {
  return {
    mesh: copies.items[copies.item[k]].mesh,
    position: at(copies.positions, k),
    turn: turnAt(copies.turns, k),
    size: at(copies.sizes, k),
  };
}

/** A mesh in its place, its triangles and boxes found in space when they are asked for. */
class Standing {
  readonly tree: MeshTree;
  readonly #columns: readonly [Vec3, Vec3, Vec3];
  readonly #position: Vec3;
  readonly #triangles = new Map<number, Triangle>();
  readonly #boxes: (HalfBox | undefined)[] = [];
  readonly #triangleBoxes: (HalfBox | undefined)[] = [];

  constructor({ mesh, position, turn, size }: Pose & { mesh: Mesh }) {
    this.tree = treeOf(mesh);
    this.#position = position;
    this.#columns = [turnedBy(turn, [size[0], 0, 0]), turnedBy(turn, [0, size[1], 0]), turnedBy(turn, [0, 0, size[2]])];
  }

  put([x, y, z]: Vec3): Vec3 {
    const [a, b, c] = this.#columns;
    const p = this.#position;
    return [
      p[0] + a[0] * x + b[0] * y + c[0] * z,
      p[1] + a[1] * x + b[1] * y + c[1] * z,
      p[2] + a[2] * x + b[2] * y + c[2] * z,
    ];
  }

  triangle(i: number): Triangle {
    const t = this.tree.order[i];
    let triangle = this.#triangles.get(t);
    if (!triangle) {
      const { positions, indices } = this.tree.mesh;
      triangle = [0, 1, 2].map((k) => this.put(at(positions, indices[3 * t + k]))) as unknown as Triangle;
      this.#triangles.set(t, triangle);
    }
    return triangle;
  }

  /** Middle and half widths, along the world's axes, of a node's box in its place. */
  box(node: number): HalfBox {
    return (this.#boxes[node] ??= this.#boxOf(node));
  }

  /** The same of a triangle. */
  triangleBox(i: number): HalfBox {
    return (this.#triangleBoxes[i] ??= boxOfTriangle(this.triangle(i)));
  }

  #boxOf(node: number): HalfBox {
    const b = this.tree.boxes.subarray(6 * node, 6 * node + 6);
    const middle = this.put([(b[0] + b[3]) / 2, (b[1] + b[4]) / 2, (b[2] + b[5]) / 2]);
    const h = [(b[3] - b[0]) / 2, (b[4] - b[1]) / 2, (b[5] - b[2]) / 2];
    const half = byAxis((c) => this.#columns.reduce((sum, column, k) => sum + Math.abs(column[c]) * h[k], 0));
    return { middle, half };
  }
}

/** Middle and half widths along the world's axes. */
interface HalfBox {
  middle: Vec3;
  half: Vec3;
}

function boxOfTriangle([a, b, c]: Triangle): HalfBox {
  const low = byAxis((k) => Math.min(a[k], b[k], c[k]));
  const high = byAxis((k) => Math.max(a[k], b[k], c[k]));
  return { middle: partWay(low, high, 0.5), half: scale(sub(high, low), 0.5) };
}

/** Squared distance between two boxes. */
const apart = (a: HalfBox, b: HalfBox): number => {
  let sum = 0;
  for (let c = 0; c < 3; c++) {
    const d = Math.abs(a.middle[c] - b.middle[c]) - a.half[c] - b.half[c];
    if (d > 0) sum += d * d;
  }
  return sum;
};

/**
 * Walks both trees together.
 * @param near whether boxes so far apart (squared metres) are worth opening
 * @param meet told pairs of triangles; true ends the walk
 */
function walk(
  a: Standing,
  b: Standing,
  near: (gap: number) => boolean,
  meet: (p: Triangle, q: Triangle) => boolean,
): void {
  const stack: [number, number, number][] = [[0, 0, apart(a.box(0), b.box(0))]];
  while (stack.length > 0) {
    const [m, n, gap] = stack.pop()!;
    if (!near(gap)) continue;
    const [left, right] = [a.tree.left[m], b.tree.left[n]];
    if (left < 0 && right < 0) {
      const there = b.box(n);
      for (let i = a.tree.from[m]; i < a.tree.to[m]; i++) {
        const box = a.triangleBox(i);
        if (!near(apart(box, there))) continue;
        for (let j = b.tree.from[n]; j < b.tree.to[n]; j++)
          if (near(apart(box, b.triangleBox(j))) && meet(a.triangle(i), b.triangle(j))) return;
      }
      continue;
    }
    const opensA = right < 0 || (left >= 0 && a.tree.to[m] - a.tree.from[m] >= b.tree.to[n] - b.tree.from[n]);
    const pairs: [number, number][] = opensA
      ? [
          [left, n],
          [left + 1, n],
        ]
      : [
          [m, right],
          [m, right + 1],
        ];
    // The nearer pair is looked at first: it is put on the stack last.
    const found = pairs.map(([p, q]): [number, number, number] => [p, q, apart(a.box(p), b.box(q))]);
    stack.push(...found.sort((p, q) => q[2] - p[2]));
  }
}

type Placed = Pose & { mesh: Mesh };

/** Whether the surfaces of two meshes cut each other. */
export function meshesCut(a: Placed, b: Placed): boolean {
  let cut = false;
  walk(
    new Standing(a),
    new Standing(b),
    (gap) => gap === 0,
    (p, q) => (cut = trianglesCut(p, q)),
  );
  return cut;
}

/** Least distance between the surfaces of two meshes that do not cut each other, metres. */
export function meshGap(a: Placed, b: Placed): number {
  let least = Infinity;
  walk(
    new Standing(a),
    new Standing(b),
    (gap) => gap < least,
    (p, q) => {
      least = Math.min(least, triangleGap(p, q));
      return least === 0;
    },
  );
  return Math.sqrt(least);
}

/**
 * How well two meshes go beside each other: the gap between them, or below 0 how far the second must move along a
 * direction, one way or the other (links that hang in each other come free towards each other), until they no longer cut.
 * Metres.
 */
export function clearanceOf(a: Placed, b: Placed, along: Vec3): number {
  if (!meshesCut(a, b)) return meshGap(a, b);
  const reach = 2 * (reachOf(a) + reachOf(b));
  const cutAt = (by: number): boolean => meshesCut(a, { ...b, position: byAxis((c) => b.position[c] + along[c] * by) });
  for (let by = reach / 65536; by < 2 * reach; by *= 2) {
    const way = [1, -1].find((sign) => !cutAt(sign * by));
    if (way === undefined) continue;
    let [low, high] = [by / 2, by];
    for (let round = 0; round < 12; round++) {
      const middle = (low + high) / 2;
      if (cutAt(way * middle)) low = middle;
      else high = middle;
    }
    return -high;
  }
  return -reach;
}

function reachOf({ mesh, size }: Placed): number {
  const box = treeOf(mesh).boxes.subarray(0, 6);
  return Math.hypot(...[0, 1, 2].map((c) => Math.max(Math.abs(box[c]), Math.abs(box[3 + c])) * size[c]));
}

/** A box that stands anyhow: its middle, its axes, and its half widths along them. */
export interface OrientedBox {
  middle: Vec3;
  axes: readonly [Vec3, Vec3, Vec3];
  half: Vec3;
}

/** Boxes of meshes, by their places. */
const boxes = new WeakMap<Float32Array, Box>();

/** The box round a mesh, made once. */
export function boxOf({ positions }: Mesh): Box {
  let box = boxes.get(positions);
  if (!box) boxes.set(positions, (box = boxAround(positions)));
  return box;
}

/** The box of a mesh in its place, wider by a margin on every side. */
export const orientedBox = (placed: Placed, margin = 0): OrientedBox => {
  const { low, high } = boxOf(placed.mesh);
  return standingBox({ min: low, max: high }, placed, margin);
};

/** The same of a box along its own axes. */
export function standingBox({ min, max }: Corners, { position, turn, size }: Pose, margin = 0): OrientedBox {
  const local: Vec3 = byAxis((c) => ((min[c] + max[c]) / 2) * size[c]);
  const [x, y, z] = turnedBy(turn, local);
  return {
    middle: [position[0] + x, position[1] + y, position[2] + z],
    axes: [turnedBy(turn, [1, 0, 0]), turnedBy(turn, [0, 1, 0]), turnedBy(turn, [0, 0, 1])],
    half: byAxis((c) => ((max[c] - min[c]) / 2) * size[c] + margin),
  };
}

const { abs, sqrt } = Math;
const NEXT = [1, 2, 0];
/** The way between two boxes along the first one's axes, the cosines between the axes of both, and their sizes. */
const TO = new Float64Array(3);
const ALONG = new Float64Array(9);
const SIZE = new Float64Array(9);

/** Whether two boxes meet, by their fifteen separating axes (Gottschalk, Lin and Manocha, OBBTree, SIGGRAPH 1996). */
export function boxesMeet(a: OrientedBox, b: OrientedBox): boolean {
  const bx = b.middle[0] - a.middle[0];
  const by = b.middle[1] - a.middle[1];
  const bz = b.middle[2] - a.middle[2];
  // Most lie further apart than their corners reach.
  const ra2 = a.half[0] * a.half[0] + a.half[1] * a.half[1] + a.half[2] * a.half[2];
  const rb2 = b.half[0] * b.half[0] + b.half[1] * b.half[1] + b.half[2] * b.half[2];
  if (bx * bx + by * by + bz * bz > (1 + 1e-6) * (ra2 + rb2 + 2 * sqrt(ra2 * rb2))) return false;
  for (let i = 0; i < 3; i++) {
    const x = a.axes[i];
    TO[i] = bx * x[0] + by * x[1] + bz * x[2];
    for (let j = 0; j < 3; j++) {
      const y = b.axes[j];
      const along = x[0] * y[0] + x[1] * y[1] + x[2] * y[2];
      ALONG[3 * i + j] = along;
      SIZE[3 * i + j] = abs(along) + 1e-9;
    }
  }
  for (let i = 0; i < 3; i++) {
    const reachA = SIZE[3 * i] * b.half[0] + SIZE[3 * i + 1] * b.half[1] + SIZE[3 * i + 2] * b.half[2];
    if (abs(TO[i]) > a.half[i] + reachA) return false;
    const y = b.axes[i];
    const reachB = SIZE[i] * a.half[0] + SIZE[3 + i] * a.half[1] + SIZE[6 + i] * a.half[2];
    if (abs(bx * y[0] + by * y[1] + bz * y[2]) > b.half[i] + reachB) return false;
  }
  for (let i = 0; i < 3; i++) {
    const i1 = NEXT[i];
    const i2 = NEXT[i1];
    for (let j = 0; j < 3; j++) {
      const j1 = NEXT[j];
      const j2 = NEXT[j1];
      const ra = a.half[i1] * SIZE[3 * i2 + j] + a.half[i2] * SIZE[3 * i1 + j];
      const rb = b.half[j1] * SIZE[3 * i + j2] + b.half[j2] * SIZE[3 * i + j1];
      if (abs(TO[i2] * ALONG[3 * i1 + j] - TO[i1] * ALONG[3 * i2 + j]) > ra + rb) return false;
    }
  }
  return true;
}
