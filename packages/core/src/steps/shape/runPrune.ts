import { filled } from '../../geometry/filled';
import { arcLengths, fraction, locate, totalLength } from '../../curves/arclength';
import { cutPaths } from '../../curves/cut';
import { unwritten } from '../../geometry/meshAttributes';
import { insideOf } from '../../geometry/search/nearest';
import { pointValues } from '../../geometry/pathAttributes';
import { type Paths, pathCount, uncut } from '../../geometry/paths';
import { pathTreeOf } from '../../geometry/tree';
import { at, distance, partWay, type Vec3 } from '../../geometry/vec';
import { Problem } from '../../problem';
import type { StepContext } from '../declare';
import { skinIn } from '../start/others';
import type { PruneParams } from './prune';

/** Paths that are cut where something ends them, with all that grows from what has been taken off. */
export async function runPrune(paths: Paths, p: PruneParams, context: StepContext): Promise<Paths> {
  const { parents, depths, order } = pathTreeOf(paths);
  const ends = await endsOf(paths, depths, p, context);
  // Parents come before what grows from them.
  for (const path of order) {
    const parent = parents[path];
    if (parent < 0) continue;
    if (ends[parent] < 1 && paths.attach![path] > uAt(paths, parent, ends[parent]) + 1e-6) ends[path] = 0;
  }
  return uncut(cutPaths(paths, (path) => [0, ends[path]]));
}

/** Rest coordinate at a share of the visible length of a path. */
function uAt({ positions, offsets, u }: Paths, path: number, share: number): number {
  const [first, end] = [offsets[path], offsets[path + 1]];
  if (end - first < 2 || share <= 0) return -Infinity;
  const arcs = arcLengths(positions, first, end, false);
  const s = share * totalLength(arcs);
  const k = locate(arcs, s);
  return u[first + k] + fraction(arcs, k, s) * (u[first + k + 1] - u[first + k]);
}

/** Share of its visible length at which each path ends. */
async function endsOf(
  paths: Paths,
  depths: ArrayLike<number>,
  p: PruneParams,
  context: StepContext,
): Promise<Float64Array> {
  const n = pathCount(paths);
  if (p.by === 'depth') return filled(Float64Array, n, (path) => Math.min(1, Math.max(0, p.depth + 1 - depths[path])));
  if (p.by === 'length') return filled(Float64Array, n, (path) => (paths.whole[path] < p.shortest ? 0 : 1));
  const left = await measureOf(paths, p, context);
  const ends = new Float64Array(n).fill(1);
  for (let path = 0; path < n; path++) {
    await context.yieldNow();
    const [first, last] = [paths.offsets[path], paths.offsets[path + 1] - 1];
    let i = first;
    while (i <= last && left.at(i) >= 0) i++;
    if (i > last) continue;
    if (i === first) {
      ends[path] = 0;
      continue;
    }
    const arcs = arcLengths(paths.positions, first, last + 1, false);
    const k = i - first;
    ends[path] = (arcs[k - 1] + left.crossing(i - 1, i) * (arcs[k] - arcs[k - 1])) / (totalLength(arcs) || 1);
  }
  return ends;
}

/** Tells of points whether they stay, 0 or more if so, and where between two a branch ends. */
interface Left {
  at(i: number): number;
  crossing(i: number, j: number): number;
}

async function measureOf(paths: Paths, p: PruneParams, context: StepContext): Promise<Left> {
  const { positions, size } = paths;
  /** Where a value that changes evenly becomes nothing. */
  const evenly = (value: (i: number) => number): Left => ({
    at: value,
    crossing: (i, j) => value(i) / Math.max(1e-12, value(i) - value(j)),
  });
  if (p.by === 'thickness') return evenly((i) => size[i] - p.thinnest);
  if (p.by === 'attribute') {
    const values = pointValues(paths, p.attribute);
    if (!values) throw unwritten(p.attribute);
    return evenly((i) => (p.side === 'below' ? p.limit - values[i] : values[i] - p.limit));
  }
  const side = p.keeps === 'inside' ? 1 : -1;
  if (p.by === 'guide') {
    if (p.guide === null) throw new Problem('No guide is chosen.', 'Choose the guide to cut by.');
    const places = await context.places('guide');
    if (places.length === 0) throw new Problem('What it cuts by has no place.', 'Choose another guide.');
    return evenly((i) => side * (p.within - Math.min(...places.map((place) => distance(place, at(positions, i))))));
  }
  const mesh = await skinIn(context, 'form', p.form);
  const stays = (place: Vec3): boolean => insideOf(mesh, place) === side > 0;
  return {
    at: (i) => (stays(at(positions, i)) ? 1 : -1),
    crossing(i, j) {
      const [a, b] = [at(positions, i), at(positions, j)];
      let [low, high] = [0, 1];
      // To a millionth of the piece.
      for (let round = 0; round < 20; round++) {
        const t = (low + high) / 2;
        if (stays(partWay(a, b, t))) low = t;
        else high = t;
      }
      return low;
    },
  };
}
