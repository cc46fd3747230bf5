import { borderDistance } from '../../fields/falloff';
import { noise3 } from '../../fields/noise';
import { pointsOf } from '../../checks/distance';
import { type Attribute } from '../../geometry/attributes';
import { faceCount, type Mesh, vertexCount } from '../../geometry/mesh';
import { vertexValues } from '../../geometry/meshAttributes';
import { nearestPlace } from '../../geometry/nearest';
import { type SurfacePlaces, readPlaces } from '../../geometry/surfacePlaces';
import { topologyOf } from '../../geometry/topology';
import { at, distance, type Vec3 } from '../../geometry/vec';
import { Problem } from '../../problem';
import { BlueNoise } from '../../surfaces/scatter';
import { distancesAlong, type Origins } from '../../surfaces/wavefront';
import { agesOfReach } from '../../time/arrival';
import { type StepContext } from '../declare';
import { type FrontParams } from './front';

/** Frames looked at at most, back and ahead. */
const MOST_FRAMES = 2000;

/** A mesh that knows how far a front has come on it. */
export async function withFront(mesh: Mesh, p: FrontParams, context: StepContext): Promise<Mesh> {
  // Distances are those on the form as it stands at the last frame: they do not change while it moves.
  const last = (await context.inputAtLast()).mesh;
  const same = last && faceCount(last) === faceCount(mesh) && vertexCount(last) === vertexCount(mesh);
  const rest = same ? last : mesh;
  const away = roughened(await distancesOn(rest, p, context), rest, p, context.seed);

  const n = vertexCount(mesh);
  const [front, tip] = [new Float32Array(n), new Float32Array(n)];
  const before = p.combine === 'own' ? null : vertexValues(mesh, 'front');
  const behindBefore = p.combine === 'own' ? null : mesh.tip;
  for (let i = 0; i < n; i++) {
    // Nothing has set out while there is no reach; where it never comes it is as far away as single precision tells.
    let behind = p.reach > 0 ? Math.max(-1e6, p.reach - away[i]) : -Math.max(1e-6, Math.min(1e6, away[i]));
    let own = p.soft > 0 ? smooth(behind / p.soft) : behind >= 0 ? 1 : 0;
    if (before) own = p.combine === 'undo' ? before[i] * (1 - own) : 1 - (1 - before[i]) * (1 - own);
    // What is taken back ends at the nearer of both edges.
    if (behindBefore)
      behind = p.combine === 'undo' ? Math.min(behindBefore[i], -behind) : Math.max(behindBefore[i], behind);
    front[i] = own;
    tip[i] = behind;
  }
  let { age } = mesh;
  if (context.wanted('age') && p.combine !== 'undo') {
    const [first, end] = context.range;
    const frames = (count: number): number => Math.min(MOST_FRAMES, Math.max(0, Math.ceil(count)));
    const span = [frames(context.frame - first) + 240, frames(end - context.frame) + 1] as const;
    const own = agesOfReach(away, (ago) => context.numberAt('reach', context.frame - ago), span, context.fps);
    // Of two fronts the first to come counts.
    const earlier = age;
    age = earlier && p.combine === 'both' ? own.map((value, i) => Math.max(value, earlier[i])) : own;
  }
  const named = { ...mesh.named, front: vertexAttribute(front), distance: vertexAttribute(finite(away)) };
  return { ...mesh, tip, age, named };
}

const vertexAttribute = (values: Float32Array): Attribute => ({
  domain: 'vertex',
  width: 1,
  blend: 'mix',
  missing: 0,
  values,
});

const finite = (values: Float64Array): Float32Array => Float32Array.from(values, (value) => Math.min(1e6, value));

const smooth = (t: number): number => {
  const x = Math.min(1, Math.max(0, t));
  return x * x * (3 - 2 * x);
};

