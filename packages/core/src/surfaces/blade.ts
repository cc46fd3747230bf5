import { type Mesh, meshWith } from '../geometry/mesh';
import { cross, sub, unit, type Vec3 } from '../geometry/vec';

/** A leaf or petal. */
export interface BladeShape {
  /** From foot to tip, stalk included, metres. */
  length: number;
  /** Largest width, metres. */
  width: number;
  /** Factor on the width from the foot of the blade to its tip, 0..1. */
  outline: (along: number) => number;
  /** Share of the length that is stalk. */
  stalk: number;
  /** Angle by which each half is raised about the midline, radians. */
  fold: number;
  /** How far the edges rise above the middle, as a share of the half width. */
  cup: number;
  /** Angle by which the tip hangs over against the foot, radians. */
  droop: number;
  /** From face to face, metres. */
  thick: number;
  /** Pieces along, and across each half. */
  rows: number;
  columns: number;
}

/**
 * A blade from the origin upwards, its face towards +Z: a closed sheet of even thickness. The midline bends as an arc,
 * and keeps its length.
 */
export function blade(shape: BladeShape): Mesh {
  const { rows, columns } = shape;
  const across = 2 * columns + 1;
  const front: Vec3[] = [];
  for (let i = 0; i <= rows; i++)
    for (let j = -columns; j <= columns; j++) front.push(placeOn(shape, i / rows, j / columns));
  const normals = front.map((_, k) => {
    const [i, j] = [Math.floor(k / across), k % across];
    const at = (row: number, column: number): Vec3 =>
      front[Math.min(rows, Math.max(0, row)) * across + Math.min(across - 1, Math.max(0, column))];
    return unit(cross(sub(at(i, j + 1), at(i, j - 1)), sub(at(i + 1, j), at(i - 1, j))), [0, 0, 1]);
  });
  const n = front.length;
  const positions = new Float32Array(12 * n);
  const all = new Float32Array(12 * n);
  const u = new Float32Array(4 * n);
  const uvs = new Float32Array(8 * n);
  // Two layers of faces, then the same rims once more with normals of their own.
  for (let layer = 0; layer < 4; layer++) {
    const way = layer % 2 === 0 ? 1 : -1;
    front.forEach((point, k) => {
      const v = layer * n + k;
      const half = (way * shape.thick) / 2;
      positions.set(
        [0, 1, 2].map((c) => point[c] + half * normals[k][c]),
        3 * v,
      );
      all.set(layer < 2 ? normals[k].map((x) => way * x) : outward(front, k, across, rows), 3 * v);
      u[v] = Math.floor(k / across) / rows;
      uvs.set([(k % across) / (across - 1), u[v]], 2 * v);
    });
  }
  const indices: number[] = [];
  for (let i = 0; i < rows; i++) {
    for (let j = 0; j < across - 1; j++) {
      const [a, b, c, d] = [i * across + j, i * across + j + 1, (i + 1) * across + j, (i + 1) * across + j + 1];
      indices.push(a, b, d, a, d, c);
      indices.push(n + a, n + d, n + b, n + a, n + c, n + d);
    }
  }
  const rim = (a: number, b: number): void =>
    void indices.push(2 * n + a, 3 * n + b, 2 * n + b, 2 * n + a, 3 * n + a, 3 * n + b);
  for (let j = 0; j < across - 1; j++) {
    rim(j, j + 1);
    rim(rows * across + j + 1, rows * across + j);
  }
  for (let i = 0; i < rows; i++) {
    rim((i + 1) * across, i * across);
    rim(i * across + across - 1, (i + 1) * across + across - 1);
  }
  return meshWith({
    positions,
    normals: all,
    uvs,
    indices: Uint32Array.from(indices),
    u,
  });
}

/** A point of the sheet: `v` from foot to tip, `s` from −1 to 1 across. */
function placeOn({ length, width, outline, stalk, fold, cup, droop }: BladeShape, v: number, s: number): Vec3 {
  const along = stalk < 1 ? Math.max(0, (v - stalk) / (1 - stalk)) : 0;
  // The stalk is a twentieth as broad as the blade, and the tip never quite a point: faces keep some area.
  const half = (width / 2) * Math.max(0.05 * (1 - along), v >= stalk ? outline(along) : 0, 0.004);
  const x = half * s * Math.cos(fold);
  const rise = half * (Math.abs(s) * Math.sin(fold) + cup * s * s);
  const angle = droop * v;
  const [y, z] =
    Math.abs(droop) > 1e-6
      ? [(length / droop) * Math.sin(angle), (-length / droop) * (1 - Math.cos(angle))]
      : [length * v, 0];
  // What rises does so square to the midline.
  return [x, y + rise * Math.sin(angle), z + rise * Math.cos(angle)];
}

/** Away from the sheet's middle, in its own plane. */
function outward(front: readonly Vec3[], k: number, across: number, rows: number): Vec3 {
  const [i, j] = [Math.floor(k / across), k % across];
  const row = Math.min(rows, Math.max(0, i));
  const middle = front[row * across + (across - 1) / 2];
  if (j === (across - 1) / 2) return i === 0 ? [0, -1, 0] : [0, 1, 0];
  return unit(sub(front[k], middle), [1, 0, 0]);
}
