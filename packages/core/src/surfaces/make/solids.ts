import { filled } from '../../geometry/filled';
import { type Mesh, meshWith } from '../../geometry/mesh';
import { pathsFrom } from '../../geometry/paths';
import { cross, scale, sub, unit, type Vec3 } from '../../geometry/vec';
import { sweepTubes } from '../sweep/sweepTubes';

/** A point of an outline that is turned about the Y axis; `hard` keeps an edge there. */
export interface TurnedPoint {
  r: number;
  y: number;
  hard?: boolean;
}

/** A mesh of vertices that know how high on the solid they stand, 0..1: gradients run upwards. */
function meshOf(positions: Float32Array, normals: Float32Array, uvs: Float32Array, indices: Uint32Array): Mesh {
  let low = Infinity;
  let high = -Infinity;
  for (let i = 1; i < positions.length; i += 3) {
    low = Math.min(low, positions[i]);
    high = Math.max(high, positions[i]);
  }
  const height = high - low;
  return meshWith({
    positions,
    normals,
    uvs,
    indices,
    u: filled(Float32Array, positions.length / 3, (i) => (height > 0 ? (positions[3 * i + 1] - low) / height : 0)),
  });
}

/**
 * Turns an outline about the Y axis.
 * @param outline from bottom to top, its outer side to the right of the way up; a closed one repeats no point
 * @param sides corners of each ring
 */
export function lathe(outline: readonly TurnedPoint[], sides: number, closed = false): Mesh {
  const n = outline.length;
  const span = closed ? n : n - 1;
  const vertices = 2 * span * (sides + 1);
  const positions = new Float32Array(3 * vertices);
  const normals = new Float32Array(3 * vertices);
  const uvs = new Float32Array(2 * vertices);
  const corners = Array.from({ length: span }, (_, k) => [outline[k], outline[(k + 1) % n]])
    .flat()
    .filter(({ r }) => r > 0);
  const indices = new Uint32Array(3 * sides * corners.length);
  let made = 0;
  let write = 0;
  // The last column stands exactly where the first does.
  const angles = Array.from({ length: sides + 1 }, (_, j) => (2 * Math.PI * (j % sides)) / sides);
  const cos = Float64Array.from(angles, Math.cos);
  const sin = Float64Array.from(angles, (angle) => -Math.sin(angle));
  const across = (k: number): [number, number] => {
    const [a, b] = [outline[k % n], outline[(k + 1) % n]];
    const length = Math.hypot(b.r - a.r, b.y - a.y) || 1;
    return [(b.y - a.y) / length, -(b.r - a.r) / length];
  };
  const smooth = (k: number): [number, number] => {
    if (!closed && (k === 0 || k === n - 1)) {
      const end = across(k === 0 ? 0 : n - 2);
      // A rounded end on the axis is a pole: its normal lies along the axis.
      return outline[k].r === 0 ? [0, Math.sign(end[1])] : end;
    }
    const [a, b] = [across((k + n - 1) % n), across(k % n)];
    const length = Math.hypot(a[0] + b[0], a[1] + b[1]);
    return length > 1e-9 ? [(a[0] + b[0]) / length, (a[1] + b[1]) / length] : a;
  };
  let way = 0;
  const widest = Math.max(...outline.map(({ r }) => r), 1e-9);
  const ring = (k: number, [nr, ny]: [number, number]): number => {
    const first = made;
    const { r, y } = outline[k % n];
    for (let j = 0; j <= sides; j++, made++) {
      const c = cos[j];
      const s = sin[j];
      positions[3 * made] = r * c;
      positions[3 * made + 1] = y;
      positions[3 * made + 2] = r * s;
      normals[3 * made] = nr * c;
      normals[3 * made + 1] = ny;
      normals[3 * made + 2] = nr * s;
      uvs[2 * made] = j / sides;
      uvs[2 * made + 1] = way / (2 * Math.PI * widest);
    }
    return first;
  };
  for (let k = 0; k < span; k++) {
    const [a, b] = [outline[k], outline[(k + 1) % n]];
    const lower = ring(k, a.hard ? across(k) : smooth(k));
    way += Math.hypot(b.r - a.r, b.y - a.y);
    const upper = ring(k + 1, b.hard ? across(k) : smooth((k + 1) % n));
    for (let j = 0; j < sides; j++) {
      const p = lower + j;
      const q = upper + j;
      if (a.r > 0) {
        indices[write] = p;
        indices[write + 1] = p + 1;
        indices[write + 2] = q;
        write += 3;
      }
      if (b.r > 0) {
        indices[write] = p + 1;
        indices[write + 1] = q + 1;
        indices[write + 2] = q;
        write += 3;
      }
    }
  }
  return meshOf(positions, normals, uvs, indices);
}

