import { colonised } from '../../curves/colonise';
import { nodePaths } from '../../curves/nodePaths';
import { random } from '../../fields/random';
import { spreadOut } from '../../fields/spreadOut';
import { boundsOf, emptyForm } from '../../geometry/form';
import type { Mesh } from '../../geometry/mesh';
import { insideOf, nearestPlace } from '../../geometry/nearest';
import { type Paths, pathCount } from '../../geometry/paths';
import { readPlaces } from '../../geometry/surfacePlaces';
import {
  byAxis,
  add,
  at,
  cross,
  dot,
  perpendicular,
  ringNormal,
  scale,
  sub,
  unit,
  type Vec3,
} from '../../geometry/vec';
import { pointsOf } from '../../checks/distance';
import { Problem } from '../../problem';
import { inside } from '../../outline/region';
import { scatteredAtRandom } from '../../surfaces/scatter';
import type { StepContext } from '../declare';
import type { ColoniseParams } from './colonise';
import { pathsIn, skinIn } from './others';

/** Nodes that a tree may have at most. */
const MOST = 400_000;

/** The paths of a tree that grows towards places. */
export async function colonisedPaths(p: ColoniseParams, context: StepContext): Promise<Paths> {
  const mesh = p.where === 'form' || p.where === 'skin' ? await skinIn(context, 'growth', p.growth) : null;
  const attractors = await placesFor(p, mesh, context);
  const roots = p.roots === null ? [[p.rootX, p.rootY, p.rootZ] as const] : await context.places('roots');
  const around =
    p.around !== null && p.where !== 'skin' && p.where !== 'form' ? await skinIn(context, 'around', p.around) : null;
  const nodes = await colonised(
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
    () => context.breathe(),
  );
  context.claim('points', nodes.parents.length, 'the number of places, or raise Piece');
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
  return even ? spreadOut(places, Math.min(p.count, places.length / 3), () => context.breathe()) : places;
}

async function thrown(
  p: ColoniseParams,
  mesh: Mesh | null,
  count: number,
  context: StepContext,
): Promise<Float32Array> {
  const { seed } = context;
  if (p.where === 'skin') {
    const places = await scatteredAtRandom(mesh!, count, seed, null, () => context.breathe());
    return readPlaces(mesh!, places).positions;
  }
  const { at: placed, within } =
    p.where === 'outline'
      ? outlined(await pathsIn(context, 'growth', p.growth), p.depth)
      : mesh
        ? inForm(mesh)
        : inShape(p);
  const out = new Float32Array(3 * count);
  let found = 0;
  // Darts that miss are thrown again; a form that takes up next to nothing of its box is given up.
  for (let dart = 0; found < count && dart < 200 * count + 10_000; dart++) {
    if (dart % 4096 === 4095) await context.breathe();
    const u = byAxis((c) => 2 * random(seed, dart, c) - 1);
    if (within(u)) out.set(placed(u), 3 * found++);
  }
  return out.slice(0, 3 * found);
}

/** Where darts come to, of −1..1 each way, and whether they hit. */
interface Target {
  at(u: Vec3): Vec3;
  within(u: Vec3): boolean;
}

function inShape(p: ColoniseParams): Target {
  const size = [p.width, p.height, p.depth];
  const middle = [p.atX, p.atY, p.atZ];
  return {
    at: (u) => byAxis((c) => middle[c] + 0.5 * u[c] * size[c]),
    within: (u) => {
      if (p.where === 'ball') return Math.hypot(...u) <= 1;
      return p.where === 'box' || Math.hypot(u[0], u[2]) <= (u[1] + 1) / 2;
    },
  };
}

function inForm(mesh: Mesh): Target {
  const { min, max } = boundsOf({ ...emptyForm(), mesh })!;
  const place = (u: Vec3): Vec3 => byAxis((c) => (min[c] + max[c]) / 2 + (u[c] * (max[c] - min[c])) / 2);
  return { at: place, within: (u) => insideOf(mesh, place(u)) };
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
  const plane = (u: Vec3): [number, number] => [
    low[0] + ((u[0] + 1) / 2) * (high[0] - low[0]),
    low[1] + ((u[1] + 1) / 2) * (high[1] - low[1]),
  ];
  return {
    at: (u) => {
      const [x, y] = plane(u);
      return add(origin, add(add(scale(across, x), scale(up, y)), scale(normal, 0.5 * depth * u[2])));
    },
    within: (u) => {
      const [x, y] = plane(u);
      return flat.filter((contour) => inside(contour, x, y)).length % 2 === 1;
    },
  };
}