/** Distances with an edge that runs ahead here and lags there; never below 0. */
function roughened(away: Float64Array, rest: Mesh, p: FrontParams, seed: number): Float64Array {
  if (p.rough === 0) return away;
  const shape = { detail: 3, roughness: 0.55, seed, period: 0 };
  const out = new Float64Array(3);
  return away.map((d, i) => {
    const [x, y, z] = at(rest.positions, i);
    noise3(x / p.grain, y / p.grain, z / p.grain, 0, shape, out);
    return Math.max(0, d + p.rough * out[0]);
  });
}

/** Distances that have been found on a mesh, by what they were found with. */
const known = new WeakMap<Mesh, Map<string, Float64Array>>();
/** Sets of distances kept of a mesh: a guide that moves would fill it. */
const KEPT = 4;

/** Distance of each vertex from where the front sets out, metres; Infinity where it never comes. */
async function distancesOn(mesh: Mesh, p: FrontParams, context: StepContext): Promise<Float64Array> {
  if (p.way === 'straight') return straight(mesh, p, context);
  const origins = await originsOn(mesh, p, context);
  const slowness = p.slowBy === '' || p.slow === 0 ? null : slownessOf(mesh, p);
  const key = JSON.stringify([
    Array.from(origins.places.faces),
    Array.from(origins.places.weights),
    origins.reached,
    p.slowBy,
    p.slow,
    p.gap,
  ]);
  const of = known.get(mesh) ?? new Map<string, Float64Array>();
  known.set(mesh, of);
  const found = of.get(key);
  if (found) return found;
  const breathe = (): Promise<void> => context.breathe();
  const byPlace = await distancesAlong(mesh, origins, { slowness, gap: p.gap }, breathe);
  const { of: placeOf } = topologyOf(mesh).weld;
  const made = Float64Array.from(placeOf, (place) => byPlace[place]);
  if (of.size >= KEPT) of.clear();
  of.set(key, made);
  return made;
}

/** How slow the front is at each place of a mesh; Infinity where it stops. */
function slownessOf(mesh: Mesh, p: FrontParams): Float64Array {
  const values = vertexValues(mesh, p.slowBy);
  if (!values)
    throw new Problem(`No step before it writes the attribute “${p.slowBy}”.`, 'Choose another, or add Measure first.');
  return Float64Array.from(topologyOf(mesh).weld.first, (vertex) => {
    const left = 1 - p.slow * Math.min(1, Math.max(0, values[vertex]));
    return left > 1e-4 ? 1 / left : Infinity;
  });
}

const NOWHERE: SurfacePlaces = { faces: new Uint32Array(0), weights: new Float32Array(0) };

/** Where on a mesh the front sets out. */
async function originsOn(mesh: Mesh, p: FrontParams, context: StepContext): Promise<Origins> {
  if (faceCount(mesh) === 0) return { places: NOWHERE };
  const { first } = topologyOf(mesh).weld;
  switch (p.from) {
    case 'bottom':
    case 'top': {
      const side = p.from === 'bottom' ? 1 : -1;
      const [low, high] = heights(mesh, side);
      const near = low + 1e-4 * (high - low);
      return {
        places: NOWHERE,
        reached: withDistance(first, (i) => (side * mesh.positions[3 * i + 1] <= near ? 0 : null)),
      };
    }
    case 'guide': {
      const guide = p.guide === null ? null : context.guide('guide');
      if (guide && guide.kind !== 'point') {
        const away = borderDistance({
          which: guide.kind,
          centre: guide.position,
          rotation: guide.rotation,
          size: guide.size,
          soft: 0,
        });
        const beyond = Float64Array.from(first, (i) => away(at(mesh.positions, i)));
        return { places: NOWHERE, reached: bordering(mesh, beyond) };
      }
      return { places: nearestTo(mesh, await starts(p, context)) };
    }
    case 'random':
      return { places: await new BlueNoise(mesh, context.seed, null).first(p.count, () => context.breathe()) };
    default:
      return { places: nearestTo(mesh, await startsFor(mesh, p, context)) };
  }
}

