import { joinedInTime } from './joinColumns';
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
export async function withRiders(
  base: Mesh | null,
  rider: Mesh,
  placements: readonly Placement[],
  yieldNow: () => Promise<void> = () => Promise.resolve(),
): Promise<Mesh> {
  const [n, k] = [(base?.positions.length ?? 0) / 3, rider.positions.length / 3];
  // What is put on has no front of its own here: it stands where the base's is.
  const plain = { ...rider, tip: null, age: null };
  const parts = [...(base ? [{ of: base, count: n }] : []), ...placements.map(() => ({ of: plain, count: k }))];
  const first = base?.indices.length ?? 0;
  const vertices = await joinedInTime(MESH, 'vertex', parts, yieldNow);
  const counts = new Map([base ?? plain, plain].map((of) => [of, faceCount(of)]));
  const faces = await joinedInTime(
    MESH,
    'face',
    parts.map(({ of }) => ({ of, count: counts.get(of)! })),
    yieldNow,
  );
  await yieldNow();
  const mesh: Mesh = {
    ...(base ?? plain),
    ...vertices,
    named: { ...faces.named, ...vertices.named },
    indices: new Uint32Array(first + rider.indices.length * placements.length),
    parts: base?.parts ?? null,
    level: base?.level ?? null,
  };
  if (base) mesh.indices.set(base.indices);
  let placed = 0;
  for (let i = 0; i < placements.length; i++) {
    const placement = placements[i];
    const vertex = n + k * i;
    for (let from = 0; from < k; from += PER_YIELD) {
      const end = Math.min(k, from + PER_YIELD);
      place(rider.positions, placement, placement.size, placement.origin, mesh.positions, vertex, from, end);
      place(rider.normals, placement, 1, NOWHERE, mesh.normals, vertex, from, end);
      if ((placed += end - from) < PER_YIELD) continue;
      placed = 0;
      await yieldNow();
    }
    moved(rider.indices, vertex, mesh.indices, first + rider.indices.length * i);
  }
  return mesh;
}

/** So many vertices between two yields. */
const PER_YIELD = 1 << 16;
const NOWHERE: Vec3 = [0, 0, 0];

/** Indices of vertices that come so much later. */
function moved(from: Uint32Array, by: number, to: Uint32Array, at: number): void {
  for (let j = 0; j < from.length; j++) to[at + j] = from[j] + by;
}

/** Places or normals of the rider's vertices `start` up to `end`; `first` is what its own first one becomes. */
function place(
  from: Float32Array,
  { x, y }: Placement,
  size: number,
  origin: Vec3,
  to: Float32Array,
  first: number,
  start: number,
  end: number,
): void {
  const z = cross(x, y);
  for (let axis = 0; axis < 3; axis++) {
    const o = origin[axis];
    const ax = x[axis];
    const ay = y[axis];
    const az = z[axis];
    for (let i = 3 * start, write = 3 * (first + start) + axis; i < 3 * end; i += 3, write += 3)
      to[write] = o + size * from[i] * ax + size * from[i + 1] * ay + size * from[i + 2] * az;
  }
}
