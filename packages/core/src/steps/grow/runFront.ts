import { filled, mapped } from '../../geometry/filled';
import { borderDistance, type FalloffShape } from '../../fields/falloff';
import { distancesInGraph, pathGraph, type PathGraph } from '../../curves/pathGraph';
import { noise3 } from '../../fields/noise';
import { random } from '../../fields/random';
import { smoothstep } from '../../fields/smoothstep';
import { pointsOf } from '../../geometry/formPoints';
import { oneNumber } from '../../geometry/attributes';
import type { Form } from '../../geometry/form';
import { faceCount, type Mesh, vertexCount } from '../../geometry/mesh';
import { unwritten, vertexValues } from '../../geometry/meshAttributes';
import { treeInTime } from '../../geometry/search/meshTree';
import { nearestPlace } from '../../geometry/search/nearest';
import { type SurfacePlaces, readPlaces } from '../../geometry/topology/surfacePlaces';
import { topologyInTime, topologyOf } from '../../geometry/topology/topology';
import { type Paths, pathCount, pointCount } from '../../geometry/paths';
import { pointValues } from '../../geometry/pathAttributes';
import { at, distance, type Vec3 } from '../../geometry/vec';
import { Problem } from '../../problem';
import { BlueNoise } from '../../surfaces/scatter/scatterMesh';
import { distancesAlong, type Origins } from '../../surfaces/fronts/wavefront';
import { agesOfReach } from '../../time/arrival';
import type { StepContext } from '../declare';
import type { FrontParams } from './front';

/** So many places between two yields. */
const CHUNK = 8192;
/** Frames looked at at most, back and ahead. */
const MOST_FRAMES = 2000;

/** A mesh that knows how far a front has come on it. */
export async function runFrontOnMesh(mesh: Mesh, p: FrontParams, context: StepContext): Promise<Mesh> {
  // Distances are those on the form as it stands at the last frame: they do not change while it moves.
  const last = (await context.inputAtLast()).mesh;
  const same = last && faceCount(last) === faceCount(mesh) && vertexCount(last) === vertexCount(mesh);
  const distances = await kept(same ? last : mesh, p, context, onMesh);
  const before = p.combine === 'own' ? null : { front: vertexValues(mesh, 'front'), tip: mesh.tip };
  const { front, tip, age } = fronted(distances, p, context, before, mesh.age);
  const named = { ...mesh.named, front: oneNumber('vertex', front), distance: oneNumber('vertex', distances.told) };
  return { ...mesh, tip, age, named };
}

/** Paths that know how far a front has come along them. */
export async function runFrontOnPaths(paths: Paths, p: FrontParams, context: StepContext): Promise<Paths> {
  const last = (await context.inputAtLast()).paths;
  const same = last && pointCount(last) === pointCount(paths) && pathCount(last) === pathCount(paths);
  const distances = await kept(same ? last : paths, p, context, onPaths);
  const { named } = paths;
  const before = p.combine === 'own' ? null : { front: named.front?.values ?? null, tip: named.tip?.values ?? null };
  const { front, tip, age } = fronted(distances, p, context, before, paths.age);
  const own = { front, tip, distance: distances.told };
  const told = Object.entries(own).map(([name, values]) => [name, oneNumber('point', values)] as const);
  return { ...paths, age, named: { ...named, ...Object.fromEntries(told) } };
}

interface Fronted {
  front: Float32Array;
  tip: Float32Array;
  age: Float32Array | null;
}

/** How far the front has come at each place. @param before what an earlier front did there, where both go together */
function fronted(
  { away, told }: Distances,
  p: FrontParams,
  context: StepContext,
  before: { front: ArrayLike<number> | null; tip: ArrayLike<number> | null } | null,
  age: Float32Array | null,
): Fronted {
  const n = told.length;
  const [front, tip] = [new Float32Array(n), new Float32Array(n)];
  const { reach, soft, combine } = p;
  for (let i = 0; i < n; i++) {
    // Nothing has set out while there is no reach.
    let behind = reach > 0 ? reach - told[i] : -Math.max(1e-6, told[i]);
    let own = soft > 0 ? smoothstep(behind / soft) : behind >= 0 ? 1 : 0;
    const earlier = before?.front?.[i];
    if (earlier !== undefined) own = combine === 'undo' ? earlier * (1 - own) : 1 - (1 - earlier) * (1 - own);
    // What is taken back ends at the nearer of both edges.
    const edge = before?.tip?.[i];
    if (edge !== undefined) behind = combine === 'undo' ? Math.min(edge, -behind) : Math.max(edge, behind);
    front[i] = own;
    tip[i] = behind;
  }
  if (!context.wanted('age') || combine === 'undo') return { front, tip, age };
  const [first, end] = context.range;
  const frames = (count: number): number => Math.min(MOST_FRAMES, Math.max(0, Math.ceil(count)));
  const span = [frames(context.frame - first) + 240, frames(end - context.frame) + 1] as const;
  const own = agesOfReach(away, (ago) => context.numberAt('reach', context.frame - ago), span, context.fps);
  // Of two fronts the first to come counts.
  return { front, tip, age: age && combine === 'both' ? own.map((value, i) => Math.max(value, age[i])) : own };
}

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

