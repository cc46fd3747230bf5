import { coloniseSpace } from '../../curves/colonise';
import { nodePaths } from '../../curves/nodePaths';
import { random } from '../../fields/random';
import { spreadOut } from '../../fields/blueNoise';
import { boundsOf, emptyForm } from '../../geometry/form';
import type { Mesh } from '../../geometry/mesh';
import { insideOf, nearestPlace } from '../../geometry/search/nearest';
import { type Paths, pathCount } from '../../geometry/paths';
import { readPlaces } from '../../geometry/topology/surfacePlaces';
import { byAxis, add, at, cross, dot, perpendicular, ringNormal, sub, unit, type Vec3 } from '../../geometry/vec';
import { pointsOf } from '../../geometry/formPoints';
import { Problem } from '../../problem';
import { inside } from '../../outline/region';
import { scatteredAtRandom } from '../../surfaces/scatter/scatterMesh';
import type { StepContext } from '../declare';
import type { ColoniseParams } from './colonise';
import { pathsIn, skinIn } from './others';

/** Nodes that a tree may have at most. */
const MOST = 400_000;

/** The paths of a tree that grows towards places. */
export async function runColonise(p: ColoniseParams, context: StepContext): Promise<Paths> {
  const mesh = p.where === 'form' || p.where === 'skin' ? await skinIn(context, 'growth', p.growth) : null;
  const attractors = await placesFor(p, mesh, context);
  const roots = p.roots === null ? [[p.rootX, p.rootY, p.rootZ] as const] : await context.places('roots');
  const around =
    p.around !== null && p.where !== 'skin' && p.where !== 'form' ? await skinIn(context, 'around', p.around) : null;
  const nodes = await coloniseSpace(
    {
      attractors,
      // What grows on a skin begins on it.
      roots: p.where === 'skin' && mesh ? roots.map((root) => onto(mesh, root)) : roots,
      reach: Math.max(p.reach, 1.01 * p.step),
      reached: Math.max(p.reached, 0.51 * p.step),
      step: p.step,
      bias: [0, 1, 0],
      leaning: p.where === 'skin' ? 0 : p.up,
      allowed: p.where === 'skin' && mesh ? (place) => onto(mesh, place) : around ? outOf(around, p.step) : undefined,
      most: MOST,
    },
    () => context.yieldNow(),
  );
  context.claim('points', nodes.parents.length, 'the number of places, or raise Segment length');
  return nodePaths(nodes, { running: p.running, exponent: p.exponent });
}

const onto = (mesh: Mesh, place: Vec3): Vec3 => nearestPlace(mesh, place)?.position ?? place;

/** Places that are not inside a form; those that would be lie just outside of it. */
const outOf =
  (mesh: Mesh, step: number) =>
  (place: Vec3): Vec3 => {
    if (!insideOf(mesh, place)) return place;
    const near = nearestPlace(mesh, place)!;
    const out = unit(sub(near.position, place));
    return byAxis((c) => near.position[c] + 0.2 * step * out[c]);
  };

/** So many places are thrown for one that blue noise takes. */
const CANDIDATES = 5;

/** The places that it grows towards. */
async function placesFor(p: ColoniseParams, mesh: Mesh | null, context: StepContext): Promise<Float32Array> {
  if (p.where === 'points') {
    if (p.growth === null) throw new Problem('No growth is chosen.', 'Choose the growth whose points to grow to.');
    const other = await context.other('growth');
    return other.points ? other.points.positions : pointsOf(other);
  }
  const even = p.spread === 'even';
  const places = await thrown(p, mesh, even ? CANDIDATES * p.count : p.count, context);
  return even ? spreadOut(places, Math.min(p.count, places.length / 3), () => context.yieldNow()) : places;
}

async function thrown(
  p: ColoniseParams,
  mesh: Mesh | null,
  count: number,
  context: StepContext,
): Promise<Float32Array> {
  const { seed } = context;
  if (p.where === 'skin') {
    const places = await scatteredAtRandom(mesh!, count, seed, null, () => context.yieldNow());
    return readPlaces(mesh!, places).positions;
  }
  const target =
    p.where === 'outline'
      ? outlined(await pathsIn(context, 'growth', p.growth), p.depth)
      : mesh
        ? inForm(mesh)
        : inShape(p);
  const out = new Float32Array(3 * count);
  let found = 0;
  // Darts that miss are thrown again; a form that takes up next to nothing of its box is given up.
  for (let dart = 0; found < count && dart < 200 * count + 10_000; dart++) {
    if (dart % 4096 === 4095) await context.yieldNow();
    const u = 2 * random(seed, dart, 0) - 1;
    const v = 2 * random(seed, dart, 1) - 1;
    const w = 2 * random(seed, dart, 2) - 1;
    if (target.within(u, v, w)) target.put(u, v, w, out, 3 * found++);
  }
  return out.slice(0, 3 * found);
}

