import { arcLengths, totalLength } from '../../curves/arclength';
import { resample, sampleAt } from '../../curves/resample';
import { smoothstep } from '../../fields/smoothstep';
import { filled } from '../../geometry/filled';
import { emptyColumns, NO_NAMED } from '../../geometry/attributes';
import { type Form, type Points, POINTS } from '../../geometry/form';
import { pathsFrom } from '../../geometry/paths';
import { treeInTime } from '../../geometry/search/meshTree';
import { nearestPlace } from '../../geometry/search/nearest';
import type { Anchor } from '../../geometry/vec';
import { Problem } from '../../problem';
import { shortestWay } from '../../surfaces/fronts/shortestWay';
import type { StepContext } from '../declare';
import { courseThrough, type DrawnParams, FINE } from './drawn';
import { startWith } from './startWith';
import { startWithPoints } from './startWithPoints';

/** A course, and for each of its points which anchor it lies behind and how far on to the next. */
interface Course {
  positions: Float64Array;
  /** Anchor's number and share of the way to the next. */
  behind: Float64Array;
}

const smoothCourse = (anchors: readonly Anchor[], closed: boolean): Course => {
  const positions = courseThrough(anchors, closed);
  return { positions, behind: filled(Float64Array, positions.length / 3, (i) => i / FINE) };
};

/** A value of the anchors eased from one to the next (smoothstep), at the points of a course. */
const between = (anchors: readonly Anchor[], of: (anchor: Anchor) => number, { behind }: Course): Float64Array =>
  behind.map((at) => {
    const k = Math.floor(at + 1e-9);
    const t = smoothstep(at - k);
    const a = of(anchors[k % anchors.length]);
    return t === 0 ? a : a + (of(anchors[(k + 1) % anchors.length]) - a) * t;
  });

/** The path through the anchors. */
export async function runDrawn(form: Form, p: DrawnParams, context: StepContext): Promise<Form> {
  if (p.anchors.length < 2) {
    throw new Problem('A drawn path needs two anchors or more.', 'Draw it in the viewport, or add an anchor.');
  }
  context.claim('points', p.points, 'Points');
  const closed = p.closed && p.anchors.length > 2;
  const course = p.skin ? await courseOnSkin(p.anchors, closed, context) : smoothCourse(p.anchors, closed);
  const { positions } = course;
  const count = Math.max(p.points, closed ? 3 : 2);
  const n = positions.length / 3;
  const table = arcLengths(positions, 0, n, closed);
  const step = totalLength(table) / (closed ? count : count - 1);
  const arcs = filled(Float64Array, count, (i) => i * step);
  const along = (of: (anchor: Anchor) => number): Float64Array => {
    const out = new Float64Array(count);
    sampleAt(between(p.anchors, of, course), 0, n, table, arcs, 1, out, 0);
    return out;
  };
  const made = await startWith(
    form,
    pathsFrom([
      {
        positions: resample(positions, count, closed),
        closed,
        size: p.anchors.some(([, , , size = 1]) => size !== 1) ? along(([, , , size = 1]) => size) : undefined,
        lean: p.anchors.some((anchor) => (anchor[4] ?? 0) !== 0)
          ? along((anchor) => ((anchor[4] ?? 0) * Math.PI) / 180)
          : undefined,
      },
    ]),
  );
  return p.dots ? startWithPoints(made, pointsAt(p.anchors)) : made;
}

/** A point at each anchor. */
function pointsAt(anchors: readonly Anchor[]): Points {
  const points: Points = { ...emptyColumns(POINTS, 'point', anchors.length), life: null, age: null, named: NO_NAMED };
  anchors.forEach(([x, y, z, size = 1], k) => {
    points.positions.set([x, y, z], 3 * k);
    points.turns[4 * k + 3] = 1;
    points.size[k] = size;
    points.ids[k] = points.dice[k] = k;
    points.share[k] = k / (anchors.length - 1);
  });
  return points;
}

/** The shortest ways over a skin from anchor to anchor; straight where none leads there. */
async function courseOnSkin(anchors: readonly Anchor[], closed: boolean, context: StepContext): Promise<Course> {
  const { mesh } = await context.other('skin');
  if (!mesh || mesh.indices.length === 0)
    throw new Problem(
      'The growth that it is to follow has no skin at this frame.',
      'Choose another, or add a skin to it.',
    );
  await treeInTime(mesh, () => context.yieldNow());
  const ends = anchors.map(([x, y, z]) => nearestPlace(mesh, [x, y, z])!);
  const positions: number[] = [...ends[0].position];
  const behind: number[] = [0];
  const legs = closed ? ends.length : ends.length - 1;
  for (let k = 0; k < legs; k++) {
    const [from, to] = [ends[k], ends[(k + 1) % ends.length]];
    const way = (await shortestWay(mesh, from, to, () => context.yieldNow())) ?? [...from.position, ...to.position];
    const lengths = arcLengths(Float64Array.from(way), 0, way.length / 3, false);
    const whole = totalLength(lengths);
    // A closed path does not repeat its first point.
    const end = way.length / 3 - (closed && k === legs - 1 ? 1 : 0);
    for (let i = 1; i < end; i++) {
      positions.push(way[3 * i], way[3 * i + 1], way[3 * i + 2]);
      behind.push(k + (whole > 0 ? lengths[i] / whole : 1));
    }
  }
  return { positions: Float64Array.from(positions), behind: Float64Array.from(behind) };
}
