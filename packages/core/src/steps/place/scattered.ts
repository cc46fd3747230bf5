import { mapped } from '../../geometry/filled';
import { random } from '../../fields/random';
import { Carrier, emptyColumns } from '../../geometry/attributes';
import { type Points, POINTS } from '../../geometry/form';
import { facesAs, facesAtVertices } from '../../geometry/faceAttributes';
import { areaAndVolume, faceCount, MESH, type Mesh } from '../../geometry/mesh';
import { unwritten, vertexValues } from '../../geometry/meshAttributes';
import { profileTable, readTable } from '../../geometry/profile';
import { pinned, type PinnedPlaces } from '../../geometry/pinned';
import { type SurfacePlaces } from '../../geometry/surfacePlaces';
import { fromAxes } from '../../geometry/turns';
import { at, distance, dot, perpendicular, scale, sub, unit, type Vec3 } from '../../geometry/vec';
import { type Density } from '../../surfaces/darts';
import { BlueNoise, scatteredAtRandom } from '../../surfaces/scatter';
import { onCorners, onEdges, onFaces } from '../../surfaces/meshPlaces';
import { type StepContext } from '../declare';
import { type ScatterParams } from './scatter';

/** Points on a mesh, which stay where they are on it however it moves. */
export async function scatteredPoints(mesh: Mesh, p: ScatterParams, context: StepContext): Promise<Points> {
  // Laid out on the skin as it stands at the last frame, as items are: so nothing slides while it grows or moves.
  const whole = (await context.inputAtLast()).mesh ?? mesh;
  const rest = faceCount(whole) > 0 ? whole : mesh;
  const places = await laidOut(rest, p, context);
  const now = pinned(places, rest, mesh);
  if (now) return pointsAt(now, places.faces.length, mesh, p, context);
  // On a skin that is another one at each frame there is nothing to ride on: it is laid out anew.
  const anew = await laidOut(mesh, p, context);
  return pointsAt(pinned(anew, mesh, mesh)!, anew.faces.length, mesh, p, context);
}

/** Evenly spread places, kept with what they were found on: a count that is animated asks for more of the same. */
const spread = new WeakMap<Mesh, Map<string, BlueNoise>>();
/** Places of blue noise in a square of their distance. */
const SQUARE = 0.7;

async function laidOut(mesh: Mesh, p: ScatterParams, context: StepContext): Promise<SurfacePlaces> {
  const density = densityOf(mesh, p);
  const { seed } = context;
  const breathe = (): Promise<void> => context.breathe();
  switch (p.by) {
    case 'count': {
      const count = Math.ceil(p.count - 1e-9);
      context.claim('points', count, 'Count');
      if (p.spread === 'random') return scatteredAtRandom(mesh, count, seed, density, breathe);
      const of = spread.get(mesh) ?? new Map<string, BlueNoise>();
      spread.set(mesh, of);
      const key = [
        seed,
        p.denser,
        JSON.stringify(p.density),
        p.attribute,
        p.lowest,
        p.highest,
        p.flattest,
        p.steepest,
      ].join();
      const noise = of.get(key) ?? new BlueNoise(mesh, seed, density);
      // Taken out while it is at work: what is broken off is not gone on with.
      of.delete(key);
      const places = await noise.first(count, breathe);
      // Limits that are animated would fill it.
      if (of.size >= 8) of.clear();
      of.set(key, noise);
      return places;
    }
    case 'spacing':
      context.claim(
        'points',
        (SQUARE * areaAndVolume(mesh).area) / p.spacing ** 2,
        'the size of the skin, or raise the distance',
      );
      return new BlueNoise(mesh, seed, density).apart(p.spacing, breathe);
    default: {
      const most = p.by === 'edges' ? edgeLength(mesh) / p.spacing : 0;
      context.claim('points', most + faceCount(mesh), 'the number of faces before it, or raise the distance');
      const all = p.by === 'vertices' ? onCorners(mesh) : p.by === 'faces' ? onFaces(mesh) : onEdges(mesh, p.spacing);
      return density ? thinned(all, density, seed) : all;
    }
  }
}

