/**
 * Any number of paths in flat arrays. With n points in m paths, path p owns points `offsets[p]` up to `offsets[p + 1]`.
 * A closed path does not repeat its first point: the last segment runs from its last point back to the first.
 */
export interface Paths {
  /** 3n, metres. */
  positions: Float32Array;
  /** m + 1, rising from 0 to n. */
  offsets: Uint32Array;
  /** m, 1 where the path is closed. */
  closed: Uint8Array;
  /** n, rest length from the path's base, metres; kept from birth through every later step. */
  s: Float32Array;
  /** n, rest coordinate 0..1 along the whole path; kept from birth. */
  u: Float32Array;
  /** n, thickness multiplier for skins, 1 as the skin says. */
  size: Float32Array;
  /** n, roll of what is swept along the path besides the skin's own, radians; null where none leans. */
  lean: Float32Array | null;
  /** n, seconds since the growing front passed; null on paths that no growth has passed over. */
  age: Float32Array | null;
  /** 3n unit vectors along the path, or null while no step has needed frames. */
  tangents: Float32Array | null;
  /** 3n unit vectors square to the tangents, transported without twist; there when the tangents are. */
  normals: Float32Array | null;
  /** m, stable number of each path: randomness and colours hang on it, not on the place in the array. */
  ids: Uint32Array;
  /** m, length of the whole path before any cut, metres, as it lies at this frame. */
  whole: Float32Array;
  /** m, arc length at which the visible part begins on the whole path, metres. */
  cutFrom: Float32Array;
  /** m, index of the path that this one grows from, or -1. */
  parent: Int32Array;
  /** m, rest coordinate on the parent where this path is attached. */
  attach: Float32Array;
  /** m, how many joints lie between this path and a root. */
  depth: Uint16Array;
  /** m, frame at which the path is born. */
  birth: Float32Array;
  /** m, which ends are growing or being eaten: 1 the far one, 2 the near one, 3 both. */
  fronts: Uint8Array;
  /** m, the level 0..1 that each path stands at; null where growth has none. */
  level: Float32Array | null;
  /**
   * The paths as they were before growth cut them, path by path; null where a later step has moved what was cut, left out
   * where nothing has been cut.
   */
  uncut?: Paths | null;
}

/** Bits of `fronts`. */
export const FAR = 1;
export const NEAR = 2;

/** What every point has besides its position. */
export const PER_POINT = ['s', 'u', 'size'] as const;
/** What points may have; 0 where they have not. */
export const MAYBE_PER_POINT = ['lean', 'age'] as const;
/** What every path has, apart from where its points are. */
export const PER_PATH = ['closed', 'ids', 'whole', 'cutFrom', 'parent', 'attach', 'depth', 'birth', 'fronts'] as const;

/** The two arrays that make a path's frames; the third direction is tangent × normal. */
export const FRAME_KEYS = ['tangents', 'normals'] as const;

/** Paths whose frames are there. */
export type FramedPaths = Paths & { tangents: Float32Array; normals: Float32Array };

export const pointCount = (paths: Paths): number => paths.s.length;
export const pathCount = (paths: Paths): number => paths.offsets.length - 1;

/** What `pathsFrom` makes one path of. */
export interface PathSource {
  /** xyz triples, metres. */
  positions: ArrayLike<number>;
  closed?: boolean;
  id?: number;
  /** Thickness multiplier per point; 1 when left out. */
  size?: ArrayLike<number>;
  /** Lean per point, radians; 0 when left out. */
  lean?: ArrayLike<number>;
}

/**
 * Builds Paths from point lists, measuring rest length and rest coordinate along the straight segments.
 * Frames are left to the first step that needs them.
 */
