import { frameAtRest, type PathFrame } from '../../curves/frameAtRest';
import { withFrames } from '../../curves/pathFrames';
import type { Form } from '../../geometry/form';
import { type FramedPaths, type Paths, pathCount } from '../../geometry/paths';
import { PointTree } from '../../geometry/search/pointTree';
import { after, fromAxes, partOfTurn } from '../../geometry/turns';
import { add, at, dot, partWay, scale, sub, type Vec3 } from '../../geometry/vec';
import { Problem } from '../../problem';
import type { StepContext } from '../declare';
import { pathsIn } from '../start/others';
import { eachPoint } from './eachPoint';
import type { RideParams } from './ride';
import { withTurns } from './withTurns';

/** A form that goes along with the paths of another growth, from where these lie at the last frame. */
export async function runRide(form: Form, p: RideParams, context: StepContext): Promise<Form> {
  const now = wholeOf(await pathsIn(context, 'growth', p.growth));
  const last = (await context.otherAt('growth', 'last')).paths;
  if (!last || last.s.length === 0)
    throw new Problem('The chosen growth has no paths at the last frame.', 'Choose another.');
  const rest = wholeOf(last);
  const carried = carrier(rest, now);
  const amount = context.varied('amount');
  const moved = await eachPoint(form, context, (place, element) => {
    const { before, here } = carried(place);
    const off = sub(place, before.position);
    const put = p.turn
      ? add(
          here.position,
          add(
            scale(here.tangent, dot(off, before.tangent)),
            add(scale(here.normal, dot(off, before.normal)), scale(here.across, dot(off, before.across))),
          ),
        )
      : add(here.position, off);
    return partWay(place, put, amount(element));
  });
  if (!p.turn) return moved;
  return withTurns(moved, form, (place) => {
    const { before, here } = carried(place);
    const [x, y, z, w] = fromAxes(before.tangent, before.normal);
    return partOfTurn(after(fromAxes(here.tangent, here.normal), [-x, -y, -z, w]), p.amount);
  });
}

/** All of the paths, however much of them has grown. */
const wholeOf = (paths: Paths): FramedPaths => withFrames(paths.uncut ?? paths);

/** For a place, the nearest place of the paths at rest, and where that is now. */
function carrier(rest: FramedPaths, now: FramedPaths): (place: Vec3) => { before: PathFrame; here: PathFrame } {
  const tree = new PointTree(rest.positions);
  const pathOf = new Uint32Array(rest.s.length);
  for (let path = 0; path < pathCount(rest); path++) pathOf.fill(path, rest.offsets[path], rest.offsets[path + 1]);
  const places = new Map<number, number>();
  now.ids.forEach((id, path) => places.set(id, path));
  return (place) => {
    const i = tree.nearestTo(...place);
    const path = pathOf[i];
    const share = nearestShare(rest, path, i, place);
    const before = frameAtRest(rest, path, share);
    const there = places.get(rest.ids[path]);
    // A path that is not there now leaves what rides on it where it was.
    const here =
      there === undefined || now.offsets[there + 1] === now.offsets[there] ? before : frameAtRest(now, there, share);
    return { before, here };
  };
}

/** The rest coordinate of the place nearest to a point, on the segments beside the path's nearest point. */
function nearestShare({ positions, u, offsets }: FramedPaths, path: number, i: number, place: Vec3): number {
  let [best, share] = [Infinity, u[i]];
  for (const [a, b] of [
    [i - 1, i],
    [i, i + 1],
  ]) {
    if (a < offsets[path] || b >= offsets[path + 1]) continue;
    const [from, to] = [at(positions, a), at(positions, b)];
    const way = sub(to, from);
    const length = dot(way, way);
    const t = length > 0 ? Math.max(0, Math.min(1, dot(sub(place, from), way) / length)) : 0;
    const off = sub(place, partWay(from, to, t));
    const away = dot(off, off);
    if (away < best) [best, share] = [away, u[a] + t * (u[b] - u[a])];
  }
  return share;
}
