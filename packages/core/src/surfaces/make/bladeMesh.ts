import { type Mesh, meshWith } from '../../geometry/mesh';
import { at, cross, sub, unit, type Vec3 } from '../../geometry/vec';

/** Where a sheet without width faces. */
const FACE: Vec3 = [0, 0, 1];

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
  const front = sheetOf(shape);
  const facing = facingOf(front, rows, across);
  const n = front.length / 3;
  const positions = new Float32Array(12 * n);
  const normals = new Float32Array(12 * n);
  const u = new Float32Array(4 * n);
  const uvs = new Float32Array(8 * n);
  const half = shape.thick / 2;
  // Two layers of faces, then the same rims once more with normals of their own.
  for (let layer = 0; layer < 4; layer++) {
    const way = layer % 2 === 0 ? 1 : -1;
    for (let k = 0; k < n; k++) {
      const v = layer * n + k;
      for (let c = 0; c < 3; c++) {
        positions[3 * v + c] = front[3 * k + c] + way * half * facing[3 * k + c];
        normals[3 * v + c] = way * facing[3 * k + c];
      }
      u[v] = Math.floor(k / across) / rows;
      uvs[2 * v] = (k % across) / (across - 1);
      uvs[2 * v + 1] = u[v];
    }
  }
  for (let k = 0; k < n; k++) {
    const away = outward(front, k, across);
    normals.set(away, 3 * (2 * n + k));
    normals.set(away, 3 * (3 * n + k));
  }
  return meshWith({ positions, normals, uvs, indices: facesOf(n, rows, across), u });
}

/** Places of the middle of the sheet, row by row, three numbers each. */
function sheetOf(shape: BladeShape): Float64Array {
  const { rows, columns } = shape;
  const places = new Float64Array(3 * (rows + 1) * (2 * columns + 1));
  let write = 0;
  for (let i = 0; i <= rows; i++)
    for (let j = -columns; j <= columns; j++) {
      places.set(placeOn(shape, i / rows, j / columns), write);
      write += 3;
    }
  return places;
}

/** Which way each place of the sheet faces: square to its neighbours along and across. */
function facingOf(front: Float64Array, rows: number, across: number): Float64Array {
  const facing = new Float64Array(front.length);
  for (let i = 0; i <= rows; i++)
    for (let j = 0; j < across; j++) {
      const k = i * across + j;
      const [left, right] = [j > 0 ? k - 1 : k, j < across - 1 ? k + 1 : k];
      const [below, above] = [i > 0 ? k - across : k, i < rows ? k + across : k];
      facing.set(
        unit(cross(sub(at(front, right), at(front, left)), sub(at(front, above), at(front, below))), FACE),
        3 * k,
      );
    }
  return facing;
}

/** Both faces, and the rims all round. @param n places of the sheet */
function facesOf(n: number, rows: number, across: number): Uint32Array {
  const columns = across - 1;
  const indices = new Uint32Array(12 * rows * columns + 12 * (rows + columns));
  let write = 0;
  const face = (a: number, b: number, c: number): void => {
    indices[write++] = a;
    indices[write++] = b;
    indices[write++] = c;
  };
  for (let i = 0; i < rows; i++) {
    for (let j = 0; j < columns; j++) {
      const a = i * across + j;
      const b = a + 1;
      const c = a + across;
      const d = c + 1;
      face(a, b, d);
      face(a, d, c);
      face(n + a, n + d, n + b);
      face(n + a, n + c, n + d);
    }
  }
  const rim = (a: number, b: number): void => {
    face(2 * n + a, 3 * n + b, 2 * n + b);
    face(2 * n + a, 3 * n + a, 3 * n + b);
  };
  for (let j = 0; j < columns; j++) {
    rim(j, j + 1);
    rim(rows * across + j + 1, rows * across + j);
  }
  for (let i = 0; i < rows; i++) {
    rim((i + 1) * across, i * across);
    rim(i * across + columns, (i + 1) * across + columns);
  }
  return indices;
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
function outward(front: Float64Array, k: number, across: number): Vec3 {
  const row = Math.floor(k / across);
  const middle = row * across + (across - 1) / 2;
  if (k === middle) return row === 0 ? [0, -1, 0] : [0, 1, 0];
  return unit(sub(at(front, k), at(front, middle)), [1, 0, 0]);
}
