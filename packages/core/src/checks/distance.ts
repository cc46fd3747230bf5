import { wholeMesh } from '../geometry/copies';
import type { Form } from '../geometry/form';
import { poseOf } from '../geometry/search/meshPairs';
import { turnedBy } from '../geometry/turns';
import type { Vec3 } from '../geometry/vec';
import { boxAround, sidesOf } from '../geometry/box';

/** Vertices past which copies are judged by their places and axes alone. */
const MANY = 400_000;

/** The points that a form is judged by: the vertices of its mesh and of its copies, else its paths' points. */
export function pointsOf(form: Form | null): Float32Array {
  if (!form) return new Float32Array();
  const { mesh, copies, paths } = form;
  if (!copies) return mesh?.positions ?? paths?.positions ?? new Float32Array();
  const vertices = copies.item.reduce((sum, i) => sum + copies.items[i].mesh.positions.length / 3, 0);
  if (vertices <= MANY) return wholeMesh(form)?.positions ?? new Float32Array();
  const points = new Float32Array(12 * copies.ids.length);
  for (let k = 0; k < copies.ids.length; k++) {
    const { position, turn, size } = poseOf(copies, k);
    const ends: Vec3[] = [
      [0, 0, 0],
      [size[0], 0, 0],
      [0, size[1], 0],
      [0, 0, size[2]],
    ];
    ends.forEach((end, i) => {
      const [x, y, z] = turnedBy(turn, end);
      points.set([position[0] + x, position[1] + y, position[2] + z], 12 * k + 3 * i);
    });
  }
  return points;
}

/**
 * How far two sets of points are from each other at most: the Hausdorff distance, each point against the nearest of the
 * other set. A form that has turned onto itself by its own symmetry has distance 0, whatever its points are called.
 * @param a,b xyz triples, metres
 * @returns metres; 0 for two empty sets, Infinity when only one is empty
 */
export function setDistance(a: Float32Array, b: Float32Array): number {
  if (a.length === 0 || b.length === 0) return a.length === b.length ? 0 : Infinity;
  if (a.length === b.length) {
    // Point by point is an upper bound, and nearly always the answer.
    let worst = 0;
    for (let i = 0; i < a.length; i += 3) worst = Math.max(worst, squared(a, i, b, i));
    if (worst < 1e-12) return Math.sqrt(worst);
  }
  return Math.sqrt(Math.max(oneWay(a, new Grid(b)), oneWay(b, new Grid(a))));
}

function oneWay(from: Float32Array, grid: Grid): number {
  let worst = 0;
  for (let i = 0; i < from.length; i += 3) worst = Math.max(worst, grid.nearest(from, i, worst));
  return worst;
}

function squared(a: Float32Array, i: number, b: Float32Array, j: number): number {
  const x = a[i] - b[j];
  const y = a[i + 1] - b[j + 1];
  const z = a[i + 2] - b[j + 2];
  return x * x + y * y + z * z;
}

/** Points in cubic cells, about two to a cell, for finding the nearest one. */
class Grid {
  readonly #cells = new Map<number, number[]>();
  readonly #low: Vec3;
  readonly #cell: number;
  readonly #reach: number;

  constructor(readonly points: Float32Array) {
    const box = boxAround(points);
    this.#low = box.low;
    const size = Math.max(1e-9, ...sidesOf(box));
    // Vertices lie on surfaces: cells by the square root of their number, not the cube root.
    this.#cell = size / Math.max(1, Math.min(500, Math.sqrt(points.length / 6)));
    this.#reach = Math.ceil(size / this.#cell) + 1;
    for (let i = 0; i < points.length; i += 3) {
      const key = this.#key(this.#at(points[i], 0), this.#at(points[i + 1], 1), this.#at(points[i + 2], 2));
      const cell = this.#cells.get(key);
      if (cell) cell.push(i);
      else this.#cells.set(key, [i]);
    }
  }

  /** Squared distance to the nearest point; gives up early below `enough`, which is then returned or undercut. */
  nearest(from: Float32Array, i: number, enough: number): number {
    const [cx, cy, cz] = [this.#at(from[i], 0), this.#at(from[i + 1], 1), this.#at(from[i + 2], 2)];
    let best = Infinity;
    for (let ring = 0; ring <= this.#reach + 600; ring++) {
      // Nothing in this ring can be nearer than its inner side.
      const inner = Math.max(0, ring - 1) * this.#cell;
      if (best <= inner * inner || best <= enough) return best;
      for (let x = cx - ring; x <= cx + ring; x++) {
        for (let y = cy - ring; y <= cy + ring; y++) {
          const shell = Math.abs(x - cx) === ring || Math.abs(y - cy) === ring;
          for (let z = cz - ring; z <= cz + ring; z += shell || ring === 0 ? 1 : 2 * ring) {
            for (const j of this.#cells.get(this.#key(x, y, z)) ?? [])
              best = Math.min(best, squared(from, i, this.points, j));
          }
        }
      }
      if (ring > 12 && best === Infinity) return this.#everyPoint(from, i);
    }
    return best;
  }

  /** Far from everything the cells are no help. */
  #everyPoint(from: Float32Array, i: number): number {
    let best = Infinity;
    for (let j = 0; j < this.points.length; j += 3) best = Math.min(best, squared(from, i, this.points, j));
    return best;
  }

  #at(value: number, axis: number): number {
    return Math.max(-1000, Math.min(3000, Math.floor((value - this.#low[axis]) / this.#cell)));
  }

  #key(x: number, y: number, z: number): number {
    return ((x + 2000) * 8192 + (y + 2000)) * 8192 + (z + 2000);
  }
}
