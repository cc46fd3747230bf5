import { borderDistance, type FalloffShape } from '../../fields/falloff';
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
  const { away, told } = await distancesOn(same ? last : mesh, p, context);

  const n = vertexCount(mesh);
  const [front, tip] = [new Float32Array(n), new Float32Array(n)];
  const before = p.combine === 'own' ? null : vertexValues(mesh, 'front');
  const behindBefore = p.combine === 'own' ? null : mesh.tip;
  const { reach, soft, combine } = p;
  for (let i = 0; i < n; i++) {
    // Nothing has set out while there is no reach.
    let behind = reach > 0 ? reach - told[i] : -Math.max(1e-6, told[i]);
    let own = soft > 0 ? smooth(behind / soft) : behind >= 0 ? 1 : 0;
    if (before) own = combine === 'undo' ? before[i] * (1 - own) : 1 - (1 - before[i]) * (1 - own);
    // What is taken back ends at the nearer of both edges.
    if (behindBefore)
      behind = combine === 'undo' ? Math.min(behindBefore[i], -behind) : Math.max(behindBefore[i], behind);
    front[i] = own;
    tip[i] = behind;
  }
  let { age } = mesh;
  if (context.wanted('age') && combine !== 'undo') {
    const [first, end] = context.range;
    const frames = (count: number): number => Math.min(MOST_FRAMES, Math.max(0, Math.ceil(count)));
    const span = [frames(context.frame - first) + 240, frames(end - context.frame) + 1] as const;
    const own = agesOfReach(away, (ago) => context.numberAt('reach', context.frame - ago), span, context.fps);
    // Of two fronts the first to come counts.
    const earlier = age;
    age = earlier && combine === 'both' ? own.map((value, i) => Math.max(value, earlier[i])) : own;
  }
  const named = { ...mesh.named, front: vertexAttribute(front), distance: vertexAttribute(told) };
  return { ...mesh, tip, age, named };
}

const vertexAttribute = (values: Float32Array): Attribute => ({
  domain: 'vertex',
  width: 1,
  blend: 'mix',
  missing: 0,
  values,
});

const smooth = (t: number): number => {
  const x = Math.min(1, Math.max(0, t));
  return x * x * (3 - 2 * x);
};

/** What a front sets out from, in few words. */
type Start =
  { side: 1 | -1 } | { inside: FalloffShape } | { count: number; seed: number } | { points: readonly Vec3[] };

/** Distances of each vertex from where a front sets out, metres. */
interface Distances {
  /** Infinity where it never comes. */
  away: Float64Array;
  /** The same as others are told: where it never comes it is as far as single precision tells. */
  told: Float32Array;
}

/** Distances that have been found on a mesh, by what they were found with. */
const known = new WeakMap<Mesh, Map<string, Distances>>();
/** Sets of distances kept of a mesh: a guide that moves would fill it. */
const KEPT = 4;
/** As far as a front that never comes is said to be away, metres. */
const FAR = 1e6;

async function distancesOn(mesh: Mesh, p: FrontParams, context: StepContext): Promise<Distances> {
  const start = await startOn(mesh, p, context);
  const along = p.way === 'along';
  const edge = p.rough > 0 ? [p.rough, p.grain, context.seed] : 0;
  const key = JSON.stringify([start, edge, along ? [p.slowBy, p.slow, p.gap] : 0]);
  const of = known.get(mesh) ?? new Map<string, Distances>();
  known.set(mesh, of);
  const found = of.get(key);
  if (found) return found;
  const even = along ? await alongSurface(mesh, start, p, context) : await straight(mesh, start, context);
  const away = roughened(even, mesh, p, context.seed);
  const made = { away, told: Float32Array.from(away, (d) => Math.min(FAR, d)) };
  if (of.size >= KEPT) of.clear();
  of.set(key, made);
  return made;
}

/** Distances with an edge that runs ahead here and lags there; never below 0. */
function roughened(away: Float64Array, mesh: Mesh, p: FrontParams, seed: number): Float64Array {
  if (p.rough === 0) return away;
  const shape = { detail: 3, roughness: 0.55, seed, period: 0 };
  const out = new Float64Array(3);
  return away.map((d, i) => {
    const [x, y, z] = at(mesh.positions, i);
    noise3(x / p.grain, y / p.grain, z / p.grain, 0, shape, out);
    return Math.max(0, d + p.rough * out[0]);
  });
}