/** What a front can spread over, and how distances are found on it. */
type Finder<T> = (on: T, start: Start, p: FrontParams, context: StepContext) => Promise<Float64Array>;

/** Distances that have been found on a mesh or on paths, by what they were found with. */
const known = new WeakMap<object, Map<string, Distances>>();
/** Sets of distances kept of each: a guide that moves would fill it. */
const KEPT = 4;
/** As far as a front that never comes is said to be away, metres. */
const FAR = 1e6;

async function kept<T extends Mesh | Paths>(
  on: T,
  p: FrontParams,
  context: StepContext,
  find: Finder<T>,
): Promise<Distances> {
  const start = await startOn(on, p, context);
  const edge = p.rough > 0 ? [p.rough, p.grain, context.seed] : 0;
  const key = JSON.stringify([p.way, start, edge, p.way === 'along' ? [p.slowBy, p.slow, p.gap] : 0]);
  const of = known.get(on) ?? new Map<string, Distances>();
  known.set(on, of);
  const found = of.get(key);
  if (found) return found;
  const away = await roughened(await find(on, start, p, context), on.positions, p, context);
  const made = { away, told: mapped(Float32Array, away, (d) => Math.min(FAR, d)) };
  if (of.size >= KEPT) of.clear();
  of.set(key, made);
  return made;
}

const onMesh: Finder<Mesh> = async (mesh, start, p, context) => {
  const yieldNow = (): Promise<void> => context.yieldNow();
  const topology = await topologyInTime(mesh, yieldNow);
  if (p.way === 'straight') {
    const drawn = 'count' in start ? (await originsOf(mesh, start, yieldNow)).places : null;
    return straight(mesh.positions, start, drawn ? points(readPlaces(mesh, drawn).positions) : []);
  }
  const slowness = slownessOf(p, vertexValues(mesh, p.slowBy));
  const { of, first } = topology.weld;
  const origins = await originsOf(mesh, start, yieldNow);
  const slow = slowness && mapped(Float64Array, first, slowness);
  const byPlace = await distancesAlong(mesh, origins, { slowness: slow, gap: p.gap }, yieldNow);
  return mapped(Float64Array, of, (place) => byPlace[place]);
};

const onPaths: Finder<Paths> = async (paths, start, p, context) => {
  const drawn = 'count' in start ? drawnPoints(paths, start.count, start.seed) : [];
  if (p.way === 'straight') return straight(paths.positions, start, drawn);
  const yieldNow = (): Promise<void> => context.yieldNow();
  const graph = await pathGraph(paths, yieldNow);
  const slowness = slownessOf(p, p.slowBy === '' ? null : pointValues(paths, p.slowBy));
  const reached = await reachedOn(paths, graph, start, drawn, yieldNow);
  const pace = (place: number): number => (slowness ? slowness(graph.first[place]) : 1);
  const byPlace = await distancesInGraph(graph, reached, pace, yieldNow);
  return mapped(Float64Array, graph.of, (place) => byPlace[place]);
};

/** Points of paths by chance. */
function drawnPoints(paths: Paths, count: number, seed: number): Vec3[] {
  const n = pointCount(paths);
  return n === 0 ? [] : Array.from({ length: count }, (_, k) => at(paths.positions, Math.floor(random(seed, k) * n)));
}

