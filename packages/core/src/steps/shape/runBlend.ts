import { arcLengths, totalLength } from '../../curves/arclength';
import { placeIn } from '../../curves/elements';
import { movedPaths, visibleLength } from '../../curves/pathFrames';
import { sampleAt } from '../../curves/resample';
import { filled } from '../../geometry/filled';
import { pathCount, PATHS, type Paths } from '../../geometry/paths';
import { rejoin } from '../../geometry/tree';
import { Problem } from '../../problem';
import type { StepContext } from '../declare';
import type { BlendParams } from './blend';

/** Paths part of the way to those of another growth. */
export async function runBlend(paths: Paths, p: BlendParams, context: StepContext): Promise<Paths> {
  if (p.growth === null) throw new Problem('No growth is chosen.', 'Choose the growth whose path to move to.');
  const there = (await context.other('growth')).paths;
  if (there?.uncut === null && there.whole.some((whole, path) => visibleLength(there, path) < whole * (1 - 1e-6)))
    context.tell(
      'The other growth is shaped after it was cut, so that only the part of it that is there is known.',
      'Put its Grow after the steps that shape it.',
    );
  // However much of it is there: the whole course is what it is moved to.
  const other = there?.uncut ?? there;
  if (!other || pathCount(other) === 0)
    throw new Problem('The chosen growth has no paths.', 'Choose one that begins with a path.');
  const amount = context.varied('amount');
  const positions = new Float32Array(paths.positions);
  const target = new Float32Array(positions.length);
  const place = placeIn(PATHS, paths, 'point', pathCount(paths));
  for (let path = 0; path < pathCount(paths); path++) {
    await context.yieldNow();
    place.id = paths.ids[path];
    place.index = path;
    const [a, b] = [paths.offsets[path], paths.offsets[path + 1]];
    const from = path % pathCount(other);
    const [c, d] = [other.offsets[from], other.offsets[from + 1]];
    if (d === c || b === a) continue;
    const own = arcLengths(paths.positions, a, b, paths.closed[path] === 1);
    const theirs = arcLengths(other.positions, c, d, other.closed[from] === 1);
    // What growth has cut goes to the part of the other path that it is of its own.
    const k = paths.whole[path] > 0 ? totalLength(theirs) / paths.whole[path] : 0;
    const arcs = filled(Float64Array, b - a, (i) => (paths.cutFrom[path] + own[i]) * k);
    const over = other.closed[from] ? arcs.findIndex((arc) => arc > totalLength(theirs)) : -1;
    if (over < 0) sampleAt(other.positions, c, d, theirs, arcs, 3, target, a);
    else {
      const round = arcs.subarray(over).map((arc) => arc - totalLength(theirs));
      sampleAt(other.positions, c, d, theirs, arcs.subarray(0, over), 3, target, a);
      sampleAt(other.positions, c, d, theirs, round, 3, target, a + over);
    }
    for (let i = a; i < b; i++) {
      place.u = paths.u[i];
      place.at = i;
      const share = amount(place);
      for (let q = 3 * i; q < 3 * i + 3; q++) positions[q] += share * (target[q] - positions[q]);
    }
  }
  rejoin(paths, positions);
  return movedPaths(paths, positions, () => context.yieldNow());
}