async function startOn(mesh: Mesh, p: FrontParams, context: StepContext): Promise<Start> {
  switch (p.from) {
    case 'bottom':
      return { side: 1 };
    case 'top':
      return { side: -1 };
    case 'random':
      return { count: p.count, seed: context.seed };
    case 'clicked':
      if (p.places.length === 0)
        throw new Problem('No place is clicked yet.', 'Press Place, then click on the form in the view.');
      return { points: p.places.map(([x, y, z]) => [x, y, z]) };
    case 'growth':
      return { points: await nearestToGrowth(mesh, p, context) };
    default: {
      if (p.guide === null) throw new Problem('No guide is chosen.', 'Choose a guide or the tips of a growth.');
      const guide = context.guide('guide');
      if (!guide || guide.kind === 'point') return { points: await context.places('guide') };
      const { kind: which, position: centre, rotation, size } = guide;
      return { inside: { which, centre, rotation, size, soft: 0 } };
    }
  }
}

/** The place of a mesh that another growth comes nearest to; none where there is nothing of it. */
async function nearestToGrowth(mesh: Mesh, p: FrontParams, context: StepContext): Promise<readonly Vec3[]> {
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

async function alongSurface(mesh: Mesh, start: Start, p: FrontParams, context: StepContext): Promise<Float64Array> {
  const slowness = p.slowBy === '' || p.slow === 0 ? null : slownessOf(mesh, p);
  const breathe = (): Promise<void> => context.breathe();
  const origins = await originsOf(mesh, start, breathe);
  const byPlace = await distancesAlong(mesh, origins, { slowness, gap: p.gap }, breathe);
  return Float64Array.from(topologyOf(mesh).weld.of, (place) => byPlace[place]);
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
async function originsOf(mesh: Mesh, start: Start, breathe: () => Promise<void>): Promise<Origins> {
  if (faceCount(mesh) === 0) return { places: NOWHERE };
  const { first } = topologyOf(mesh).weld;
  if ('side' in start) {
    const up = heights(mesh, start.side);
    const [low, high] = extremes(up);
    const near = low + 1e-4 * (high - low);
    const reached = Array.from(first.keys()).filter((place) => up[first[place]] <= near);
    return { places: NOWHERE, reached: reached.map((place) => [place, 0]) };
  }
  if ('inside' in start) {
    const away = borderDistance(start.inside);
    return {
      places: NOWHERE,
      reached: bordering(
        mesh,
        Float64Array.from(first, (i) => away(at(mesh.positions, i))),
      ),
    };
  }
  if ('count' in start) return { places: await new BlueNoise(mesh, start.seed, null).first(start.count, breathe) };
  const found = start.points.flatMap((point) => nearestPlace(mesh, point) ?? []);
  return {
    places: {
      faces: Uint32Array.from(found, ({ face }) => face),
      weights: Float32Array.from(found.flatMap(({ weights }) => weights)),
    },
  };
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

/** Height of each vertex, upside down for −1. */
const heights = ({ positions }: Mesh, side: 1 | -1): Float64Array =>
  Float64Array.from({ length: positions.length / 3 }, (_, i) => side * positions[3 * i + 1]);

function extremes(values: Float64Array): readonly [low: number, high: number] {
  let [low, high] = [Infinity, -Infinity];
  for (const value of values) {
    low = Math.min(low, value);
    high = Math.max(high, value);
  }
  return [low, high];
}

/** Straight distances of each vertex from where it sets out. */
async function straight(mesh: Mesh, start: Start, context: StepContext): Promise<Float64Array> {
  if ('side' in start) {
    const up = heights(mesh, start.side);
    const [low] = extremes(up);
    return up.map((height) => height - low);
  }
  const away = 'inside' in start ? borderDistance(start.inside) : null;
  let starts = 'points' in start ? start.points : [];
  if ('count' in start) {
    const { places } = await originsOf(mesh, start, () => context.breathe());
    const { positions } = readPlaces(mesh, places);
    starts = Array.from({ length: start.count }, (_, k) => at(positions, k));
  }
  return Float64Array.from({ length: vertexCount(mesh) }, (_, i) => {
    const place = at(mesh.positions, i);
    if (away) return Math.max(0, away(place));
    return starts.reduce((least, from) => Math.min(least, distance(place, from)), Infinity);
  });
}
