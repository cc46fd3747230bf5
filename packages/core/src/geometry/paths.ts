import {
  type Attributed,
  bytes,
  emptyColumns,
  floats,
  integers,
  maybeFloats,
  maybeIntegers,
  NO_NAMED,
} from './attributes';

/** Bits of `fronts`. */
export const FAR = 1;
export const NEAR = 2;

/** Number of a point that growth has put in where it cuts. */
export const NO_POINT = 0xffffffff;

/** Parent of a path that grows from no other. */
export const NO_PARENT = 0xffffffff;

/** What paths know of each point, n of them, and of each path, m of them. */
export const PATHS = {
  /** 3n, metres. */
  positions: floats('point', 3),
  /** n, rest length from the path's base, metres; kept from birth through every later step. */
  s: floats('point'),
  /** n, rest coordinate 0..1 along the whole path; kept from birth. */
  u: floats('point'),
  /** n, thickness multiplier for skins, 1 as the skin says. */
  size: floats('point', 1, { missing: 1 }),
  /** n, roll of what is swept along the path besides the skin's own, radians; null where none leans. */
  lean: maybeFloats('point'),
  /** n, seconds since the growing front passed; null on paths that no growth has passed over. */
  age: maybeFloats('point'),
  /**
   * n, share 0..1 of the whole growing at which the front gets to the point, rising along each path; null where each path grows by
   * itself, from its own base to its own tip. What branches has it: a child begins with what its parent has at the joint.
   */
  arrival: maybeFloats('point'),
  /** 3n unit vectors along the path, or null while no step has needed frames. */
  tangents: maybeFloats('point', 3, { blend: 'rotate' }),
  /** 3n unit vectors square to the tangents, transported without twist; there when the tangents are. */
  normals: maybeFloats('point', 3, { blend: 'rotate' }),
  /** n, number of each point on the whole path, or `NO_POINT` at cut ends; null where nothing has been cut. */
  number: maybeIntegers('point', { missing: NO_POINT }),
  /** m, 1 where the path is closed. */
  closed: bytes('path'),
  /** m, 1 where the whole path is closed, however much of it is there. */
  loop: bytes('path'),
  /** m, stable number of each path: randomness and colours hang on it, not on the place in the array. */
  ids: integers('path', { numbers: true }),
  /** m, length of the whole path before any cut, metres, as it lies at this frame. */
  whole: floats('path'),
  /** m, arc length at which the visible part begins on the whole path, metres. */
  cutFrom: floats('path'),
  /** m, which ends are growing or being eaten: 1 the far one, 2 the near one, 3 both. */
  fronts: bytes('path', { missing: FAR }),
  /** m, the level 0..1 that each path stands at; null where growth has none. */
  level: maybeFloats('path', 1, { missing: 1 }),
  /** m, id of the path that this one grows from, or `NO_PARENT`; null where no path grows from another. */
  parent: maybeIntegers('path', { missing: NO_PARENT }),
  /** m, rest coordinate on the parent where this path is attached; there when the parents are. */
  attach: maybeFloats('path'),
};

/**
 * Any number of paths in flat arrays. With n points in m paths, path p owns points `offsets[p]` up to `offsets[p + 1]`.
 * A closed path does not repeat its first point: the last segment runs from its last point back to the first.
 */
export interface Paths extends Attributed<typeof PATHS> {
  /** m + 1, rising from 0 to n. */
  offsets: Uint32Array;
  /**
   * The paths as they were before growth cut them, path by path; null where a later step has moved what was cut, left out
   * where nothing has been cut.
   */
  uncut?: Paths | null;
}

/** The two arrays that make a path's frames; the third direction is tangent × normal. */
export const FRAME_KEYS = ['tangents', 'normals'] as const;

/** Paths whose frames are there. */
export type FramedPaths = Paths & { tangents: Float32Array; normals: Float32Array };

/** The same paths as they would be told of had they never been cut: for steps that lay their points anew. */
export function uncut({ uncut: _, ...paths }: Paths): Paths {
  return { ...paths, number: null };
}

/**
 * Length that the whole path p had when it was made, metres; null where no point of it can tell, as none but the base can
 * not. Any point knows: its rest length by its rest coordinate.
 */
export function restLengthOf({ s, u, offsets }: Paths, p: number): number | null {
  const last = offsets[p + 1] - 1;
  return last >= offsets[p] && u[last] > 1e-3 ? s[last] / u[last] : null;
}

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
    paths.closed[p] = paths.loop[p] = source.closed ? 1 : 0;
    paths.ids[p] = source.id ?? p;
    paths.offsets[p + 1] = first + count;
    first += count;
  });
  measureRest(paths);
  return paths;
}

/** Arrays for n points in m paths; parents are set to none. */
export const allocatePaths = (n: number, m: number): Paths => ({
  ...emptyColumns(PATHS, 'point', n),
  ...emptyColumns(PATHS, 'path', m),
  offsets: new Uint32Array(m + 1),
  named: NO_NAMED,
});

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
