import { random } from '../../fields/random';
import { Carrier } from '../../geometry/carrier';
import { emptyColumns } from '../../geometry/attributes';
import { type Points, POINTS } from '../../geometry/form';
import { facesAs, facesAtVertices } from '../../geometry/topology/faceAttributes';
import { areaAndVolume, faceCount, MESH, type Mesh } from '../../geometry/mesh';
import { unwritten, vertexValues } from '../../geometry/meshAttributes';
import { profileTable, readTable } from '../../geometry/profile';
import { pinPlaces, type PinnedPlaces } from '../../geometry/topology/surfacePins';
import type { SurfacePlaces } from '../../geometry/topology/surfacePlaces';
import { fromAxes } from '../../geometry/turns';
import { at, dot, perpendicular, scale, sub, unit, type Vec3 } from '../../geometry/vec';
import type { Density } from '../../surfaces/scatter/darts';
import { BlueNoise, scatteredAtRandom } from '../../surfaces/scatter/scatterMesh';
import { onCorners, onEdges, onFaces } from '../../surfaces/scatter/meshPlaces';
import type { StepContext } from '../declare';
import type { ScatterParams } from './scatter';
import { smoothstep } from '../../fields/smoothstep';

/** Points on a mesh, which stay where they are on it however it moves. */
export async function runScatter(mesh: Mesh, p: ScatterParams, context: StepContext): Promise<Points> {
  // Laid out on the skin as it stands at the last frame, as items are: so nothing slides while it grows or moves.
  const whole = (await context.inputAtLast()).mesh ?? mesh;
  const rest = faceCount(whole) > 0 ? whole : mesh;
  const places = await laidOut(rest, p, context);
  const now = pinPlaces(places, rest, mesh);
  if (now) return pointsAt(now, places.faces.length, mesh, p, context);
  // On a skin that is another one at each frame there is nothing to ride on: it is laid out anew.
  const anew = await laidOut(mesh, p, context);
  return pointsAt(pinPlaces(anew, mesh, mesh)!, anew.faces.length, mesh, p, context);
}

/** What spreading places looks at: where it is the same, so are they, however else the mesh is dressed. */
interface Ground {
  indices: Mesh['indices'];
  normals: Mesh['normals'];
  u: Mesh['u'];
  own: ArrayLike<number> | null;
  /** Evenly spread places by how they are spread: a count that is animated asks for more of the same. */
  spread: Map<string, BlueNoise>;
}

/** By the positions of what places were spread over. */
const grounds = new WeakMap<Mesh['positions'], Ground>();

/** Whether values are the same, which may have been gathered anew. */
const isSame = (a: ArrayLike<number> | null, b: ArrayLike<number> | null): boolean => {
  if (a === b || !a || !b || a.length !== b.length) return a === b;
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false;
  return true;
};

function groundOf(mesh: Mesh, own: ArrayLike<number> | null): Ground {
  const { positions, indices, normals, u } = mesh;
  const known = grounds.get(positions);
  const same = known?.indices === indices && known.normals === normals && known.u === u && isSame(known.own, own);
  if (same) return known;
  const ground = { indices, normals, u, own, spread: new Map<string, BlueNoise>() };
  grounds.set(positions, ground);
  return ground;
}

/** Places of blue noise in a square of their distance. */
const SQUARE = 0.7;

