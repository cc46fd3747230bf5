import { catmullRom } from '../../curves/catmullRom';
import { arcLengths, totalLength } from '../../curves/arclength';
import { resample, sampleAt } from '../../curves/resample';
import { pathsFrom } from '../../geometry/paths';
import { type Anchor } from '../../geometry/vec';
import { Problem } from '../../problem';
import { defineStep, pointsParam } from '../declare';
import { counted, metres } from '../format';
import { startWith } from './startWith';

const FINE = 24;

const courseThrough = (anchors: readonly Anchor[], closed: boolean): Float64Array =>
  catmullRom(
    anchors.flatMap(([x, y, z]) => [x, y, z]),
    FINE,
    closed && anchors.length > 2,
  );

/** A value of the anchors eased from one to the next (smoothstep), at the fine points of the course. */
function between(anchors: readonly Anchor[], of: (anchor: Anchor) => number, points: number): Float64Array {
  return Float64Array.from({ length: points }, (_, i) => {
    const k = Math.floor(i / FINE);
    const t = (i % FINE) / FINE;
    const [a, b] = [of(anchors[k % anchors.length]), of(anchors[(k + 1) % anchors.length])];
    return t === 0 ? a : a + (b - a) * t * t * (3 - 2 * t);
  });
}

export const drawn = defineStep({
  kind: 'drawn',
  family: 'start',
  label: 'Drawn path',
  icon: 'M3 15C6 5 10 17 17 5',
  help: 'A smooth path through anchors. Draw it in the viewport, then drag, add and remove anchors there.',
  takes: [],
  gives: ['paths'],
  params: {
    anchors: {
      type: 'anchors',
      label: 'Anchors',
      help: 'The places that the path runs through.',
      default: [
        [0, 0, 0],
        [0.1, 0.8, 0],
        [-0.1, 1.6, 0.1],
        [0.05, 2.4, 0],
      ],
    },
    closed: { type: 'toggle', label: 'Closed', help: 'Joins the last anchor to the first.', default: false },
    points: pointsParam(180),
  },
  summary(p) {
    if (p.anchors.length < 2) return counted(p.anchors.length, 'anchor');
    const course = courseThrough(p.anchors, p.closed);
    const closed = p.closed && p.anchors.length > 2;
    return `${counted(p.anchors.length, 'anchor')}, ${metres(totalLength(arcLengths(course, 0, course.length / 3, closed)))}`;
  },
  run(form, p, context) {
    if (p.anchors.length < 2) {
      throw new Problem('A drawn path needs two anchors or more.', 'Draw it in the viewport, or add an anchor.');
    }
    context.claim('points', p.points, 'Points');
    const closed = p.closed && p.anchors.length > 2;
    const course = courseThrough(p.anchors, p.closed);
    const count = Math.max(p.points, closed ? 3 : 2);
    const n = course.length / 3;
    const table = arcLengths(course, 0, n, closed);
    const step = totalLength(table) / (closed ? count : count - 1);
    const arcs = Float64Array.from({ length: count }, (_, i) => i * step);
    const along = (of: (anchor: Anchor) => number): Float64Array => {
      const out = new Float64Array(count);
      sampleAt(between(p.anchors, of, n), 0, n, table, arcs, 1, out, 0);
      return out;
    };
    return startWith(
      form,
      pathsFrom([
        {
          positions: resample(course, count, closed),
          closed,
          size: p.anchors.some(([, , , size = 1]) => size !== 1) ? along(([, , , size = 1]) => size) : undefined,
          lean: p.anchors.some((anchor) => (anchor[4] ?? 0) !== 0)
            ? along((anchor) => ((anchor[4] ?? 0) * Math.PI) / 180)
            : undefined,
        },
      ]),
    );
  },
});
