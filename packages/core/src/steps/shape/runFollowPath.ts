import { arcLengths, totalLength } from '../../curves/arclength';
import { sampleCurve } from '../../curves/sampling';
import { wholeBoundsOf } from '../../geometry/extent';
import type { Form } from '../../geometry/form';
import type { FramedPaths } from '../../geometry/paths';
import { fromAxes, partOfTurn } from '../../geometry/turns';
import { add, byAxis, cross, partWay, scale, type Vec3 } from '../../geometry/vec';
import type { StepContext } from '../declare';
import { leaning } from '../skin/leaning';
import { pathsIn } from '../start/others';
import { eachPoint } from './eachPoint';
import type { FollowPathParams } from './followPath';
import { withTurns } from './withTurns';

/** A frame on the path: x along it, y along its normal, z square to both. */
interface Frame {
  origin: Vec3;
  x: Vec3;
  y: Vec3;
  z: Vec3;
}

/** A form bent along the path of another growth; copies and points turn with it. */
export async function runFollowPath(form: Form, p: FollowPathParams, context: StepContext): Promise<Form> {
  const bounds = wholeBoundsOf(form);
  if (!bounds) return form;
  const found = await pathsIn(context, 'growth', p.growth);
  // A form of its own length lies on the whole path, however much of that has grown.
  const source = p.length === 'kept' ? (found.uncut ?? found) : found;
  const frameAt = courseOf(await leaning(source, p.lean, () => context.yieldNow()), (p.roll * Math.PI) / 180);
  const axis = ['x', 'y', 'z'].indexOf(p.axis);
  const [low, high] = [bounds.min[axis], bounds.max[axis]];
  const stretch = p.length === 'fitted' && high > low ? frameAt.length / (high - low) : 1;
  const begin = p.length === 'kept' ? p.start * frameAt.length : 0;
  const amount = context.varied('amount');
  const [second, third] = [(axis + 1) % 3, (axis + 2) % 3];
  const frameOf = (place: Vec3): Frame => frameAt.at(begin + (place[axis] - low) * stretch);
  const moved = await eachPoint(form, context, (place, element) => {
    const { origin, y, z } = frameOf(place);
    const put = add(origin, add(scale(y, place[second]), scale(z, place[third])));
    const share = amount(element);
    return share === 1 ? put : partWay(place, put, share);
  });
  return withTurns(moved, form, (place) => {
    const { x, y, z } = frameOf(place);
    const own = [x, y, z];
    // Its own axis goes along the path, the next two along its normal and across.
    const [toX, toY] = byAxis((k) => (k - axis + 3) % 3).map((k) => own[k]);
    return partOfTurn(fromAxes(toX, toY), p.amount);
  });
}

/** Frames by length along the first of some paths, which goes on straight beyond its ends; a closed one goes round. */
function courseOf(paths: FramedPaths, roll: number): { length: number; at: (s: number) => Frame } {
  const [a, b] = [paths.offsets[0], paths.offsets[1]];
  const closed = paths.closed[0] === 1;
  const arcs = arcLengths(paths.positions, a, b, closed);
  const length = totalLength(arcs);
  const [c, sine] = [Math.cos(roll), Math.sin(roll)];
  return {
    length,
    at: (asked) => {
      const s = closed && length > 0 ? asked - length * Math.floor(asked / length) : asked;
      const within = Math.max(0, Math.min(length, s));
      const { position, tangent, normal } = sampleCurve(paths, a, b, arcs, within);
      const across = cross(tangent, normal);

      return {
        origin: add(position, scale(tangent, s - within)),
        x: tangent,
        y: add(scale(normal, c), scale(across, sine)),
        z: add(scale(across, c), scale(normal, -sine)),
      };
    },
  };
}
