import { borderDistance } from '../../fields/falloff';
import { noise3 } from '../../fields/noise';
import { random } from '../../fields/random';
import { pointsOf } from '../../geometry/formPoints';
import { type Attribute, type Domain, oneNumber } from '../../geometry/attributes';
import { faceMiddles, faceSpan } from '../../geometry/topology/faceAttributes';
import type { Form } from '../../geometry/form';
import { faceCount, type Mesh } from '../../geometry/mesh';
import { pathCount, type Paths } from '../../geometry/paths';
import { treeInTime } from '../../geometry/search/meshTree';
import { nearestPlace, thicknessAt } from '../../geometry/search/nearest';
import { profileTable, readTable } from '../../geometry/profile';
import { turnAt, turnedBy } from '../../geometry/turns';
import { at, dot, norm, sub, unit, type Vec3 } from '../../geometry/vec';
import { Problem } from '../../problem';
import { meanCurvatures } from '../../surfaces/edit/curvature';
import type { StepContext } from '../declare';
import { measuredAs, type MeasureParams } from './measure';

/** What is measured: places, with which way they look and what their chance hangs on. */
interface Sites {
  domain: Domain;
  count: number;
  positions: Float32Array;
  up: (k: number) => Vec3;
  dice: (k: number) => number;
  /** Number among all, counted from 0. */
  number: (k: number) => number;
  mesh: Mesh | null;
  paths: Paths | null;
}

/** Everything that is there, with one more attribute. */
export async function runMeasure(form: Form, p: MeasureParams, context: StepContext): Promise<Form> {
  const name = measuredAs(p);
  const keep = async <T extends { named: Form extends never ? never : Readonly<Record<string, Attribute>> }>(
    of: T,
    sites: Sites,
  ): Promise<T> => {
    const values = scaled(await valuesAt(sites, p, context), p);
    return {
      ...of,
      named: { ...of.named, [name]: oneNumber(sites.domain, values) },
    };
  };
  return {
    ...form,
    mesh: form.mesh && (await keep(form.mesh, p.at === 'faces' ? faceSites(form.mesh) : meshSites(form.mesh))),
    paths: form.paths && (await keep(form.paths, pathSites(form.paths))),
    points: form.points && (await keep(form.points, looseSites('point', form.points))),
    seats: form.seats && (await keep(form.seats, looseSites('copy', form.seats))),
    copies: form.copies && (await keep(form.copies, looseSites('copy', { ...form.copies, dice: form.copies.ids }))),
  };
}

const meshSites = (mesh: Mesh): Sites => ({
  domain: 'vertex',
  count: mesh.positions.length / 3,
  positions: mesh.positions,
  up: (k) => at(mesh.normals, k),
  dice: (k) => k,
  number: (k) => k,
  mesh,
  paths: null,
});

/** The faces of a skin, by their middles. */
function faceSites(mesh: Mesh): Sites {
  return {
    domain: 'face',
    count: faceCount(mesh),
    positions: faceMiddles(mesh),
    up: (k) => unit(faceSpan(mesh, k)),
    dice: (k) => k,
    number: (k) => k,
    mesh,
    paths: null,
  };
}

function pathSites(paths: Paths): Sites {
  const count = paths.s.length;
  const of = new Uint32Array(count);
  for (let path = 0; path < pathCount(paths); path++) of.fill(path, paths.offsets[path], paths.offsets[path + 1]);
  return {
    domain: 'point',
    count,
    positions: paths.positions,
    up: (k) => (paths.tangents ? at(paths.tangents, k) : wayOf(paths, of[k], k)),
    // Chance and number are the path's: what differs from point to point is noise.
    dice: (k) => paths.ids[of[k]],
    number: (k) => of[k],
    mesh: null,
    paths,
  };
}

/** Which way a path runs at one of its points. */
function wayOf(paths: Paths, path: number, k: number): Vec3 {
  const [a, b] = [Math.max(paths.offsets[path], k - 1), Math.min(paths.offsets[path + 1] - 1, k + 1)];
  return unit(sub(at(paths.positions, b), at(paths.positions, a)));
}

const looseSites = (
  domain: Domain,
  { positions, turns, dice }: { positions: Float32Array; turns: Float32Array; dice: Uint32Array },
): Sites => ({
  domain,
  count: dice.length,
  positions,
  up: (k) => turnedBy(turnAt(turns, k), [0, 1, 0]),
  dice: (k) => dice[k],
  number: (k) => k,
  mesh: null,
  paths: null,
});

/** So many places between two yields: thickness and distances take some hundredths of a millisecond each. */
const CHUNK = 256;

async function valuesAt(sites: Sites, p: MeasureParams, context: StepContext): Promise<Float32Array> {
  const of = await measureOf(sites, p, context);
  const values = new Float32Array(sites.count);
  for (let k = 0; k < sites.count; k++) {
    if (k % CHUNK === 0) await context.yieldNow();
    values[k] = of(k);
  }
  return values;
}