/** A ball about the origin. */
export const ball = (radius: number, sides: number): Mesh => {
  const rows = Math.max(3, Math.round(sides / 2));
  return lathe(
    Array.from({ length: rows + 1 }, (_, k) => {
      const angle = -Math.PI / 2 + (Math.PI * k) / rows;
      return { r: k === 0 || k === rows ? 0 : radius * Math.cos(angle), y: radius * Math.sin(angle) };
    }),
    sides,
  );
};

/** A cylinder, or with another radius above a cone or a blunt one, standing on the ground. */
export const cylinder = (below: number, above: number, height: number, sides: number): Mesh => {
  const outline: TurnedPoint[] = [{ r: below, y: 0, hard: true }];
  if (below > 0) outline.unshift({ r: 0, y: 0 });
  outline.push({ r: above, y: height, hard: true });
  if (above > 0) outline.push({ r: 0, y: height });
  return lathe(outline, sides);
};

/** A ring about the Y axis: a circle of radius `thick` turned at distance `radius`. */
export const torus = (radius: number, thick: number, sides: number): Mesh =>
  lathe(
    Array.from({ length: Math.max(6, Math.round(sides / 2)) }, (_, k) => {
      const angle = (2 * Math.PI * k) / Math.max(6, Math.round(sides / 2));
      return { r: radius + thick * Math.cos(angle), y: thick * Math.sin(angle) };
    }),
    sides,
    true,
  );

/**
 * A chain link about the origin, its long axis Y, flat in the plane of X and Y.
 * @param wire diameter, metres
 * @param innerLength, @param innerWidth of the opening, metres
 */
export async function link(wire: number, innerLength: number, innerWidth: number, sides: number): Promise<Mesh> {
  // Two half circles, and the straights between them.
  const straight = Math.max(0, (innerLength - innerWidth) / 2);
  const around = (flip: 1 | -1, at: (c: number, s: number) => [x: number, y: number]): number[] =>
    Array.from({ length: sides + 1 }, (_, k) => {
      const angle = (Math.PI * k) / sides;
      const [x, y] = at(Math.cos(angle), Math.sin(angle));
      return [flip * x, flip * y, 0];
    }).flat();
  const ring = (at: (c: number, s: number) => [x: number, y: number]): number[] => [
    ...around(1, at),
    ...around(-1, at),
  ];
  // Pieces round a bow lie outside its opening, and corners inside its outline: of links that touch no two then cut.
  const inner = innerWidth / 2 / Math.cos(Math.PI / (2 * sides));
  const outer = innerWidth / 2 + wire;
  const middle = (inner + outer) / 2;
  const bent = pathsFrom([{ positions: ring((c, s) => [middle * c, straight + middle * s]), closed: true }]);
  // Corners of the wire lie outside and inside, so that the outer length is just what it is said to be.
  const path = {
    ...bent,
    tangents: Float32Array.from(ring((c, s) => [-s, c])),
    normals: Float32Array.from(ring((c, s) => [c, s])),
  };
  const tube = await sweepTubes(path, {
    radius: (outer - inner) / 2,
    along: () => 1,
    follows: 'whole',
    swell: 0,
    sides,
    start: 'open',
    end: 'open',
  });
  return { ...tube, tip: null, parts: null };
}

const PHI = (1 + Math.sqrt(5)) / 2;
const signs = [-1, 1];
const evenly = (list: Vec3[]): Vec3[] =>
  list.flatMap(
    ([x, y, z]) =>
      [
        [x, y, z],
        [z, x, y],
        [y, z, x],
      ] as Vec3[],
  );

/** Corners of the Platonic solids (Coxeter, Regular Polytopes, section 3.7), each face found as the nearest plane. */
const CORNERS: Record<Platonic, Vec3[]> = {
  tetrahedron: [
    [1, 1, 1],
    [1, -1, -1],
    [-1, 1, -1],
    [-1, -1, 1],
  ],
  cube: signs.flatMap((x) => signs.flatMap((y) => signs.map((z): Vec3 => [x, y, z]))),
  octahedron: evenly(signs.map((s): Vec3 => [s, 0, 0])),
  dodecahedron: [
    ...signs.flatMap((x) => signs.flatMap((y) => signs.map((z): Vec3 => [x, y, z]))),
    ...evenly(signs.flatMap((a) => signs.map((b): Vec3 => [0, a / PHI, b * PHI]))),
  ],
  icosahedron: evenly(signs.flatMap((a) => signs.map((b): Vec3 => [0, a, b * PHI]))),
};

export type Platonic = 'tetrahedron' | 'cube' | 'octahedron' | 'dodecahedron' | 'icosahedron';

/** A Platonic solid about the origin, its corners at `radius`, flat faces with hard edges. */
export function platonic(which: Platonic, radius: number): Mesh {
  const corners = CORNERS[which].map((corner) => scale(unit(corner), radius));
  return polyhedron(corners, facesOf(corners));
}

/** A box about the origin, of the three side lengths. */
export function box(width: number, height: number, depth: number): Mesh {
  const corners = CORNERS.cube.map(([x, y, z]): Vec3 => [(x * width) / 2, (y * height) / 2, (z * depth) / 2]);
  return polyhedron(corners, facesOf(CORNERS.cube));
}