async function laidOut(mesh: Mesh, p: ScatterParams, context: StepContext): Promise<SurfacePlaces> {
  const own = valuesFor(mesh, p);
  const density = densityOf(mesh, p, own);
  const { seed } = context;
  const yieldNow = (): Promise<void> => context.yieldNow();
  const kept = async (name: string, lay: (noise: BlueNoise) => Promise<SurfacePlaces>): Promise<SurfacePlaces> => {
    const { spread } = groundOf(mesh, own);
    const { denser, attribute, lowest, highest, flattest, steepest } = p;
    const limits = [lowest, highest, flattest, steepest].join();
    const key = `${name} ${seed} ${denser} ${JSON.stringify(p.density)} ${attribute} ${limits}`;
    const noise = spread.get(key) ?? new BlueNoise(mesh, seed, density);
    // Taken out while it is at work: what is broken off is not gone on with.
    spread.delete(key);
    const places = await lay(noise);
    // Limits that are animated would fill it.
    if (spread.size >= 8) spread.clear();
    spread.set(key, noise);
    return places;
  };
  switch (p.by) {
    case 'count': {
      const count = Math.ceil(p.count - 1e-9);
      context.claim('points', count, 'Count');
      if (p.spread === 'random') return scatteredAtRandom(mesh, count, seed, density, yieldNow);
      return kept('', (noise) => noise.first(count, yieldNow));
    }
    case 'spacing':
      context.claim(
        'points',
        (SQUARE * areaAndVolume(mesh).area) / p.spacing ** 2,
        'the size of the skin, or raise the distance',
      );
      return kept(String(p.spacing), (noise) => noise.apart(p.spacing, yieldNow));
    default: {
      const most = p.by === 'edges' ? edgeLength(mesh) / p.spacing : 0;
      context.claim('points', most + faceCount(mesh), 'the number of faces before it, or raise the distance');
      const all =
        p.by === 'vertices'
          ? await onCorners(mesh, yieldNow)
          : p.by === 'faces'
            ? await onFaces(mesh, yieldNow)
            : await onEdges(mesh, p.spacing, yieldNow);
      return density ? thinned(all, density, seed, yieldNow) : all;
    }
  }
}

/** Length of all edges, metres, those inside flat faces among them. */
function edgeLength({ positions: p, indices }: Mesh): number {
  let sum = 0;
  for (let i = 0; i < indices.length; i++) {
    const a = 3 * indices[i];
    const b = 3 * indices[i % 3 === 2 ? i - 2 : i + 1];
    sum += Math.sqrt((p[a] - p[b]) ** 2 + (p[a + 1] - p[b + 1]) ** 2 + (p[a + 2] - p[b + 2]) ** 2);
  }
  // Each belongs to two faces, but for the open ones.
  return sum / 2;
}

/** Those that chance lets stand, by the density where they are. */
async function thinned(
  { faces, weights }: SurfacePlaces,
  density: Density,
  seed: number,
  yieldNow: () => Promise<void>,
): Promise<SurfacePlaces> {
  const kept = { faces: new Uint32Array(faces.length), weights: new Float32Array(weights.length) };
  let count = 0;
  for (let k = 0; k < faces.length; k++) {
    if (k % 8192 === 0) await yieldNow();
    if (random(seed, k, 9) >= density(faces[k], weights[3 * k], weights[3 * k + 1], weights[3 * k + 2])) continue;
    kept.faces[count] = faces[k];
    for (let c = 0; c < 3; c++) kept.weights[3 * count + c] = weights[3 * k + c];
    count++;
  }
  return { faces: kept.faces.slice(0, count), weights: kept.weights.slice(0, 3 * count) };
}

const isByFace = (mesh: Mesh, p: ScatterParams): boolean =>
  p.denser === 'attribute' && mesh.named[p.attribute]?.domain === 'face';

/** The values that the density goes by, of faces or of vertices; null where it goes by none. */
function valuesFor(mesh: Mesh, p: ScatterParams): ArrayLike<number> | null {
  if (p.denser !== 'attribute') return null;
  const own = isByFace(mesh, p) ? mesh.named[p.attribute].values : vertexValues(mesh, p.attribute);
  if (!own) throw unwritten(p.attribute);
  return own;
}