async function measureOf(sites: Sites, p: MeasureParams, context: StepContext): Promise<(k: number) => number> {
  const { positions, up, mesh } = sites;
  const yieldNow = (): Promise<void> => context.yieldNow();
  switch (p.what) {
    case 'slope':
      return (k) => (Math.acos(Math.min(1, Math.max(-1, up(k)[1]))) * 180) / Math.PI;
    case 'curvature':
    case 'area':
    case 'thickness': {
      if (!mesh)
        throw new Problem(
          `Only a skin has ${p.what === 'area' ? 'faces' : p.what}.`,
          'Put Measure behind a step that makes a skin, or measure something else.',
        );
      if (p.what === 'thickness') {
        await treeInTime(mesh, yieldNow);
        return (k) => thicknessAt(mesh, at(positions, k), up(k));
      }
      const byFace = sites.domain === 'face';
      if (p.what === 'area') {
        const area = (face: number): number => norm(...faceSpan(mesh, face)) / 2;
        if (byFace) return area;
        const thirds = new Float64Array(sites.count);
        for (let face = 0; face < faceCount(mesh); face++) {
          if (face % (16 * CHUNK) === 0) await yieldNow();
          const third = area(face) / 3;
          for (let c = 0; c < 3; c++) thirds[mesh.indices[3 * face + c]] += third;
        }
        return (k) => thirds[k];
      }
      const curvatures = await meanCurvatures(mesh, yieldNow);
      if (!byFace) return (k) => curvatures[k];
      return (k) => [0, 1, 2].reduce((sum, c) => sum + curvatures[mesh.indices[3 * k + c]] / 3, 0);
    }
    case 'depth':
    case 'order':
    case 'root': {
      // What is not made of paths has no branches; skins take what their paths know.
      if (!sites.paths) return () => 0;
      const { branchDepths, rootDistances, strahlerOrders } = await import('../../geometry/branches');
      const values = { depth: branchDepths, order: strahlerOrders, root: rootDistances }[p.what](sites.paths);
      return (k) => values[k];
    }
    case 'guide':
      return toGuide(positions, p, context);
    case 'growth':
      return toGrowth(positions, p, context);
    case 'direction': {
      const way = unit([p.wayX, p.wayY, p.wayZ]);
      return (k) => dot(at(positions, k), way);
    }
    case 'random': {
      const { seed } = context;
      return (k) => random(seed, sites.dice(k));
    }
    case 'number':
      return sites.number;
    case 'noise': {
      const shape = { detail: p.detail, roughness: 0.5, seed: context.seed, period: 0 };
      const out = new Float64Array(1);
      return (k) => {
        noise3(positions[3 * k] / p.size, positions[3 * k + 1] / p.size, positions[3 * k + 2] / p.size, 0, shape, out);
        return out[0];
      };
    }
    default:
      return (k) => positions[3 * k + 1];
  }
}

async function toGuide(
  positions: Float32Array,
  p: MeasureParams,
  context: StepContext,
): Promise<(k: number) => number> {
  if (p.guide === null) throw new Problem('No guide is chosen.', 'Choose a guide or the tips of a growth.');
  const guide = context.guide('guide');
  if (guide && guide.kind !== 'point') {
    const away = borderDistance({
      which: guide.kind,
      centre: guide.position,
      rotation: guide.rotation,
      size: guide.size,
      soft: 0,
    });
    return (k) => away(at(positions, k));
  }
  return nearestOf(positions, (await context.places('guide')).flat());
}

async function toGrowth(
  positions: Float32Array,
  p: MeasureParams,
  context: StepContext,
): Promise<(k: number) => number> {
  if (p.growth === null) throw new Problem('No growth is chosen.', 'Choose the growth that distances are measured to.');
  const other = await context.other('growth');
  const { mesh } = other;
  if (mesh && faceCount(mesh) > 0 && !other.copies) {
    await treeInTime(mesh, () => context.yieldNow());
    return (k) => nearestPlace(mesh, at(positions, k))!.distance;
  }
  return nearestOf(positions, pointsOf(other));
}

/** Distance to the nearest of some points; 0 where there are none. */
function nearestOf(positions: Float32Array, flat: ArrayLike<number>): (k: number) => number {
  const n = flat.length;
  return (k) => {
    const x = positions[3 * k];
    const y = positions[3 * k + 1];
    const z = positions[3 * k + 2];
    let least = Infinity;
    for (let i = 0; i < n; i += 3) {
      const away = (flat[i] - x) ** 2 + (flat[i + 1] - y) ** 2 + (flat[i + 2] - z) ** 2;
      if (away < least) least = away;
    }
    return n > 0 ? Math.sqrt(least) : 0;
  };
}

/** Values on the scale that is asked for. */
function scaled(values: Float32Array, p: MeasureParams): Float32Array {
  if (p.scale === 'measured') return values;
  let [low, high] = [p.low, p.high];
  if (p.scale === 'share') {
    [low, high] = [Infinity, -Infinity];
    for (const value of values) {
      low = Math.min(low, value);
      high = Math.max(high, value);
    }
  }
  const table = profileTable(p.shape, 257);
  return values.map((value) => {
    const share = high === low ? (value < low ? 0 : 1) : (value - low) / (high - low);
    return readTable(table, Math.min(1, Math.max(0, share)));
  });
}
