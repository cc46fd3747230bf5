import { catmullRom } from '../../curves/catmullRom';
import { arcLengths, totalLength } from '../../curves/arclength';
import type { Anchor } from '../../geometry/vec';
import { defineStep, type ParamSpecs, type ParamsOf, pointsParam } from '../declare';
import { formatCount, metres } from '../../format';

/** Points of the course from anchor to anchor. */
export const FINE = 24;

/** The points of the smooth course through anchors. */
export const courseThrough = (anchors: readonly Anchor[], closed: boolean): Float64Array =>
  catmullRom(
    anchors.flatMap(([x, y, z]) => [x, y, z]),
    FINE,
    closed && anchors.length > 2,
  );

const params = {
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
  skin: {
    type: 'growth',
    label: 'Attached to',
    help: 'From anchor to anchor it takes the shortest way over the skin of this growth.',
    default: null,
    optional: true,
    fits: ['mesh', 'copies'],
  },
  points: pointsParam(180),
  dots: {
    type: 'toggle',
    label: 'Points at anchors',
    help: 'Gives a point at each anchor besides, with its size: On the points puts something there, Web links them.',
    default: false,
  },
} as const satisfies ParamSpecs;

/** The values of its fields at a frame. */
export type DrawnParams = ParamsOf<typeof params>;

export const drawn = defineStep({
  kind: 'drawn',
  handles: 'anchors',
  family: 'start',
  label: 'Drawn path',
  use: 'Curves',
  icon: 'M3 15C6 5 10 17 17 5',
  help: 'A smooth path through anchors. Draw it in the viewport, then drag, add and remove anchors there.',
  takes: [],
  gives: ['paths'],
  givesToo: (p) => (p.dots === true ? ['points'] : []),
  params,
  summary(p) {
    if (p.anchors.length < 2) return formatCount(p.anchors.length, 'anchor');
    const course = courseThrough(p.anchors, p.closed);
    const closed = p.closed && p.anchors.length > 2;
    return `${formatCount(p.anchors.length, 'anchor')}, ${metres(totalLength(arcLengths(course, 0, course.length / 3, closed)))}`;
  },
  async run(form, p, context) {
    const { runDrawn } = await import('./runDrawn');
    return runDrawn(form, p, context);
  },
});