/** How dense places stand on a mesh; null where it is everywhere alike. */
function densityOf(mesh: Mesh, p: ScatterParams, own: ArrayLike<number> | null): Density | null {
  const limited = p.lowest > 0 || p.highest < 1 || p.flattest > 0 || p.steepest < 180;
  if (p.denser === 'none' && !limited) return null;
  const { positions, normals, indices, u } = mesh;
  const byFace = isByFace(mesh, p);
  const table = profileTable(p.density, 257);
  let [low, high] = [Infinity, -Infinity];
  for (let i = 1; i < positions.length; i += 3) {
    low = Math.min(low, positions[i]);
    high = Math.max(high, positions[i]);
  }
  // Read once: this is asked for hundreds of thousands of places.
  const { denser, lowest, highest } = p;
  const bySlope = denser === 'slope';
  const sloped = bySlope || p.flattest > 0 || p.steepest < 180;
  // Slopes are told by how far normals rise, which is the cosine of the slope.
  const [flattest, steepest] = [Math.cos((p.flattest * Math.PI) / 180), Math.cos((p.steepest * Math.PI) / 180)];
  const density: Density = (face, w0, w1, w2) => {
    const a = indices[3 * face];
    const b = indices[3 * face + 1];
    const c = indices[3 * face + 2];
    const y = w0 * positions[3 * a + 1] + w1 * positions[3 * b + 1] + w2 * positions[3 * c + 1];
    const height = high > low ? (y - low) / (high - low) : 0;
    if (height < lowest || height > highest) return 0;
    let rise = 0;
    if (sloped) {
      const nx = w0 * normals[3 * a] + w1 * normals[3 * b] + w2 * normals[3 * c];
      const ny = w0 * normals[3 * a + 1] + w1 * normals[3 * b + 1] + w2 * normals[3 * c + 1];
      const nz = w0 * normals[3 * a + 2] + w1 * normals[3 * b + 2] + w2 * normals[3 * c + 2];
      rise = ny / (Math.sqrt(nx * nx + ny * ny + nz * nz) || 1);
      if (rise > flattest || rise < steepest) return 0;
    }
    if (denser === 'none') return 1;
    if (denser === 'height') return readTable(table, height);
    if (bySlope) return readTable(table, Math.acos(Math.min(1, Math.max(-1, rise))) / Math.PI);
    if (byFace) return readTable(table, Math.min(1, Math.max(0, own![face])));
    const values = own ?? u;
    if (!values) return readTable(table, 0);
    const mixed = w0 * values[a] + w1 * values[b] + w2 * values[c];
    return readTable(table, own ? Math.min(1, Math.max(0, mixed)) : mixed);
  };
  density.jumps = byFace;
  return density;
}

const UP: Vec3 = [0, 1, 0];

/** The points that stand at places which are there now. */
async function pointsAt(
  { places, corners, weights, faces }: PinnedPlaces,
  total: number,
  mesh: Mesh,
  p: ScatterParams,
  context: StepContext,
): Promise<Points> {
  const n = places.length;
  // Where faces are others now, what they know is taken as their corners have it.
  const skin = faces ? mesh : { ...mesh, named: { ...mesh.named, ...facesAtVertices(mesh) } };
  const rows = new Carrier(MESH, skin, 'vertex', n);
  for (let k = 0; k < n; k += 8192) {
    await context.yieldNow();
    rows.weighEach(corners, weights, 4, k, Math.min(n, k + 8192));
  }
  const { positions, normals, u, age, tip, named } = { ...mesh, ...rows.result() };
  const points: Points = {
    ...emptyColumns(POINTS, 'point', n),
    positions: new Float32Array(positions),
    age,
    named: {
      ...(tip && { tip: { domain: 'point', width: 1, blend: 'mix', missing: 0, values: tip } }),
      ...Object.fromEntries(
        Object.entries(named).flatMap(([name, attribute]) =>
          attribute.domain === 'vertex' ? [[name, { ...attribute, domain: 'point' as const }]] : [],
        ),
      ),
      ...(faces ? facesAs(mesh, faces, 'point') : {}),
    },
  };
  for (let k = 0; k < n; k++) {
    if (k % 4096 === 0) await context.yieldNow();
    const up = at(normals, k);
    const stands = unit([up[0] * (1 - p.upright), up[1] * (1 - p.upright) + p.upright, up[2] * (1 - p.upright)], UP);
    // Which way it looks goes with the skin too: along a side of its face.
    const side = sub(at(mesh.positions, corners[4 * k + 1]), at(mesh.positions, corners[4 * k]));
    const level = sub(side, scale(stands, dot(side, stands)));
    points.turns.set(fromAxes(unit(level, perpendicular(stands)), stands), 4 * k);
    for (let c = 0; c < 3; c++) points.positions[3 * k + c] -= p.sink * up[c];
    const number = places[k];
    points.ids[k] = number;
    points.dice[k] = number;
    const newest = p.by === 'count' ? p.count - number : 1;
    points.size[k] = smoothstep(newest);
    points.share[k] = u ? Math.min(1, u[k]) : total > 1 ? number / (total - 1) : 0;
  }
  return points;
}
