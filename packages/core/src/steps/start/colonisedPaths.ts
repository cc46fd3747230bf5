import { colonised } from '../../curves/colonise';
import { nodePaths, type Running } from '../../curves/nodePaths';
import { random } from '../../fields/random';
import { wholeMesh } from '../../geometry/copies';
import { boundsOf, emptyForm } from '../../geometry/form';
import { type Mesh } from '../../geometry/mesh';
import { insideOf, nearestPlace } from '../../geometry/nearest';
import { type Paths } from '../../geometry/paths';
import { readPlaces } from '../../geometry/surfacePlaces';
import { sub, unit, type Vec3 } from '../../geometry/vec';
import { pointsOf } from '../../checks/distance';
import { Problem } from '../../problem';
import { scatteredAtRandom } from '../../surfaces/scatter';
import { type StepContext } from '../declare';
import { type ColoniseParams } from './colonise';

/** Nodes that a tree may have at most. */
const MOST = 400_000;

/** The paths of a tree that grows towards places. */
export async function colonisedPaths(p: ColoniseParams, context: StepContext): Promise<Paths> {
  const mesh = p.where === 'form' || p.where === 'skin' ? await skinOf('growth', p.growth, context) : null;
  const attractors = await placesFor(p, mesh, context);
  const roots = p.roots === null ? [[p.rootX, p.rootY, p.rootZ] as const] : await context.places('roots');
  const around =
    p.around !== null && p.where !== 'skin' && p.where !== 'form' ? await skinOf('around', p.around, context) : null;
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
  return nodePaths(nodes, { running: p.running as Running, exponent: p.exponent });
}

async function skinOf(param: string, chosen: string | null, context: StepContext): Promise<Mesh> {
  if (chosen === null) throw new Problem('No growth is chosen.', 'Choose the growth that it goes by.');
  const mesh = wholeMesh(await context.other(param));
  if (!mesh) throw new Problem('The chosen growth has no skin.', 'Give it one, or choose another growth.');
  return mesh;
}

const onto = (mesh: Mesh, place: Vec3): Vec3 => nearestPlace(mesh, place)?.position ?? place;

/** Places that are not inside a form; those that would be lie just outside of it. */
const outOf =
  (mesh: Mesh, step: number) =>
  (place: Vec3): Vec3 => {
    if (!insideOf(mesh, place)) return place;
    const near = nearestPlace(mesh, place)!;
    const out = unit(sub(near.position, place));
    return [0, 1, 2].map((c) => near.position[c] + 0.2 * step * out[c]) as unknown as Vec3;
  };

/** The places that it grows towards. */
async function placesFor(p: ColoniseParams, mesh: Mesh | null, context: StepContext): Promise<Float32Array> {
  if (p.where === 'points') {
    if (p.growth === null) throw new Problem('No growth is chosen.', 'Choose the growth whose points to grow to.');
    const other = await context.other('growth');
    return other.points ? other.points.positions : pointsOf(other);
  }
  const { seed } = context;
  if (p.where === 'skin') {
    const places = await scatteredAtRandom(mesh!, p.count, seed, null, () => context.breathe());
    return readPlaces(mesh!, places).positions;
  }
  const out = new Float32Array(3 * p.count);
  const box = mesh ? boundsOf({ ...emptyForm(), mesh })! : null;
  const middle: Vec3 = box
    ? (box.min.map((low, c) => (low + box.max[c]) / 2) as unknown as Vec3)
    : [p.atX, p.atY, p.atZ];
  const size: Vec3 = box ? sub(box.max, box.min) : [p.width, p.height, p.depth];
  const within = (u: Vec3): boolean => {
    if (p.where === 'ball') return Math.hypot(...u) <= 1;
    if (p.where === 'cone') return Math.hypot(u[0], u[2]) <= (u[1] + 1) / 2;
    return (
      p.where === 'box' || insideOf(mesh!, [0, 1, 2].map((c) => middle[c] + (u[c] * size[c]) / 2) as unknown as Vec3)
    );
  };
  let found = 0;
  // Darts that miss are thrown again; a form that takes up next to nothing of its box is given up.
  for (let dart = 0; found < p.count && dart < 200 * p.count + 10_000; dart++) {
    if (dart % 4096 === 4095) await context.breathe();
    const u = [0, 1, 2].map((c) => 2 * random(seed, dart, c) - 1) as unknown as Vec3;
    if (!within(u)) continue;
    out.set(
      [0, 1, 2].map((c) => middle[c] + 0.5 * u[c] * size[c]),
      3 * found++,
    );
  }
  return out.slice(0, 3 * found);
}