/** Places of paths from which a front goes on, with their distances. */
async function reachedOn(
  paths: Paths,
  graph: PathGraph,
  start: Start,
  drawn: readonly Vec3[],
  yieldNow: () => Promise<void>,
): Promise<(readonly [place: number, distance: number])[]> {
  const { of, first, ends, lengths } = graph;
  const reached: (readonly [place: number, distance: number])[] = [];
  if ('side' in start || 'inside' in start) {
    const away = straight(paths.positions, start, []);
    const near = 'side' in start ? 1e-4 * extremes(away)[1] : 0;
    for (let place = 0; place < first.length; place++) if (away[first[place]] <= near) reached.push([place, 0]);
    return reached;
  }
  for (const point of 'points' in start ? start.points : drawn) {
    await yieldNow();
    const [piece, share] = nearestPiece(paths.positions, graph, point);
    if (piece >= 0) {
      reached.push([ends[2 * piece], share * lengths[piece]]);
      reached.push([ends[2 * piece + 1], (1 - share) * lengths[piece]]);
    } else if (of.length > 0) reached.push([0, 0]);
  }
  return reached;
}

/** The piece that comes nearest to a point, −1 where there is none, and how far along it. */
function nearestPiece(
  positions: Float32Array,
  { first, ends, lengths }: PathGraph,
  [x, y, z]: Vec3,
): readonly [piece: number, share: number] {
  let best = Infinity;
  let piece = -1;
  let share = 0;
  for (let e = 0; e < lengths.length; e++) {
    const a = 3 * first[ends[2 * e]];
    const b = 3 * first[ends[2 * e + 1]];
    const wx = positions[b] - positions[a];
    const wy = positions[b + 1] - positions[a + 1];
    const wz = positions[b + 2] - positions[a + 2];
    const fx = x - positions[a];
    const fy = y - positions[a + 1];
    const fz = z - positions[a + 2];
    const t = Math.min(1, Math.max(0, (fx * wx + fy * wy + fz * wz) / (wx * wx + wy * wy + wz * wz || 1)));
    const gap = (fx - t * wx) ** 2 + (fy - t * wy) ** 2 + (fz - t * wz) ** 2;
    if (gap >= best) continue;
    best = gap;
    piece = e;
    share = t;
  }
  return [piece, share];
}

/** Distances with an edge that runs ahead here and lags there; never below 0. */
async function roughened(
  away: Float64Array,
  positions: Float32Array,
  { rough, grain }: FrontParams,
  context: StepContext,
): Promise<Float64Array> {
  if (rough === 0) return away;
  const shape = { detail: 3, roughness: 0.55, seed: context.seed, period: 0 };
  const noise = new Float64Array(1);
  const out = new Float64Array(away.length);
  for (let i = 0; i < away.length; i++) {
    if (i % CHUNK === 0) await context.yieldNow();
    noise3(positions[3 * i] / grain, positions[3 * i + 1] / grain, positions[3 * i + 2] / grain, 0, shape, noise);
    out[i] = Math.max(0, away[i] + rough * noise[0]);
  }
  return out;
}

async function startOn(on: Mesh | Paths, p: FrontParams, context: StepContext): Promise<Start> {
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
      return { points: await nearestToGrowth(on, p, context) };
    default: {
      if (p.guide === null) throw new Problem('No guide is chosen.', 'Choose a guide or the tips of a growth.');
      const guide = context.guide('guide');
      if (!guide || guide.kind === 'point') return { points: await context.places('guide') };
      const { kind: which, position: centre, rotation, size } = guide;
      return { inside: { which, centre, rotation, size, soft: 0 } };
    }
  }
}

/** The place that another growth comes nearest to; none where there is nothing of it. */
async function nearestToGrowth(on: Mesh | Paths, p: FrontParams, context: StepContext): Promise<readonly Vec3[]> {
  if (p.growth === null) throw new Problem('No growth is chosen.', 'Choose the growth where the front sets out.');
  const other = await context.other('growth');
  const before = nearest.get(other);
  if (before?.on === on) return before.places;
  const others = pointsOf(other);
  if ('indices' in on) await treeInTime(on, () => context.yieldNow());
  let [best, place]: [number, Vec3 | null] = [Infinity, null];
  for (let i = 0; 3 * i < others.length; i++) {
    if (i % 16 === 0) await context.yieldNow();
    const point = at(others, i);
    const near = 'indices' in on ? nearestPlace(on, point) : nearestPoint(on, point);
    if (near && near.distance < best) [best, place] = [near.distance, near.position];
  }
  const places = place ? [place] : [];
  nearest.set(other, { on, places });
  return places;
}

