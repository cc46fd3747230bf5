import { catmullRom } from '../../curves/catmullRom';
import { arcLengths, totalLength } from '../../curves/arclength';
import { resample } from '../../curves/resample';
import { pathsFrom } from '../../geometry/paths';
import { type Vec3 } from '../../geometry/vec';
import { Problem } from '../../problem';
import { defineStep, pointsParam } from '../declare';
import { counted, metres } from '../format';
import { startWith } from './startWith';

const FINE = 24;

const courseThrough = (anchors: readonly Vec3[], closed: boolean): Float64Array =>
  catmullRom(anchors.flat(), FINE, closed && anchors.length > 2);

export const drawn = defineStep({
  kind: 'drawn',
  family: 'start',
  label: 'Drawn path',
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
    return startWith(form, pathsFrom([{ positions: resample(course, count, closed), closed }]));
  },
});
