import { joined } from './attributes';
import { faceCount, MESH, type Mesh } from './mesh';
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
  // What is put on has no front of its own here: it stands where the base's is.
  const plain = { ...rider, tip: null, age: null };
  const parts = [...(base ? [{ of: base, count: n }] : []), ...placements.map(() => ({ of: plain, count: k }))];
  const first = base?.indices.length ?? 0;
  const vertices = joined(MESH, 'vertex', parts);
  const faces = joined(
    MESH,
    'face',
    parts.map(({ of }) => ({ of, count: faceCount(of) })),
  );
  const mesh: Mesh = {
    ...(base ?? plain),
    ...vertices,
    named: { ...faces.named, ...vertices.named },
    indices: new Uint32Array(first + rider.indices.length * placements.length),
    parts: base?.parts ?? null,
    level: base?.level ?? null,
  };
  if (base) mesh.indices.set(base.indices);
  placements.forEach((placement, i) => {
    const vertex = n + k * i;
    place(rider.positions, placement, placement.size, placement.origin, mesh.positions, vertex);
    place(rider.normals, placement, 1, [0, 0, 0], mesh.normals, vertex);
    const at = first + rider.indices.length * i;
    for (let j = 0; j < rider.indices.length; j++) mesh.indices[at + j] = rider.indices[j] + vertex;
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