/** Where a growth comes nearest to what a front spreads over, as it was found last: other frames ask again. */
const nearest = new WeakMap<Form, { on: Mesh | Paths; places: readonly Vec3[] }>();

function nearestPoint({ positions }: Paths, point: Vec3): { position: Vec3; distance: number } | null {
  const [x, y, z] = point;
  let best = Infinity;
  let found = -1;
  for (let i = 0; i < positions.length; i += 3) {
    const away = (positions[i] - x) ** 2 + (positions[i + 1] - y) ** 2 + (positions[i + 2] - z) ** 2;
    if (away >= best) continue;
    best = away;
    found = i;
  }
  return found < 0 ? null : { position: at(positions, found / 3), distance: Math.sqrt(best) };
}

/** How slow the front is at each place, by the values of the attribute that slows it; Infinity where it stops, null where nothing does. */
function slownessOf(p: FrontParams, values: ArrayLike<number> | null): ((i: number) => number) | null {
  if (p.slowBy === '' || p.slow === 0) return null;
  if (!values) throw unwritten(p.slowBy);
  return (i) => {
    const left = 1 - p.slow * Math.min(1, Math.max(0, values[i]));
    return left > 1e-4 ? 1 / left : Infinity;
  };
}

const NOWHERE: SurfacePlaces = { faces: new Uint32Array(0), weights: new Float32Array(0) };

/** Where on a mesh the front sets out. */
async function originsOf(mesh: Mesh, start: Start, yieldNow: () => Promise<void>): Promise<Origins> {
  if (faceCount(mesh) === 0) return { places: NOWHERE };
  const { first } = topologyOf(mesh).weld;
  if ('side' in start) {
    const up = heights(mesh.positions, start.side);
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
        mapped(Float64Array, first, (i) => away(at(mesh.positions, i))),
      ),
    };
  }
  if ('count' in start) return { places: await new BlueNoise(mesh, start.seed, null).first(start.count, yieldNow) };
  await treeInTime(mesh, yieldNow);
  const found = start.points.flatMap((point) => nearestPlace(mesh, point) ?? []);
  return {
    places: {
      faces: mapped(Uint32Array, found, ({ face }) => face),
      weights: Float32Array.from(found.flatMap(({ weights }) => weights)),
    },
  };
}

/** What lies inside a border, and what is the next beyond it. @param beyond signed distance of each place from the border */
function bordering(mesh: Mesh, beyond: Float64Array): Origins['reached'] {
  const { corners } = topologyOf(mesh);
  const reached = new Uint8Array(beyond.length);
  for (let c = 0; c < corners.length; c += 3) {
    const i = corners[c];
    const j = corners[c + 1];
    const k = corners[c + 2];
    if (beyond[i] <= 0 || beyond[j] <= 0 || beyond[k] <= 0) reached[i] = reached[j] = reached[k] = 1;
  }
  const found: [number, number][] = [];
  for (let place = 0; place < beyond.length; place++)
    if (reached[place] || beyond[place] <= 0) found.push([place, Math.max(0, beyond[place])]);
  return found;
}

/** Height of each vertex, upside down for −1. */
const heights = (positions: Float32Array, side: 1 | -1): Float64Array =>
  filled(Float64Array, positions.length / 3, (i) => side * positions[3 * i + 1]);

function extremes(values: Float64Array): readonly [low: number, high: number] {
  let low = Infinity;
  let high = -Infinity;
  for (let i = 0; i < values.length; i++) {
    const value = values[i];
    if (value < low) low = value;
    if (value > high) high = value;
  }
  return [low, high];
}

const points = (flat: ArrayLike<number>): Vec3[] => Array.from({ length: flat.length / 3 }, (_, k) => at(flat, k));

/** Straight distances of each place from where it sets out. @param drawn the places of chance, where it sets out from such */
function straight(positions: Float32Array, start: Start, drawn: readonly Vec3[]): Float64Array {
  if ('side' in start) {
    const up = heights(positions, start.side);
    const [low] = extremes(up);
    return up.map((height) => height - low);
  }
  const away = 'inside' in start ? borderDistance(start.inside) : null;
  const starts = 'points' in start ? start.points : drawn;
  return filled(Float64Array, positions.length / 3, (i) => {
    const place = at(positions, i);
    if (away) return Math.max(0, away(place));
    return starts.reduce((least, from) => Math.min(least, distance(place, from)), Infinity);
  });
}