/** An open sheet standing on the ground, its face towards +Z, in so many squares each way. */
export function sheet(width: number, height: number, pieces: number): Mesh {
  const [positions, normals, uvs, indices]: number[][] = [[], [], [], []];
  for (let i = 0; i <= pieces; i++)
    for (let j = 0; j <= pieces; j++) {
      positions.push((j / pieces - 0.5) * width, (i / pieces) * height, 0);
      normals.push(0, 0, 1);
      uvs.push((j / pieces) * width, (i / pieces) * height);
    }
  const at = (i: number, j: number): number => i * (pieces + 1) + j;
  for (let i = 0; i < pieces; i++)
    for (let j = 0; j < pieces; j++)
      indices.push(at(i, j), at(i, j + 1), at(i + 1, j + 1), at(i, j), at(i + 1, j + 1), at(i + 1, j));
  return meshOf(
    Float32Array.from(positions),
    Float32Array.from(normals),
    Float32Array.from(uvs),
    Uint32Array.from(indices),
  );
}

/** A crystal standing on the ground: a prism with a point, the point `share` of its height. */
export function crystal(radius: number, height: number, share: number, sides: number): Mesh {
  const shoulder = height * (1 - share);
  const ring = (y: number): Vec3[] =>
    Array.from({ length: sides }, (_, j): Vec3 => {
      const angle = (2 * Math.PI * j) / sides;
      return [radius * Math.cos(angle), y, -radius * Math.sin(angle)];
    });
  const corners: Vec3[] = [...ring(0), ...ring(shoulder), [0, height, 0]];
  const next = (j: number): number => (j + 1) % sides;
  return polyhedron(corners, [
    Array.from({ length: sides }, (_, j) => sides - 1 - j),
    ...Array.from({ length: sides }, (_, j) => [j, next(j), sides + next(j), sides + j]),
    ...Array.from({ length: sides }, (_, j) => [sides + j, sides + next(j), 2 * sides]),
  ]);
}

/** The faces of a convex solid about the origin: each a ring of corners, anticlockwise from outside. */
function facesOf(corners: readonly Vec3[]): number[][] {
  const faces = new Map<string, number[]>();
  const n = corners.length;
  for (let i = 0; i < n; i++)
    for (let j = 0; j < n; j++)
      for (let k = 0; k < n; k++) {
        if (i === j || j === k || k === i) continue;
        const normal = cross(sub(corners[j], corners[i]), sub(corners[k], corners[i]));
        const size = Math.hypot(...normal);
        if (size < 1e-9) continue;
        const beyond = (p: Vec3): number => sub(p, corners[i]).reduce((sum, x, c) => sum + (x * normal[c]) / size, 0);
        if (corners.some((p) => beyond(p) > 1e-6)) continue;
        const on = corners.flatMap((p, at) => (Math.abs(beyond(p)) < 1e-6 ? [at] : []));
        faces.set(on.join(), around(on, corners, unit(normal)));
      }
  return [...faces.values()];
}

/** Corners of a face in their order about its normal. */
function around(face: readonly number[], corners: readonly Vec3[], normal: Vec3): number[] {
  const middle = face.reduce<Vec3>(
    (sum, i) => [
      sum[0] + corners[i][0] / face.length,
      sum[1] + corners[i][1] / face.length,
      sum[2] + corners[i][2] / face.length,
    ],
    [0, 0, 0],
  );
  const right = unit(sub(corners[face[0]], middle));
  const up = cross(normal, right);
  const angle = (i: number): number => {
    const [x, y, z] = sub(corners[i], middle);
    return Math.atan2(x * up[0] + y * up[1] + z * up[2], x * right[0] + y * right[1] + z * right[2]);
  };
  return [...face].sort((a, b) => angle(a) - angle(b));
}

/** A mesh of flat convex faces with hard edges. */
function polyhedron(corners: readonly Vec3[], faces: readonly (readonly number[])[]): Mesh {
  const [positions, normals, uvs, indices]: number[][] = [[], [], [], []];
  for (const face of faces) {
    const first = positions.length / 3;
    const [a, b, c] = face.map((i) => corners[i]);
    const normal = unit(cross(sub(b, a), sub(c, a)));
    const right = unit(sub(b, a));
    const up = cross(normal, right);
    for (const i of face) {
      const [x, y, z] = sub(corners[i], a);
      positions.push(...corners[i]);
      normals.push(...normal);
      uvs.push(x * right[0] + y * right[1] + z * right[2], x * up[0] + y * up[1] + z * up[2]);
    }
    for (let k = 1; k < face.length - 1; k++) indices.push(first, first + k, first + k + 1);
  }
  return meshOf(
    Float32Array.from(positions),
    Float32Array.from(normals),
    Float32Array.from(uvs),
    Uint32Array.from(indices),
  );
}