export function pathsFrom(sources: readonly PathSource[]): Paths {
  const m = sources.length;
  let n = 0;
  for (const source of sources) n += source.positions.length / 3;
  const paths = allocatePaths(n, m);
  let first = 0;
  sources.forEach((source, p) => {
    const count = source.positions.length / 3;
    paths.positions.set(source.positions, 3 * first);
    paths.size.fill(1, first, first + count);
    if (source.size) paths.size.set(source.size, first);
    if (source.lean) (paths.lean ??= new Float32Array(n)).set(source.lean, first);
    paths.closed[p] = source.closed ? 1 : 0;
    paths.ids[p] = source.id ?? p;
    paths.offsets[p + 1] = first + count;
    first += count;
  });
  measureRest(paths);
  return paths;
}

/** Empty arrays for n points in m paths; parents are set to none. */
export function allocatePaths(n: number, m: number): Paths {
  return {
    positions: new Float32Array(3 * n),
    offsets: new Uint32Array(m + 1),
    closed: new Uint8Array(m),
    s: new Float32Array(n),
    u: new Float32Array(n),
    size: new Float32Array(n),
    lean: null,
    age: null,
    tangents: null,
    normals: null,
    ids: new Uint32Array(m),
    whole: new Float32Array(m),
    cutFrom: new Float32Array(m),
    parent: new Int32Array(m).fill(-1),
    attach: new Float32Array(m),
    depth: new Uint16Array(m),
    birth: new Float32Array(m),
    fronts: new Uint8Array(m).fill(FAR),
    level: null,
  };
}

/** Writes `s`, `u` and `whole` from the positions, as at a path's birth. */
function measureRest(paths: Paths): void {
  const { positions, offsets, closed, s, u, whole } = paths;
  for (let p = 0; p < whole.length; p++) {
    const a = offsets[p];
    const b = offsets[p + 1];
    let sum = 0;
    for (let i = a; i < b; i++) {
      if (i > a) sum += segment(positions, i - 1, i);
      s[i] = sum;
    }
    const total = closed[p] && b > a ? sum + segment(positions, b - 1, a) : sum;
    whole[p] = total;
    for (let i = a; i < b; i++) u[i] = total > 0 ? s[i] / total : 0;
  }
}

function segment(positions: Float32Array, i: number, j: number): number {
  const x = positions[3 * j] - positions[3 * i];
  const y = positions[3 * j + 1] - positions[3 * i + 1];
  const z = positions[3 * j + 2] - positions[3 * i + 2];
  return Math.sqrt(x * x + y * y + z * z);
}

/** All paths of `a`, then all of `b`; frames are kept only when both have them. Path ids of `b` follow those of `a`. */
export function joinPaths(a: Paths, b: Paths): Paths {
  const n = pointCount(a);
  const m = pathCount(a);
  const joined = allocatePaths(n + pointCount(b), m + pathCount(b));
  for (const key of ['positions', ...PER_POINT, ...PER_PATH] as const) {
    joined[key].set(a[key]);
    joined[key].set(b[key], a[key].length);
  }
  for (const [keys, ours, all] of [
    [MAYBE_PER_POINT, n, pointCount(joined)],
    [['level'] as const, m, pathCount(joined)],
  ] as const) {
    for (const key of keys) {
      if (!a[key] && !b[key]) continue;
      joined[key] = new Float32Array(all);
      if (a[key]) joined[key].set(a[key]);
      if (b[key]) joined[key].set(b[key], ours);
    }
  }
  joined.offsets.set(a.offsets);
  for (let p = 0; p <= pathCount(b); p++) joined.offsets[m + p] = n + b.offsets[p];
  const nextId = a.ids.reduce((top, id) => Math.max(top, id + 1), 0);
  for (let p = 0; p < pathCount(b); p++) {
    joined.ids[m + p] = nextId + b.ids[p];
    if (b.parent[p] >= 0) joined.parent[m + p] = b.parent[p] + m;
  }
  for (const key of FRAME_KEYS) {
    const [ours, theirs] = [a[key], b[key]];
    if (!ours || !theirs) continue;
    const both = new Float32Array(3 * (n + pointCount(b)));
    both.set(ours);
    both.set(theirs, 3 * n);
    joined[key] = both;
  }
  return joined;
}
