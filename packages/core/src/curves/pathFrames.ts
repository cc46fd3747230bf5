import { type FramedPaths, type Paths, pathCount } from '../geometry/paths';
import { carryNormals, type FramedCourse, movedTangents, pathNormals, squareOff, tangents } from './frames';

/** So many points between two yields. */
const PER_YIELD = 2048;

/** Frames of paths that have none, kept for them: a path at rest is asked for its own at every moment that moves it. */
const made = new WeakMap<Paths, FramedPaths>();

/** The same paths with frames carried without twist; given back as they are when they already have some. */
export function withFrames(paths: Paths): FramedPaths {
  if (paths.tangents && paths.normals) return paths as FramedPaths;
  const known = made.get(paths);
  if (known) return known;
  const normals = new Float32Array(paths.positions.length);
  const along = allTangents(paths);
  for (let p = 0; p < pathCount(paths); p++) {
    const [a, b] = [paths.offsets[p], paths.offsets[p + 1]];
    pathNormals(
      paths.positions,
      a,
      b,
      paths.closed[p] === 1,
      normals.subarray(3 * a, 3 * b),
      along.subarray(3 * a, 3 * b),
    );
  }
  const framed = { ...paths, tangents: along, normals };
  made.set(paths, framed);
  return framed;
}

/** Paths whose points are others on the same course than their frames were made for: tangents anew, normals square to them. */
export async function squaredFrames(paths: Paths, yieldNow: () => Promise<void>): Promise<Paths> {
  if (!paths.tangents || !paths.normals) return paths;
  const along = new Float32Array(paths.positions.length);
  let nextYield = 0;
  for (let p = 0; p < pathCount(paths); p++) {
    if (paths.offsets[p] >= nextYield) {
      nextYield = paths.offsets[p] + 4 * PER_YIELD;
      await yieldNow();
    }
    writeTangents(paths, p, along);
  }
  const normals = new Float32Array(paths.normals.length);
  for (let i = 0; i < normals.length / 3; i++) {
    if (i % (4 * PER_YIELD) === 0) await yieldNow();
    squareOff(along, paths.normals, i, normals);
  }
  return { ...paths, tangents: along, normals };
}

/** Unit tangents of all paths, 3n entries. */
function allTangents(paths: Paths): Float32Array {
  const out = new Float32Array(paths.positions.length);
  for (let p = 0; p < pathCount(paths); p++) writeTangents(paths, p, out);
  return out;
}

/** Puts the unit tangents of path p among those of all. */
function writeTangents({ positions, offsets, closed }: Paths, p: number, out: Float32Array): void {
  const [a, b] = [offsets[p], offsets[p + 1]];
  tangents(positions, a, b, closed[p] === 1, out.subarray(3 * a, 3 * b));
}

/**
 * The same paths after a deforming step moved their points. Rest coordinates stay; frames follow from those before the move;
 * `whole` is measured anew on uncut paths, and scaled with the visible part on cut ones.
 */
export async function movedPaths(
  paths: Paths,
  positions: Float32Array,
  yieldNow: () => Promise<void> = () => Promise.resolve(),
): Promise<Paths> {
  const rest = withFrames(paths);
  const moved: FramedPaths = {
    ...rest,
    positions,
    tangents: new Float32Array(positions.length),
    normals: new Float32Array(positions.length),
    whole: new Float32Array(paths.whole),
    cutFrom: new Float32Array(paths.cutFrom),
  };
  if (paths.uncut) moved.uncut = null;
  let nextYield = PER_YIELD;
  for (let p = 0; p < pathCount(paths); p++) {
    if (paths.offsets[p] >= nextYield) {
      nextYield = paths.offsets[p] + PER_YIELD;
      await yieldNow();
    }
    const before = visibleLength(paths, p);
    const after = visibleLength(moved, p);
    const k = before > 0 ? after / before : 1;
    moved.whole[p] *= k;
    moved.cutFrom[p] *= k;
    const [a, b, closed] = [paths.offsets[p], paths.offsets[p + 1], paths.closed[p] === 1];
    const [was, is] = [course(rest, a, b), course(moved, a, b)];
    movedTangents(was, is, a, b, closed);
    carryNormals(was, is, a, b, closed);
  }
  return moved;
}

/** Points a to b of paths, with their frames. */
const course = ({ positions, tangents, normals }: FramedPaths, a: number, b: number): FramedCourse => ({
  positions,
  tangents: tangents.subarray(3 * a, 3 * b),
  normals: normals.subarray(3 * a, 3 * b),
});

/** Length of what is there of path p, metres. */
export function visibleLength(paths: Paths, p: number): number {
  const { positions, offsets } = paths;
  const [a, b] = [offsets[p], offsets[p + 1]];
  let sum = 0;
  const last = paths.closed[p] && b - a > 1 ? b : b - 1;
  for (let i = a; i < last; i++) {
    const q = 3 * i;
    const r = i + 1 < b ? q + 3 : 3 * a;
    const x = positions[r] - positions[q];
    const y = positions[r + 1] - positions[q + 1];
    const z = positions[r + 2] - positions[q + 2];
    sum += Math.sqrt(x * x + y * y + z * z);
  }
  return sum;
}

/** Length of all that is there, metres. */
export function grownLength(paths: Paths | null): number {
  let sum = 0;
  for (let p = 0; paths && p < pathCount(paths); p++) sum += visibleLength(paths, p);
  return sum;
}

/** Share of the whole length of all paths that is there, 0..1; null without paths. */
export function grownShare(paths: Paths | null): number | null {
  if (!paths) return null;
  const whole = paths.whole.reduce((sum, length) => sum + length, 0);
  return whole > 0 ? Math.min(1, grownLength(paths) / whole) : 0;
}