/** Where darts come to, of −1..1 each way, and whether they hit. */
interface Target {
  within(u: number, v: number, w: number): boolean;
  /** Puts the place of one that hits into a list. */
  put(u: number, v: number, w: number, out: Float32Array, to: number): void;
}

/** The box whose middle and sides are given. */
const boxed =
  (middle: Vec3, sides: Vec3): Target['put'] =>
  (u, v, w, out, to) => {
    out[to] = middle[0] + 0.5 * u * sides[0];
    out[to + 1] = middle[1] + 0.5 * v * sides[1];
    out[to + 2] = middle[2] + 0.5 * w * sides[2];
  };

function inShape(p: ColoniseParams): Target {
  const within: Record<string, Target['within']> = {
    box: () => true,
    ball: (u, v, w) => u * u + v * v + w * w <= 1,
    cone: (u, v, w) => Math.sqrt(u * u + w * w) <= (v + 1) / 2,
  };
  return { within: within[p.where], put: boxed([p.atX, p.atY, p.atZ], [p.width, p.height, p.depth]) };
}

function inForm(mesh: Mesh): Target {
  const { min, max } = boundsOf({ ...emptyForm(), mesh })!;
  const middle = byAxis((c) => (min[c] + max[c]) / 2);
  const sides = byAxis((c) => max[c] - min[c]);
  return {
    within: (u, v, w) =>
      insideOf(mesh, [middle[0] + 0.5 * u * sides[0], middle[1] + 0.5 * v * sides[1], middle[2] + 0.5 * w * sides[2]]),
    put: boxed(middle, sides),
  };
}

/** What closed paths enclose, seen square to the plane that they lie in, about; a hole is what two of them enclose. */
function outlined(paths: Paths, depth: number): Target {
  const contours = Array.from({ length: pathCount(paths) }, (_, l) =>
    Array.from({ length: paths.offsets[l + 1] - paths.offsets[l] }, (_, i) =>
      at(paths.positions, paths.offsets[l] + i),
    ),
  ).filter((contour, l) => paths.closed[l] && contour.length > 2);
  if (contours.length === 0)
    throw new Problem(
      'The chosen growth has no closed path.',
      'Close its path, or choose an outline, letters or a ring.',
    );
  const normal = unit(
    contours.reduce<Vec3>(
      (sum, contour) => {
        const own = ringNormal(contour);
        return dot(own, sum) < 0 ? sub(sum, own) : add(sum, own);
      },
      [0, 0, 0],
    ),
    [0, 0, 1],
  );
  const across = perpendicular(normal);
  const up = cross(normal, across);
  const origin = contours[0][0];
  const flat = contours.map((contour) =>
    contour.flatMap((place) => [dot(sub(place, origin), across), dot(sub(place, origin), up)]),
  );
  const [low, high] = [
    [Infinity, Infinity],
    [-Infinity, -Infinity],
  ];
  for (const contour of flat)
    contour.forEach((value, i) => {
      low[i % 2] = Math.min(low[i % 2], value);
      high[i % 2] = Math.max(high[i % 2], value);
    });
  const [left, bottom] = low;
  const wide = high[0] - left;
  const tall = high[1] - bottom;
  return {
    within: (u, v) => {
      const x = left + ((u + 1) / 2) * wide;
      const y = bottom + ((v + 1) / 2) * tall;
      let around = 0;
      for (const contour of flat) if (inside(contour, x, y)) around++;
      return around % 2 === 1;
    },
    put: (u, v, w, out, to) => {
      const x = left + ((u + 1) / 2) * wide;
      const y = bottom + ((v + 1) / 2) * tall;
      const z = 0.5 * depth * w;
      for (let c = 0; c < 3; c++) out[to + c] = origin[c] + (x * across[c] + y * up[c] + z * normal[c]);
    },
  };
}