/** What lies inside a border, and what is the next beyond it. @param beyond signed distance of each place from the border */
function bordering(mesh: Mesh, beyond: Float64Array): Origins['reached'] {
  const { corners } = topologyOf(mesh);
  const found = new Map<number, number>();
  beyond.forEach((d, place) => {
    if (d <= 0) found.set(place, 0);
  });
  for (let c = 0; c < corners.length; c += 3) {
    const own = [corners[c], corners[c + 1], corners[c + 2]];
    if (own.some((place) => beyond[place] <= 0)) for (const place of own) found.set(place, Math.max(0, beyond[place]));
  }
  return [...found];
}

/** Height of the lowest and of the highest place, upside down for −1. */
function heights({ positions }: Mesh, side: 1 | -1): readonly [number, number] {
  let [low, high] = [Infinity, -Infinity];
  for (let i = 1; i < positions.length; i += 3) {
    low = Math.min(low, side * positions[i]);
    high = Math.max(high, side * positions[i]);
  }
  return [low, high];
}

function withDistance(first: Uint32Array, distanceOf: (vertex: number) => number | null): [number, number][] {
  const found: [number, number][] = [];
  first.forEach((vertex, place) => {
    const d = distanceOf(vertex);
    if (d !== null) found.push([place, d]);
  });
  return found;
}

/** The places in space that it sets out from. */
async function starts(p: FrontParams, context: StepContext): Promise<readonly Vec3[]> {
  if (p.from === 'clicked') {
    if (p.places.length === 0)
      throw new Problem('No place is clicked yet.', 'Press Place, then click on the form in the view.');
    return p.places.map(([x, y, z]) => [x, y, z]);
  }
  if (p.guide === null) throw new Problem('No guide is chosen.', 'Choose a guide or the tips of a growth.');
  return context.places('guide');
}

/** The same, where the form itself has a say in it. */
async function startsFor(mesh: Mesh, p: FrontParams, context: StepContext): Promise<readonly Vec3[]> {
  if (p.from !== 'growth') return starts(p, context);
  if (p.growth === null) throw new Problem('No growth is chosen.', 'Choose the growth where the front sets out.');
  const points = pointsOf(await context.other('growth'));
  let [best, place]: [number, Vec3 | null] = [Infinity, null];
  for (let i = 0; 3 * i < points.length; i++) {
    if (i % 1024 === 0) await context.breathe();
    const near = nearestPlace(mesh, at(points, i));
    if (near && near.distance < best) [best, place] = [near.distance, near.position];
  }
  return place ? [place] : [];
}

function nearestTo(mesh: Mesh, points: readonly Vec3[]): SurfacePlaces {
  const found = points.flatMap((point) => nearestPlace(mesh, point) ?? []);
  return {
    faces: Uint32Array.from(found, ({ face }) => face),
    weights: Float32Array.from(found.flatMap(({ weights }) => weights)),
  };
}

/** Straight distances of each vertex from where it sets out. */
async function straight(mesh: Mesh, p: FrontParams, context: StepContext): Promise<Float64Array> {
  const n = vertexCount(mesh);
  if (p.from === 'bottom' || p.from === 'top') {
    const side = p.from === 'bottom' ? 1 : -1;
    const [low] = heights(mesh, side);
    return Float64Array.from({ length: n }, (_, i) => side * mesh.positions[3 * i + 1] - low);
  }
  const guide = p.from === 'guide' && p.guide !== null ? context.guide('guide') : null;
  if (guide && guide.kind !== 'point') {
    const away = borderDistance({
      which: guide.kind,
      centre: guide.position,
      rotation: guide.rotation,
      size: guide.size,
      soft: 0,
    });
    return Float64Array.from({ length: n }, (_, i) => Math.max(0, away(at(mesh.positions, i))));
  }
  const places =
    p.from === 'random'
      ? readPlaces(mesh, (await originsOn(mesh, p, context)).places).positions
      : Float32Array.from((await startsFor(mesh, p, context)).flat());
  const starts = Array.from({ length: places.length / 3 }, (_, k) => at(places, k));
  return Float64Array.from({ length: n }, (_, i) => {
    const place = at(mesh.positions, i);
    return starts.reduce((least, start) => Math.min(least, distance(place, start)), Infinity);
  });
}
