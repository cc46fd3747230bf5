import { type Mesh } from './mesh';
import { cross, type Vec3 } from './vec';

/** Where a mesh is put: its origin, three unit axes that its x, y and z are turned to, and its size. */
export interface Placement {
  origin: Vec3;
  x: Vec3;
  y: Vec3;
  size: number;
}

/**
 * A mesh with another put on it once for each placement. Colours and glow are kept where either has them; parts of
 * what is put on count as no path.
 */
export function withRiders(base: Mesh | null, rider: Mesh, placements: readonly Placement[]): Mesh {
  const [n, k] = [(base?.positions.length ?? 0) / 3, rider.positions.length / 3];
  const total = n + k * placements.length;
  const faces = (base?.indices.length ?? 0) + rider.indices.length * placements.length;
  const keep = <T>(of: T | null | undefined): boolean => of !== null && of !== undefined;
  const array = (width: number, wanted: boolean): Float32Array | null =>
    wanted ? new Float32Array(width * total) : null;
  const colored = keep(base?.colors) || keep(rider.colors);
  const mesh: Mesh = {
    positions: new Float32Array(3 * total),
    normals: new Float32Array(3 * total),
    uvs: new Float32Array(2 * total),
    indices: new Uint32Array(faces),
    u: array(1, keep(base?.u) || keep(rider.u)),
    tip: array(1, keep(base?.tip)),
    parts: base?.parts ?? null,
    age: array(1, keep(base?.age)),
    levels: base?.levels ?? null,
    colors: array(3, colored),
    glow: array(1, keep(base?.glow) || keep(rider.glow)),
  };
  if (base) {
    for (const key of ['positions', 'normals', 'uvs', 'u', 'tip', 'age', 'colors', 'glow'] as const)
      if (base[key]) mesh[key]?.set(base[key]);
    mesh.indices.set(base.indices);
  }
  // Unpainted surfaces show white, as they do alone.
  if (colored && base && !base.colors) mesh.colors!.fill(1, 0, 3 * n);
  placements.forEach((placement, i) => {
    const first = n + k * i;
    place(rider.positions, placement, placement.size, placement.origin, mesh.positions, first);
    place(rider.normals, placement, 1, [0, 0, 0], mesh.normals, first);
    mesh.uvs.set(rider.uvs, 2 * first);
    if (mesh.colors) {
      if (rider.colors) mesh.colors.set(rider.colors, 3 * first);
      else mesh.colors.fill(1, 3 * first, 3 * (first + k));
    }
    if (mesh.glow && rider.glow) mesh.glow.set(rider.glow, first);
    if (mesh.u && rider.u) mesh.u.set(rider.u, first);
    const at = (base?.indices.length ?? 0) + rider.indices.length * i;
    for (let j = 0; j < rider.indices.length; j++) mesh.indices[at + j] = rider.indices[j] + first;
  });
  return mesh;
}

function place(
  from: Float32Array,
  { x, y }: Placement,
  size: number,
  origin: Vec3,
  to: Float32Array,
  first: number,
): void {
  const z = cross(x, y);
  for (let i = 0; i < from.length; i += 3) {
    const [a, b, c] = [size * from[i], size * from[i + 1], size * from[i + 2]];
    const write = 3 * first + i;
    for (let axis = 0; axis < 3; axis++) to[write + axis] = origin[axis] + a * x[axis] + b * y[axis] + c * z[axis];
  }
}
