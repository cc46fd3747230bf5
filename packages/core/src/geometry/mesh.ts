import { type Attributed, emptyColumns, floats, maybeFloats, NO_NAMED } from './attributes';

/** What a mesh knows of each vertex, n of them, and of each path that it was made of. */
export const MESH = {
  /** 3n, metres. */
  positions: floats('vertex', 3),
  /** 3n unit vectors. */
  normals: floats('vertex', 3, { blend: 'rotate' }),
  /** 2n, around and along in even scale. */
  uvs: floats('vertex', 2),
  /** n, rest coordinate 0..1 of the path point the vertex belongs to; null on meshes not made from a path. */
  u: maybeFloats('vertex'),
  /** n, distance behind the growing tip along the path, metres; null on meshes not made from a path. */
  tip: maybeFloats('vertex'),
  /** n, seconds since the growing front passed; null where no growth tells. */
  age: maybeFloats('vertex'),
  /** 3n, linear RGB 0..1; null while unpainted. */
  colors: maybeFloats('vertex', 3, { missing: 1 }),
  /** n, emitted light as a share of the glow colour, 0 for none; null where nothing glows. */
  glow: maybeFloats('vertex'),
  /** n, 1 where the colours are those of an item that was joined to the skin, which later steps leave alone; null where there is none. */
  finished: maybeFloats('vertex'),
  /** Level 0..1 of each part's path; null where growth has none. */
  level: maybeFloats('path', 1, { missing: 1 }),
};

/** A triangle mesh in flat arrays: n vertices, f faces. Front faces run anticlockwise seen from outside. */
export interface Mesh extends Attributed<typeof MESH> {
  /** 3f vertex numbers. */
  indices: Uint32Array;
  /** First vertex and path id of each path's part, in pairs; null on meshes not made from paths. */
  parts: Uint32Array | null;
}

/** A mesh of what every mesh has, and whatever more is told; the rest is null. */
export const meshWith = (mesh: Pick<Mesh, 'positions' | 'normals' | 'uvs' | 'indices'> & Partial<Mesh>): Mesh => ({
  ...NOTHING,
  ...mesh,
});

const NOTHING: Mesh = {
  ...emptyColumns(MESH, 'vertex', 0),
  ...emptyColumns(MESH, 'path', 0),
  indices: new Uint32Array(0),
  parts: null,
  named: NO_NAMED,
};

export const vertexCount = (mesh: Mesh): number => mesh.positions.length / 3;
export const faceCount = (mesh: Mesh): number => mesh.indices.length / 3;

/** Surface area in square metres and enclosed volume in cubic metres (meaningful on watertight meshes). */
export function areaAndVolume(mesh: Mesh): { area: number; volume: number } {
  const { positions: p, indices } = mesh;
  let area = 0;
  let volume = 0;
  for (let i = 0; i < indices.length; i += 3) {
    const a = 3 * indices[i];
    const b = 3 * indices[i + 1];
    const c = 3 * indices[i + 2];
    const [ux, uy, uz] = [p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]];
    const [vx, vy, vz] = [p[c] - p[a], p[c + 1] - p[a + 1], p[c + 2] - p[a + 2]];
    const [nx, ny, nz] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
    area += Math.hypot(nx, ny, nz) / 2;
    volume += (p[a] * nx + p[a + 1] * ny + p[a + 2] * nz) / 6;
  }
  return { area, volume };
}
