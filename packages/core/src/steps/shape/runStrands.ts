import { movedPaths, withFrames } from '../../curves/pathFrames';
import { random } from '../../fields/random';
import { joinColumns } from '../../geometry/joinColumns';
import { NO_PARENT, PATHS, type Paths, pathCount, pointCount, uncut } from '../../geometry/paths';
import { jointOn, pathTreeOf } from '../../geometry/tree';
import { add, at, cross, partWay, scale, sub, type Vec3 } from '../../geometry/vec';
import type { StepContext } from '../declare';
import type { StrandsParams } from './strands';

/** The angle that spreads most evenly: 360° (1 − 1/φ), in radians. */
const GOLDEN = Math.PI * (3 - Math.sqrt(5));

/** Many strands of each path. */
export async function runStrands(single: Paths, p: StrandsParams, context: StepContext): Promise<Paths> {
  const old = withFrames(single);
  const [n, m] = [pointCount(old), pathCount(old)];
  context.claim('points', n * p.count, 'Count');
  const points = joinColumns(PATHS, 'point', Array(p.count).fill({ of: old, count: n }));
  const each = joinColumns(PATHS, 'path', Array(p.count).fill({ of: old, count: m }));
  const paths: Paths = {
    ...uncut(old),
    ...points,
    ...each,
    offsets: new Uint32Array(m * p.count + 1),
    named: { ...points.named, ...each.named },
  };
  const positions = new Float32Array(paths.positions.length);
  const { parents, order } = pathTreeOf(old);
  const roots = rootsOf(parents, order);
  for (let k = 0; k < p.count; k++) {
    await context.yieldNow();
    const size = 1 - p.vary * random(context.seed, k, 0);
    // A strand of a tree is the whole tree: branches come after what they grow from, and stay on it.
    for (const path of order) {
      const to = m * k + path;
      const [a, b] = [old.offsets[path], old.offsets[path + 1]];
      paths.offsets[to + 1] = n * k + b;
      // Numbered so that more strands change no other strand's number.
      paths.ids[to] = old.ids[path] + k * m;
      if (paths.parent && paths.parent[to] !== NO_PARENT) paths.parent[to] += k * m;
      const base = at(old.positions, old.offsets[roots[path]]);
      const place =
        besideParent(p, old, positions, parents[path], path, n * k) ?? placing(p, k, size, context.seed, base);
      for (let i = a; i < b; i++) {
        positions.set(place(at(old.positions, i), at(old.tangents, i), at(old.normals, i)), 3 * (n * k + i));
        // A strand that is smaller is thinner too.
        paths.size[n * k + i] = old.size[i] * size;
      }
    }
  }
  return movedPaths(paths, positions, () => context.yieldNow());
}

/** The root of the tree that each path is of. */
function rootsOf(parents: Int32Array, order: Uint32Array): Uint32Array {
  const roots = new Uint32Array(parents.length);
  for (const path of order) roots[path] = parents[path] < 0 ? path : roots[parents[path]];
  return roots;
}

/**
 * How a branch of a ring or of parallels is put: moved as the place that it holds on to has been.
 * @param first of the points of this strand among those that have been put
 * @returns null for a path that grows from nothing, and for strands whose trees are put as wholes anyway
 */
function besideParent(
  { as }: StrandsParams,
  old: Paths,
  put: Float32Array,
  parent: number,
  path: number,
  first: number,
): Placing | null {
  if (parent < 0 || (as !== 'ring' && as !== 'parallel')) return null;
  const joint = jointOn(old, parent, old.attach![path]);
  if (!joint) return null;
  const { low, high, t } = joint;
  const by = sub(
    partWay(at(put, first + low), at(put, first + high), t),
    partWay(at(old.positions, low), at(old.positions, high), t),
  );
  return (point) => add(point, by);
}

type Placing = (point: Vec3, tangent: Vec3, normal: Vec3) => Vec3;

/** Where strand k puts the points of a path that begins at `base`. */
function placing(p: StrandsParams, k: number, size: number, seed: number, base: Vec3): Placing {
  if (p.as === 'ring') {
    const angle = (2 * Math.PI * k) / p.count;
    const [c, s] = [p.apart * Math.cos(angle), p.apart * Math.sin(angle)];
    return (point, tangent, normal) => add(point, add(scale(normal, c), scale(cross(tangent, normal), s)));
  }
  if (p.as === 'parallel') {
    // To both sides in turn: those that are there stay when more come.
    const side = p.apart * (k % 2 ? (k + 1) / 2 : -k / 2);
    return (point, _, normal) => add(point, scale(normal, side));
  }
  const vertical = 2 * Math.PI * p.turn * random(seed, k, 1);
  const own = (point: Vec3): Vec3 => about('y', vertical, scale(sub(point, base), size));
  if (p.as === 'fan') {
    const share = p.count > 1 ? k / (p.count - 1) - 0.5 : 0;
    const angle = (-share * p.spread * Math.PI) / 180;
    return (point) => add(base, about('z', angle, own(point)));
  }
  if (p.as === 'row') {
    // To both sides in turn: those that are there stay when more come.
    const side = k % 2 ? (k + 1) / 2 : -k / 2;
    return (point) => add(base, add([side * p.apart, 0, 0], own(point)));
  }
  // Vogel's arrangement of florets: even density at any count.
  const radius = p.apart * Math.sqrt(k);
  const angle = k * GOLDEN;
  const lean = (p.lean * radius * Math.PI) / 180;
  const out: Vec3 = [radius * Math.cos(angle), 0, radius * Math.sin(angle)];
  return (point) => add(base, add(out, about('y', -angle, about('z', -lean, about('y', angle, own(point))))));
}

function about(axis: 'y' | 'z', angle: number, [x, y, z]: Vec3): Vec3 {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return axis === 'y' ? [x * c + z * s, y, z * c - x * s] : [x * c - y * s, x * s + y * c, z];
}
