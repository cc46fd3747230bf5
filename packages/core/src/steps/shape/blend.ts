import { filled } from '../../geometry/filled';
import { placeIn } from '../../curves/elements';
import { arcLengths, totalLength } from '../../curves/arclength';
import { movedPaths } from '../../curves/pathFrames';
import { sampleAt } from '../../curves/resample';
import { pathCount, PATHS } from '../../geometry/paths';
import { rejoin } from '../../geometry/tree';
import { Problem } from '../../problem';
import { defineStep } from '../declare';
import { percent } from '../format';

export const blend = defineStep({
  kind: 'blend',
  family: 'shape',
  label: 'Blend',
  icon: 'M3 5C9 5 11 15 17 15M3 15C9 15 11 5 17 5',
  help: "Moves each path towards another growth's path, point by point at equal shares of their lengths. Animate Amount and one becomes the other.",
  takes: ['paths'],
  gives: ['paths'],
  params: {
    growth: {
      type: 'growth',
      label: 'Growth',
      help: 'Whose paths to move to; several are taken in turn.',
      default: null,
    },
    amount: {
      type: 'number',
      unit: 'share',
      label: 'Amount',
      help: 'How far: 0 % is the own course, 100 % the other.',
      default: 0.5,
      min: 0,
      max: 1,
      varies: 'along',
    },
  },
  summary: (p) => (p.growth === null ? 'no growth chosen' : `${percent(p.amount)} of the way`),
  async run(form, p, context) {
    if (p.growth === null) throw new Problem('No growth is chosen.', 'Choose the growth whose path to move to.');
    const other = (await context.other('growth')).paths;
    if (!other || pathCount(other) === 0)
      throw new Problem('The chosen growth has no paths.', 'Choose one that begins with a path.');
    const paths = form.paths!;
    const amount = context.varied('amount');
    const positions = new Float32Array(paths.positions);
    const target = new Float32Array(positions.length);
    const place = placeIn(PATHS, paths, 'point', pathCount(paths));
    for (let path = 0; path < pathCount(paths); path++) {
      await context.breathe();
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
    return { ...form, paths: await movedPaths(paths, positions, () => context.breathe()) };
  },
});