/** Length of all edges, metres, those inside flat faces among them. */
function edgeLength({ positions, indices }: Mesh): number {
  let sum = 0;
  for (let i = 0; i < indices.length; i++) {
    const next = indices[i - (i % 3) + ((i + 1) % 3)];
    sum += distance(at(positions, indices[i]), at(positions, next));
  }
  // Each belongs to two faces, but for the open ones.
  return sum / 2;
}

/** Those that chance lets stand, by the density where they are. */
function thinned({ faces, weights }: SurfacePlaces, density: Density, seed: number): SurfacePlaces {
  const kept = Array.from(faces.keys()).filter(
    (k) => random(seed, k, 9) < density(faces[k], weights[3 * k], weights[3 * k + 1], weights[3 * k + 2]),
  );
  return {
    faces: mapped(Uint32Array, kept, (k) => faces[k]),
    weights: Float32Array.from(kept.flatMap((k) => [weights[3 * k], weights[3 * k + 1], weights[3 * k + 2]])),
  };
}

/** How dense places stand on a mesh; null where it is everywhere alike. */
function densityOf(mesh: Mesh, p: ScatterParams): Density | null {
  const limited = p.lowest > 0 || p.highest < 1 || p.flattest > 0 || p.steepest < 180;
  if (p.denser === 'none' && !limited) return null;
  const { positions, normals, indices, u } = mesh;
  const byFace = p.denser === 'attribute' && mesh.named[p.attribute]?.domain === 'face';
  const own = byFace
    ? mesh.named[p.attribute].values
    : p.denser === 'attribute'
      ? vertexValues(mesh, p.attribute)
      : null;
  if (p.denser === 'attribute' && !own) throw unwritten(p.attribute);
  const table = profileTable(p.density, 257);
  let [low, high] = [Infinity, -Infinity];
  for (let i = 1; i < positions.length; i += 3) {
    low = Math.min(low, positions[i]);
    high = Math.max(high, positions[i]);
  }
  return (face, w0, w1, w2) => {
    const [a, b, c] = [indices[3 * face], indices[3 * face + 1], indices[3 * face + 2]];
    const mixed = (of: ArrayLike<number>, width: number, part: number): number =>
      w0 * of[width * a + part] + w1 * of[width * b + part] + w2 * of[width * c + part];
    const height = high > low ? (mixed(positions, 3, 1) - low) / (high - low) : 0;
    if (height < p.lowest || height > p.highest) return 0;
    const [nx, ny, nz] = [mixed(normals, 3, 0), mixed(normals, 3, 1), mixed(normals, 3, 2)];
    const slope = Math.acos(Math.min(1, Math.max(-1, ny / (Math.hypot(nx, ny, nz) || 1)))) / Math.PI;
    if (180 * slope < p.flattest || 180 * slope > p.steepest) return 0;
    if (p.denser === 'none') return 1;
    if (own) return readTable(table, Math.min(1, Math.max(0, byFace ? own[face] : mixed(own, 1, 0))));
    return readTable(table, p.denser === 'height' ? height : p.denser === 'slope' ? slope : u ? mixed(u, 1, 0) : 0);
  };
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
    await context.breathe();
    rows.weighEach(corners, weights, 4, k, Math.min(n, k + 8192));
  }
  const { positions, normals, u, age, named } = { ...mesh, ...rows.result() };
  const points: Points = {
    ...emptyColumns(POINTS, 'point', n),
    positions: new Float32Array(positions),
    age,
    named: {
      ...Object.fromEntries(
        Object.entries(named).flatMap(([name, attribute]) =>
          attribute.domain === 'vertex' ? [[name, { ...attribute, domain: 'point' as const }]] : [],
        ),
      ),
      ...(faces ? facesAs(mesh, faces, 'point') : {}),
    },
  };
  for (let k = 0; k < n; k++) {
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
    points.size[k] = newest >= 1 ? 1 : newest * newest * (3 - 2 * newest);
    points.share[k] = u ? Math.min(1, u[k]) : total > 1 ? number / (total - 1) : 0;
  }
  return points;
}
